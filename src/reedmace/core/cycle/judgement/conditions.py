"""Conditions a cycle plan is checked against before anything is dosed: a decision table, worst case first.

The first rung that holds speaks. A row that does not apply is left out.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import TYPE_CHECKING, Literal

from reedmace.core.contract import Part
from reedmace.core.cycle.model.prior import bottle_window
from reedmace.core.cycle.record.log import Chlorine, CycleLog
from reedmace.core.cycle.record.targets import targets_of
from reedmace.core.film import film_slows, film_stops, lacks_alkalinity
from reedmace.core.quantity import formatting
from reedmace.core.quantity.units import ppm_words

if TYPE_CHECKING:
    from reedmace.core.cycle.judgement.plan import CyclePlanQuestion

Level = Literal["fine", "watch", "first"]


class ConditionCheck(Part):
    """One condition with its verdict and remedy."""

    what: str
    level: Level
    text: str
    remedy: str = ""


@dataclass(frozen=True)
class Case:
    """What is said when `holds` is true."""

    holds: Callable[[CyclePlanQuestion, CycleLog], bool]
    level: Level
    text: Callable[[CyclePlanQuestion, CycleLog], str]
    remedy: str = ""


@dataclass(frozen=True)
class Condition:
    """One row of the table."""

    what: str
    cases: tuple[Case, ...]
    applies: Callable[[CyclePlanQuestion, CycleLog], bool] = lambda q, log: True


def _always(q: CyclePlanQuestion, log: CycleLog) -> bool:
    return True


_WARMER = "27 to 29 °C (80 to 84 °F) while the tank is empty, if the heater and your animals' coming range allow."
_CONDITIONER = "Conditioner to the litres of the change, before it meets the filter."
_CHLORINE: dict[Chlorine, str] = {
    "none": "The water carries no chlorine.",
    "chlorine": "Chlorine kills the film: treat every bucket, even a top-up.",
    "chloramine": (
        "Chloramine kills the film and lets ammonia go when it is treated: use a conditioner that names chloramine."
    ),
    "unknown": "Take the tap to be chlorinated until the water company says otherwise.",
}

CONDITIONS: tuple[Condition, ...] = (
    Condition(
        "Ammonia",
        (
            Case(
                lambda q, log: q.ammonia_source == "household-cleaner",
                "first",
                lambda q, log: "Never a household cleaner: scent, dye and soap kill what you are growing.",
                "Aquarium-grade ammonium chloride or ammonia. Never near bleach: the gas is poison.",
            ),
            Case(
                lambda q, log: q.ammonia_source == "aquarium-grade",
                "fine",
                lambda q, log: "Aquarium grade. Gloves; away from children; never together with bleach.",
            ),
            Case(
                _always,
                "watch",
                lambda q, log: (
                    "Shake it: if it foams and the foam stays, or if it smells of anything but ammonia, do not use it."
                ),
                "Aquarium-grade, with its strength on the label, is the safe choice. Never together with bleach.",
            ),
        ),
        applies=lambda q, log: log.doses_ammonia() and q.method != "seeded-filter",
    ),
    Condition(
        "Warmth",
        (
            Case(
                lambda q, log: q.temperature_c < 18,
                "first",
                lambda q, log: f"{formatting.celsius(q.temperature_c)} is cold: the film works at a crawl.",
                _WARMER,
            ),
            Case(
                lambda q, log: not 25 <= q.temperature_c <= 30,
                "watch",
                lambda q, log: f"{formatting.celsius(q.temperature_c)} is not the best pace.",
                _WARMER,
            ),
            Case(_always, "fine", lambda q, log: f"{formatting.celsius(q.temperature_c)} suits the film."),
        ),
    ),
    Condition(
        "pH",
        (
            Case(
                lambda q, log: film_stops(q.ph),
                "first",
                lambda q, log: f"pH {q.ph:g} all but stops the film.",
                "Raise KH and pH follows.",
            ),
            Case(
                lambda q, log: film_slows(q.ph),
                "watch",
                lambda q, log: f"pH {q.ph:g} slows the film.",
                "Raise KH and pH follows.",
            ),
            Case(
                lambda q, log: q.ph > 8.4,
                "watch",
                lambda q, log: (
                    f"pH {q.ph:g} turns much of the ammonia into its free form, which holds the nitrite step back."
                ),
                "Dose small.",
            ),
            Case(_always, "fine", lambda q, log: f"pH {q.ph:g} suits the film."),
        ),
    ),
    Condition(
        "KH",
        (
            Case(
                lambda q, log: targets_of(log).soft,
                "fine",
                lambda q, log: (
                    f"KH {q.kh_dkh:g} dKH: these animals want soft, acid water. No soda; the film works slowly there."
                ),
            ),
            Case(
                lambda q, log: lacks_alkalinity(q.kh_dkh),
                "first",
                lambda q, log: f"KH {q.kh_dkh:g} dKH is next to nothing.",
                "Bicarbonate, by the figures here.",
            ),
            Case(
                lambda q, log: q.kh_dkh < targets_of(log).kh_target_dkh,
                "watch",
                lambda q, log: f"KH {q.kh_dkh:g} dKH is little: test it twice a week.",
                "Bicarbonate, by the figures here.",
            ),
            Case(_always, "fine", lambda q, log: f"KH {q.kh_dkh:g} dKH is enough to begin with."),
        ),
    ),
    Condition(
        "Phosphate",
        (
            Case(
                lambda q, log: (q.phosphate_ppm or 0.0) < 0.02,
                "watch",
                lambda q, log: "No phosphate: nothing grows without it.",
                "A small pinch of fish food a week, or a plant fertiliser that has phosphate.",
            ),
            Case(_always, "fine", lambda q, log: f"Phosphate {q.phosphate_ppm:g} ppm is enough."),
        ),
        applies=lambda q, log: q.phosphate_ppm is not None,
    ),
    Condition(
        "Tap: chlorine",
        (
            Case(lambda q, log: q.tap.chlorine == "none", "fine", lambda q, log: _CHLORINE[q.tap.chlorine]),
            Case(_always, "watch", lambda q, log: _CHLORINE[q.tap.chlorine], _CONDITIONER),
        ),
    ),
    Condition(
        "Tap: ammonia",
        (
            Case(
                _always,
                "watch",
                lambda q, log: f"The tap brings {ppm_words(q.tap.ammonia_mg_n_l, 'ammonia', 'ion')} of ammonia.",
                "Count it in the doses; with animals in, change less at a time.",
            ),
        ),
        applies=lambda q, log: q.tap.ammonia_mg_n_l >= 0.1,
    ),
    Condition(
        "Tap: nitrate",
        (
            Case(
                _always,
                "watch",
                lambda q, log: (
                    f"The tap brings {ppm_words(q.tap.nitrate_mg_n_l, 'nitrate', 'ion')} of nitrate: no change gets"
                    " below it."
                ),
                "Aim the final change at what the tap allows, or mix in purified water.",
            ),
        ),
        applies=lambda q, log: q.tap.nitrate_mg_n_l >= 4,
    ),
    Condition(
        "Bottled culture",
        (
            Case(
                lambda q, log: bool(bottle_window(log)),
                "watch",
                lambda q, log: f"Outside its window: it wants {', '.join(bottle_window(log))}.",
                "Count on little from it until that is so.",
            ),
            Case(_always, "fine", lambda q, log: "Inside its window."),
        ),
        applies=lambda q, log: "bottled-culture" in q.helpers,
    ),
)


def judge(q: CyclePlanQuestion, log: CycleLog) -> list[ConditionCheck]:
    """Verdicts of all applicable conditions. q: the plan; log: the same as a cycle. Source: common practice."""
    found = []
    for row in CONDITIONS:
        if row.applies(q, log):
            rung = next(r for r in row.cases if r.holds(q, log))
            found.append(ConditionCheck(what=row.what, level=rung.level, text=rung.text(q, log), remedy=rung.remedy))
    return found
