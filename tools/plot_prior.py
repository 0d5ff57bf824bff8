"""Draw the figures of docs/prior.md anew: python tools/plot_prior.py. Prints the table that stands there."""

from pathlib import Path

import numpy as np

from reedmace.core.cycle.model.draw_weights import percentiles
from reedmace.core.cycle.model.ensemble import condition, project
from reedmace.core.cycle.model.inputs import Scenario
from reedmace.core.cycle.record.log import CycleLog, LoggedDose, LoggedReading
from reedmace.core.quantity.units import NITROGEN_SHARE

FIGURES = Path(__file__).parents[1] / "docs" / "figures"
PPM = NITROGEN_SHARE["NH4"]
INK, SOFT, LINE, BAND, SEED, REED = "#14262a", "#46575a", "#b9c2b8", "#93bcbc", "#7a3d18", "#c6d6b8"
DRAWS = 2000
FONT = 'font-family="Source Sans 3, sans-serif" font-size="14"'


def case(**more: object) -> CycleLog:
    """A tank of 100 L on its first day, dosed to 2 ppm."""
    dose = [LoggedDose(day=0, raise_mg_n_l=2 * PPM)]
    return CycleLog.model_validate({"net_l": 100, "day_now": 0, "start_kh_dkh": 6, "doses": dose, **more})


TWO = {"planned_load_mg_n_l_day": 2 * PPM / 1.2}
# Name, log, what keepers say in days (low, high), common practice.
CASES: list[tuple[str, CycleLog, tuple[float, float] | None]] = [
    ("Bare, 26 °C, asked for 2 ppm", case(**TWO), (28, 42)),
    ("Bare, 26 °C, a light stock's load", case(), (28, 42)),
    ("Bare, 21 °C", case(temperature_c=21), None),
    ("A seeded filter, light stock", case(method="seeded-filter", doses=[]), (1, 7)),
    ("A seeded filter, asked for 2 ppm", case(method="seeded-filter", **TWO), (5, 9)),
    ("A tenth of a seeded filter", case(method="seeded-filter", seed_share=0.1), None),
    ("Bottled culture inside its window", case(helpers=["bottled-culture"], start_ph=7.6), (14, 35)),
    ("The same bottle at pH 7.0", case(helpers=["bottled-culture"], start_ph=7.0), None),
    ("Mature rock, salt water", case(method="mature-rock", salinity_g_kg=35, start_ph=8.1), (12, 16)),
    ("Plants with ammonia", case(helpers=["plants"], plants="many", plants_growing_day=7), (14, 28)),
    ("Fish food alone", case(method="fish-food", food_g_day=0.8, doses=[]), None),
    ("No phosphate in the water", case(readings=[LoggedReading(day=0, phosphate_ppm=0)]), None),
]


def days_figure() -> None:
    """Pass days of each case, P10 to P90 with the median, over what keepers say."""
    left, row, width = 250, 30, 760
    top, most = 26, 100
    x = lambda day: left + min(day, most) / most * (width - left - 20)  # noqa: E731
    out = []
    for tick in range(0, most + 1, 10):
        out.append(f'<path d="M{x(tick):.1f} {top - 6}V{top + row * len(CASES)}" stroke="{LINE}"/>')
        out.append(f'<text x="{x(tick):.1f}" y="14" text-anchor="middle" fill="{SOFT}">{tick}</text>')
    print("| tank | P10 | P50 | P90 | keepers say |\n|---|---|---|---|---|")
    for i, (name, log, said) in enumerate(CASES):
        ensemble = condition(log, DRAWS)
        low, middle, high = percentiles(project(log, ensemble, 150, Scenario()).late, ensemble.weights)
        y = top + row * i + row / 2
        out.append(f'<text x="0" y="{y + 5:.0f}" fill="{INK}">{name}</text>')
        if said:
            a, b = x(said[0]), x(said[1])
            out.append(f'<rect x="{a:.1f}" y="{y - 11:.0f}" width="{b - a:.1f}" height="22" fill="{REED}"/>')
        if np.isfinite(middle):
            a, b = x(low), x(high if np.isfinite(high) else most)
            out.append(f'<rect x="{a:.1f}" y="{y - 5:.0f}" width="{b - a:.1f}" height="10" fill="{BAND}"/>')
            out.append(f'<path d="M{x(middle):.1f} {y - 9:.0f}v18" stroke="{INK}" stroke-width="2.4"/>')
        else:
            out.append(f'<text x="{left}" y="{y + 5:.0f}" fill="{SOFT}">no date</text>')
        show = [f"{v:.0f}" if np.isfinite(v) else "none" for v in (low, middle, high)]
        print(f"| {name} | {' | '.join(show)} | {f'{said[0]:g} to {said[1]:g}' if said else ''} |")
    write("prior-days.svg", width, top + row * len(CASES) + 6, out)


def course_figure() -> None:
    """The bare tank's lines over 50 days: P10 to P90 of ammonia, nitrite and nitrate, dosed as advised."""
    width, height, left, foot = 760, 300, 40, 26
    log = case()
    ensemble = condition(log, DRAWS)
    daily = project(log, ensemble, 50, Scenario()).daily[:, :, :3]
    most = 8.0
    x = lambda day: left + day / 50 * (width - left - 12)  # noqa: E731
    y = lambda v: 12 + (1 - min(v, most) / most) * (height - foot - 12)  # noqa: E731
    out = []
    for tick in range(0, 9, 2):
        out.append(f'<path d="M{left} {y(tick):.1f}H{width - 12}" stroke="{LINE}"/>')
        out.append(f'<text x="{left - 8}" y="{y(tick) + 5:.0f}" text-anchor="end" fill="{SOFT}">{tick}</text>')
    for tick in range(0, 51, 10):
        out.append(f'<text x="{x(tick):.1f}" y="{height - 6}" text-anchor="middle" fill="{SOFT}">day {tick}</text>')
    for column, name, tone in ((2, "nitrate", REED), (1, "nitrite", BAND), (0, "ammonia", SEED)):
        low, middle, high = np.quantile(daily[:, :, column], [0.1, 0.5, 0.9], axis=0)
        edge = [f"{x(d):.1f},{y(v):.1f}" for d, v in enumerate(high)]
        edge += [f"{x(d):.1f},{y(v):.1f}" for d, v in reversed(list(enumerate(low)))]
        out.append(f'<polygon points="{" ".join(edge)}" fill="{tone}" opacity="0.45"/>')
        line = " ".join(f"{x(d):.1f},{y(v):.1f}" for d, v in enumerate(middle))
        out.append(
            f'<polyline points="{line}" fill="none" stroke="{INK if column == 2 else SOFT}" stroke-width="1.4"/>'
        )
        at = int(np.argmax(middle[:40]))
        out.append(f'<text x="{x(at) + 6:.0f}" y="{y(middle[at]) - 6:.0f}" fill="{INK}">{name}</text>')
    out.append(f'<text x="{left}" y="10" fill="{SOFT}">mg N/L</text>')
    write("prior-course.svg", width, height, out)


def write(name: str, width: float, height: float, parts: list[str]) -> None:
    """One SVG file beside this script."""
    body = "\n".join(parts)
    head = f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="-6 -2 {width + 12:.0f} {height + 4:.0f}" {FONT}>'
    ground = f'<rect x="-6" y="-2" width="{width + 12:.0f}" height="{height + 4:.0f}" fill="#f3f4ef"/>'
    (FIGURES / name).write_text(f"{head}\n{ground}\n{body}\n</svg>\n", encoding="utf-8")


if __name__ == "__main__":
    days_figure()
    course_figure()
