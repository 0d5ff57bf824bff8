"""One water change that meets the target of every solute at once, without a shock to what lives in it."""

import math
from typing import Annotated, Literal

from pydantic import Field

from reedmace.core.contract import (
    PH,
    Answer,
    Litres,
    NetLitres,
    Part,
    Question,
    Share,
    Working,
    computation,
    number,
    whole,
)
from reedmace.core.errors import CannotAnswer
from reedmace.core.quantity import CACO3_PER_DKH

PH_SHIFT_ANIMALS, PH_SHIFT_EMPTY = 0.5, 1.0
"""Most that pH may move in one change, with animals in and without (common practice for the first, memory for the second)."""
MOST_PARTS = 8
_PK1 = 6.35


def mixed_ph(tank_ph: float, tank_kh_dkh: float, tap_ph: float, tap_kh_dkh: float, share: float) -> float:
    """pH right after a change, before the air has its say.

    tank_ph, tap_ph: 4 to 10; tank_kh_dkh, tap_kh_dkh: dKH; share: of the water changed, 0 to 1.
    Bicarbonate and CO2 mix in proportion; pH = 6.35 + log10(HCO3/CO2). Source: Stumm and Morgan, carbonate equilibrium.
    """
    bicarbonate = [max(kh, 0.05) * CACO3_PER_DKH / 50.04 for kh in (tank_kh_dkh, tap_kh_dkh)]
    gas = [b / 10 ** (ph - _PK1) for b, ph in zip(bicarbonate, (tank_ph, tap_ph), strict=True)]
    mixed = [one * (1 - share) + other * share for one, other in (bicarbonate, gas)]
    return _PK1 + math.log10(mixed[0] / mixed[1])


class Solute(Part):
    """One measured thing: now, in the tap, and the most wanted. All in one unit of the keeper's choice."""

    what: Literal["ammonia", "nitrite", "nitrate", "other"]
    now_ppm: Annotated[float, number("ppm", 0, 1e5)]
    tap_ppm: Annotated[float, number("ppm", 0, 1e5)] = 0
    target_ppm: Annotated[float, number("ppm", 0, 1e5)]


class WaterChangeQuestion(Question):
    """The water, what is in it, and how cold the tap is."""

    net_l: NetLitres
    solutes: Annotated[list[Solute], Field(min_length=1, max_length=8)]
    tank_c: Annotated[float, number("°C", 0.5, 40)] = 25
    tap_cold_c: Annotated[float, number("°C", 0, 40)] = 12
    tap_hot_c: Annotated[float, number("°C", 20, 90)] = 55
    tank_ph: PH | None = None
    tank_kh_dkh: Annotated[float, number("dKH", 0, 40)] | None = None
    tap_ph: PH | None = None
    tap_kh_dkh: Annotated[float, number("dKH", 0, 40)] | None = None
    animals_in: bool = True
    conditioner_ml_per_100l: Annotated[float, number("mL/100 L", 0, 1000, "From the conditioner's label")] = 0


class SoluteShare(Part):
    """The share each solute asks for by itself, and where it ends after the change."""

    what: Literal["ammonia", "nitrite", "nitrate", "other"]
    asks_share: Share
    after_ppm: Annotated[float, number("ppm", 0, 1e5)]


class WaterChangeAnswer(Answer):
    """Share and litres, with the solute that decides it; in how many parts, so that pH moves no more than it may."""

    change_share: Share
    change_l: Litres
    decided_by: str
    solutes: list[SoluteShare]
    hot_l: Litres
    cold_l: Litres
    conditioner_ml: Annotated[float, number("mL", 0, 1e6)]
    after_ph: Annotated[float, number("pH", 0, 14)] | None
    ph_shift: Annotated[float, number("pH", 0, 10, "Of the largest part")] | None
    parts_count: Annotated[int, whole(1, MOST_PARTS)]
    part_l: Litres


