"""One water change that meets the target of every solute at once."""

from typing import Annotated, Literal

from pydantic import Field

from reedmace.core.working import Answer, CannotAnswer, Litres, NetLitres, Part, Question, Share, Working, number


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
    conditioner_ml_per_100l: Annotated[float, number("mL/100 L", 0, 1000, "From the conditioner's label")] = 0


class SoluteShare(Part):
    """The share each solute asks for by itself, and where it ends after the change."""

    what: Literal["ammonia", "nitrite", "nitrate", "other"]
    asks_share: Share
    after_ppm: Annotated[float, number("ppm", 0, 1e5)]


class WaterChangeAnswer(Answer):
    """Share and litres, with the solute that decides it."""

    change_share: Share
    change_l: Litres
    decided_by: str
    solutes: list[SoluteShare]
    hot_l: Litres
    cold_l: Litres
    conditioner_ml: Annotated[float, number("mL", 0, 1e6)]


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
    if share > 0.9:
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
    )
