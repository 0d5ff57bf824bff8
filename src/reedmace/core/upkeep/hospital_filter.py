"""The filter of a sick tank: disinfected, dried, and seeded again before it carries animals."""

from typing import Annotated

from reedmace.core.contract import Answer, Part, Question, Working, computation, number
from reedmace.core.film import FULL_DAYS, USABLE_DAYS
from reedmace.core.quantity import formatting

SOAK_MINUTES, DRY_DAYS = 15.0, 3.0
"""Time in strong bleach, rinsed until odourless, and days of drying (common practice)."""


class HospitalQuestion(Question):
    """A filter to be disinfected: bucket, bleach, and whether it holds a motor."""

    bucket_l: Annotated[float, number("L", 0.5, 200)] = 10
    bleach_percent: Annotated[float, number("% available chlorine", 0.5, 15, "As the label says")] = 4
    wanted_ppm: Annotated[float, number("ppm of chlorine", 100, 5000)] = 2500
    motor: bool = True


class HospitalStep(Part):
    """One step in order."""

    title: str
    detail: str
    caution: str | None = None


class HospitalAnswer(Answer):
    """Amount of bleach, the steps, and when it carries animals again."""

    bleach_ml: Annotated[float, number("mL", 0, 1e6)]
    soak_minutes: Annotated[float, number("min", 0, 600)]
    dry_days: Annotated[float, number("days", 0, 60)]
    usable_days: Annotated[float, number("days", 0, 400, "After it went in beside others to seed")]
    full_days: Annotated[float, number("days", 0, 400)]
    steps: list[HospitalStep]


def _steps(q: HospitalQuestion, ml: float) -> list[HospitalStep]:
    """The order of work. ml: bleach for the bucket."""
    return [
        HospitalStep(
            title="Take it apart",
            detail="Its film is given up with the sickness: nothing of it goes to another tank.",
            caution="Unplug first." if q.motor else None,
        ),
        HospitalStep(
            title="Wash it under the tap, outdoors or in a tub",
            detail="Dirt uses the bleach up. Not in a kitchen sink.",
        ),
        HospitalStep(
            title=f"Soak it {SOAK_MINUTES:.0f} minutes",
            detail=(
                f"{ml:.0f} mL of plain household bleach of {q.bleach_percent:g} % in {formatting.litres(q.bucket_l)} of"
                " cold water; foam is squeezed in it. Pump parts are dipped, motors' cables stay out."
            ),
            caution=(
                "Gloves, open air, away from children. Never together with ammonia, acid or any other cleaner: the gas"
                " is poisonous."
            ),
        ),
        HospitalStep(
            title="Rinse, then soak in treated water",
            detail="Conditioner at several times its dose; rinse until nothing smells of chlorine.",
        ),
        HospitalStep(
            title=f"Dry it {DRY_DAYS:.0f} days",
            detail="Right through, in the sun if there is any: drying kills what bleach left, and bleach goes with it.",
        ),
        HospitalStep(
            title=f"Seed it {FULL_DAYS:.0f} days beside the others",
            detail=f"In a running, healthy tank; usable after {USABLE_DAYS:.0f} days. Write down the day it goes in.",
        ),
    ]


@computation("hospital-filter", "Disinfect a filter after sickness and seed it again")
def hospital_filter(question: HospitalQuestion) -> HospitalAnswer:
    """Bleach for a bucket, the order of work, and when the filter carries animals again.

    question: L, percent of available chlorine, ppm wanted.
    Source: common practice; strength of the bath from memory. The product's label and local rules come first.
    """
    q, w = question, Working()
    ml = w.sum(
        "bleach",
        "V × wanted / (percent × 10)",
        {"V": q.bucket_l, "wanted": q.wanted_ppm, "percent": q.bleach_percent, "10": 10},
        "mL",
        "memory",
    )
    return HospitalAnswer(
        verdict=(
            f"{ml:.0f} mL of bleach in {formatting.litres(q.bucket_l)}, {SOAK_MINUTES:.0f} minutes, rinsed,"
            f" {DRY_DAYS:.0f} days dry; seeded again after {FULL_DAYS:.0f} days."
        ),
        working=w.lines,
        bleach_ml=ml,
        soak_minutes=SOAK_MINUTES,
        dry_days=DRY_DAYS,
        usable_days=USABLE_DAYS,
        full_days=FULL_DAYS,
        steps=_steps(q, ml),
    )