@computation("water-change", "How much to change for every target at once")
def water_change(question: WaterChangeQuestion) -> WaterChangeAnswer:
    """Share of the water to change so that every solute ends at or under its target.

    question: L, ppm, °C. Source: dilution (mass balance of a single change).
    Raises CannotAnswer when the tap itself is over a target, since no change can then reach it.
    """
    q, w = question, Working()
    asks: list[float] = []
    for index, s in enumerate(q.solutes):
        if s.now_ppm <= s.target_ppm:
            asks.append(0.0)
            continue
        if (s.tap_ppm >= s.target_ppm and s.target_ppm > 0) or s.tap_ppm > s.target_ppm:
            raise CannotAnswer(
                f"solutes.{index}.target_ppm",
                f"the tap carries {s.tap_ppm:g} ppm of {s.what}, so no change reaches {s.target_ppm:g}.",
                "Raise the target above the tap's own figure or treat the tap water.",
            )
        asks.append(
            w.line(
                f"x {s.what}",
                "(now − target) / (now − tap)",
                f"({s.now_ppm:g} − {s.target_ppm:g}) / ({s.now_ppm:g} − {s.tap_ppm:g})",
                (s.now_ppm - s.target_ppm) / (s.now_ppm - s.tap_ppm),
                "share",
                "arithmetic",
            )
        )
    share = max(asks)
    decided = q.solutes[asks.index(share)].what if share > 0 else "none"
    litres = w.line("V", "x × net litres", f"{share:.3f} × {q.net_l:.1f}", share * q.net_l, "L", "arithmetic")
    if q.tap_hot_c <= q.tap_cold_c:
        raise CannotAnswer("tap_hot_c", "the hot tap is not warmer than the cold one.", "Swap or correct the two.")
    hot_share = min(max((q.tank_c - q.tap_cold_c) / (q.tap_hot_c - q.tap_cold_c), 0.0), 1.0)
    hot = w.line(
        "Vhot",
        "V × (tank − cold) / (hot − cold)",
        f"{litres:.1f} × ({q.tank_c:g} − {q.tap_cold_c:g}) / ({q.tap_hot_c:g} − {q.tap_cold_c:g})",
        litres * hot_share,
        "L",
        "arithmetic",
    )
    conditioner = litres * q.conditioner_ml_per_100l / 100
    after = [
        SoluteShare(what=s.what, asks_share=a, after_ppm=s.now_ppm * (1 - share) + s.tap_ppm * share)
        for s, a in zip(q.solutes, asks, strict=True)
    ]
    verdict = (
        "No change is needed: everything is at or under its target."
        if share == 0
        else f"Change {litres:.0f} L ({share * 100:.0f} %): {decided} decides it. Mix {hot:.0f} L hot with {litres - hot:.0f} L cold to match {q.tank_c:g} °C, and treat for chlorine."
    )
    after_ph = shift = None
    parts, part_l = 1, litres
    if None not in (q.tank_ph, q.tank_kh_dkh, q.tap_ph, q.tap_kh_dkh) and share > 0:
        after_ph, shift, parts = _parts(q, share)
        part_l = litres if parts == 1 else (1 - (1 - share) ** (1 / parts)) * q.net_l
        w.line(
            "ΔpH",
            "pH mixed − pH tank, the largest part",
            f"{parts} part{'s' if parts > 1 else ''} of {part_l:.1f} L",
            shift,
            "pH",
            "carbonate",
        )
    if shift is not None and shift > (PH_SHIFT_ANIMALS if q.animals_in else PH_SHIFT_EMPTY) + 1e-9:
        verdict += f" Tank and tap are too far apart: even in {parts} parts pH would move by {shift:.1f}. Let it drip in over a day."
    elif parts > 1:
        verdict += f" In {parts} parts of {part_l:.0f} L, a few hours apart, so that pH moves no more than {PH_SHIFT_ANIMALS if q.animals_in else PH_SHIFT_EMPTY:g} at a time."
    elif share > 0.9 and q.animals_in:
        verdict += " With animals in, split it over several days."
    return WaterChangeAnswer(
        verdict=verdict,
        working=w.lines,
        change_share=share,
        change_l=litres,
        decided_by=decided,
        solutes=after,
        hot_l=hot,
        cold_l=litres - hot,
        conditioner_ml=conditioner,
        after_ph=after_ph,
        ph_shift=shift,
        parts_count=parts,
        part_l=part_l,
    )


def _parts(q: WaterChangeQuestion, share: float) -> tuple[float, float, int]:
    """(pH in the end, largest step, parts) of the fewest equal parts whose steps are each small enough."""
    most = PH_SHIFT_ANIMALS if q.animals_in else PH_SHIFT_EMPTY
    kh_tap, ph_tap = q.tap_kh_dkh or 0.0, q.tap_ph or 7.0
    for parts in range(1, MOST_PARTS + 1):
        each = 1 - (1 - min(share, 0.999)) ** (1 / parts)
        ph, kh, worst = q.tank_ph or 7.0, max(q.tank_kh_dkh or 0.0, 0.05), 0.0
        for _ in range(parts):
            after = mixed_ph(ph, kh, ph_tap, kh_tap, each)
            worst = max(worst, abs(after - ph))
            ph, kh = after, kh * (1 - each) + kh_tap * each
        if worst <= most:
            break
    return ph, worst, parts
