"""Simulated pictures of a vial beside a card: lamps, exposure, noise, glare, cards of several hues. Nobody's card."""

from dataclasses import dataclass
from typing import Any

import numpy as np

from reedmace.core.vial.colour import BRADFORD, D65, RGB_TO_XYZ, Lab, ciede2000, lab_of_xyz, linear

CARDS: dict[str, tuple[list[float], list[tuple[float, float, float]]]] = {
    "yellow to green": (
        [0, 0.25, 0.5, 1, 2, 4, 8],
        [(86, -8, 66), (80, -18, 60), (73, -27, 52), (65, -34, 44), (56, -38, 35), (47, -38, 26), (38, -34, 18)],
    ),
    "blue to violet": (
        [0, 0.25, 0.5, 1, 2, 5],
        [(76, -14, -22), (70, 0, -24), (63, 14, -26), (56, 28, -26), (49, 40, -24), (42, 48, -18)],
    ),
    "yellow to red": (
        [0, 5, 10, 20, 40, 80, 160],
        [(84, 0, 68), (78, 14, 66), (71, 27, 62), (63, 39, 56), (54, 48, 46), (45, 52, 36), (37, 48, 27)],
    ),
    "orange to blue": (
        [6.0, 6.4, 6.6, 6.8, 7.0, 7.2, 7.6, 8.0],
        [(77, 16, 62), (77, 4, 58), (75, -8, 50), (71, -19, 38), (66, -28, 24), (61, -31, 10), (55, -28, -6),
         (49, -20, -20)],
    ),
}  # fmt: skip


@dataclass(frozen=True)
class Picture:
    """A question of `vial-reading`, the true figure, its place on the card (0 is the first step), and the card."""

    question: dict[str, Any]
    figure: float
    place: float
    card: str


def picture(seed: int) -> Picture:
    """One picture. seed: of card, figure, lamp, exposure, noise and glare."""
    rng = np.random.default_rng((seed, 7))
    name = list(CARDS)[int(rng.integers(len(CARDS)))]
    figures, labs = CARDS[name]
    place = float(rng.uniform(0, len(figures) - 1))
    true = float(np.interp(place, range(len(figures)), figures))
    vial = np.array([np.interp(place, range(len(figures)), [lab[n] for lab in labs]) for n in range(3)])
    # Liquid is no print, and a kit's colours scatter.
    vial = vial + rng.normal(0, 1.2, 3)
    see = _camera(rng)
    glare = bool(rng.uniform() < 0.3)
    steps = [{"figure_on_card": f, "pixels": see(np.array(lab), 0.0)} for f, lab in zip(figures, labs, strict=True)]
    question = {
        "white": see(np.array([95.9, 0.0, 0.0]), 0.0),
        "vial": see(vial, 0.15 if glare else 0.0),
        "steps": steps,
    }
    return Picture(question, true, place, name)


def nearest_without_card(made: Picture) -> int:
    """The step a picture's vial looks most like beside a card printed elsewhere: no white, no light taken out."""
    pixels = np.array([(p["r"], p["g"], p["b"]) for p in made.question["vial"]], dtype=float)
    seen = lab_of_xyz(RGB_TO_XYZ @ np.median(linear(pixels), axis=0))
    return int(np.argmin([ciede2000(Lab(*seen), Lab(*lab)) for lab in CARDS[made.card][1]]))


def _camera(rng: np.random.Generator) -> Any:
    """What turns a colour into pixels under one lamp and one exposure."""
    white = _daylight(rng.uniform(2700, 7500))
    to_lamp = np.linalg.inv(BRADFORD) @ np.diag((BRADFORD @ white) / (BRADFORD @ D65)) @ BRADFORD
    # The camera takes most of the lamp's tint out by itself, in its own way.
    balance = (np.linalg.inv(RGB_TO_XYZ) @ white) ** -rng.uniform(0.4, 1.0)
    exposure, noise = rng.uniform(0.45, 0.95), rng.uniform(1.0, 5.0)
    shade = 1 + rng.normal(0, 0.03, 64)

    def see(lab: np.ndarray, glare: float) -> list[dict[str, int]]:
        rgb = np.linalg.inv(RGB_TO_XYZ) @ (to_lamp @ _xyz(lab)) * balance
        scale = exposure / max(float(np.max(np.linalg.inv(RGB_TO_XYZ) @ white * balance)), 1e-6)
        seen = np.outer(shade * rng.normal(1, 0.01), rgb * scale)
        struck = rng.uniform(size=64) < glare
        seen[struck] += exposure * 0.6
        share = np.clip(seen, 0, 1)
        shown = np.where(share <= 0.0031308, 12.92 * share, 1.055 * share ** (1 / 2.4) - 0.055) * 255
        pixels = np.clip(np.rint(shown + rng.normal(0, noise, shown.shape)), 0, 255).astype(int)
        return [{"r": int(r), "g": int(g), "b": int(b)} for r, g, b in pixels]

    return see


def _xyz(lab: np.ndarray) -> np.ndarray:
    fy = (lab[0] + 16) / 116
    parts = np.array([fy + lab[1] / 500, fy, fy - lab[2] / 200])
    return D65 * np.where(parts > 6 / 29, parts**3, 3 * (6 / 29) ** 2 * (parts - 4 / 29))


def _daylight(kelvin: float) -> np.ndarray:
    """White of a lamp, XYZ with Y 1: a black body's chromaticity after Kim et al. (2002)."""
    t = 1e3 / kelvin
    if kelvin < 4000:
        x = -0.2661239 * t**3 - 0.2343589 * t**2 + 0.8776956 * t + 0.179910
    else:
        x = -3.0258469 * t**3 + 2.1070379 * t**2 + 0.2226347 * t + 0.240390
    if kelvin < 2222:
        y = -1.1063814 * x**3 - 1.34811020 * x**2 + 2.18555832 * x - 0.20219683
    elif kelvin < 4000:
        y = -0.9549476 * x**3 - 1.37418593 * x**2 + 2.09137015 * x - 0.16748867
    else:
        y = 3.0817580 * x**3 - 5.87338670 * x**2 + 3.75112997 * x - 0.37001483
    return np.array([x / y, 1.0, (1 - x - y) / y])
