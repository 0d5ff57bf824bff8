"""Nitrate between water changes: the saw-tooth, the rhythm that holds a target, and the effect of a skipped change."""

from typing import Annotated

from pydantic import Field

from reedmace.core.chemistry import ALKALINITY_PER_N, BASE_PER_N
from reedmace.core.contract import Answer, MgNPerL, NetLitres, Part, Question, Working, computation, number
from reedmace.core.errors import CannotAnswer
from reedmace.core.film import lacks_alkalinity
from reedmace.core.quantity import CACO3_PER_DKH
from reedmace.core.quantity.units import NITROGEN_SHARE

PLANTS_TAKE = 0.5
"""Share of the animals' nitrogen a well planted tank takes up before it becomes nitrate (memory)."""
MOST_SHARE = 0.9
DKH_PER_MG_N = (ALKALINITY_PER_N - BASE_PER_N) / CACO3_PER_DKH
"""Alkalinity used for each mg of an animal's nitrogen, less the base it comes with (US EPA 1993)."""


class NitrateRhythmQuestion(Question):
    """Nitrogen produced, the tap's nitrate, and the share and interval of changes."""

    net_l: NetLitres
    made_mg_n_day: Annotated[float, number("mg N/day", 0, 1e7, "By the animals, or as the keeper's own tests show")]
    planted: bool = False
    measured_rise_mg_n_l_day: (
        Annotated[float, number("mg N/(L day)", 0, 100, "From two tests with no change between; then it decides")]
        | None
    ) = None
    tap_mg_n_l: MgNPerL = 0
    now_mg_n_l: MgNPerL | None = None
    change_share: Annotated[float, number("share", 0.01, 0.95)] = 0.25
    every_days: Annotated[float, number("days", 0.5, 120)] = 7
    tap_kh_dkh: Annotated[float, number("dKH", 0, 40)] | None = None
    target_ppm_ion: Annotated[float, number("ppm", 1, 500, "Nitrate as the ion, not to be passed")] = 40


class NitratePoint(Part):
    """One corner of the saw-tooth."""

    day: Annotated[float, number("days", 0, 4000)]
    nitrate_mg_n_l: Annotated[float, number("mg N/L", 0, 1e6)]


class NitrateRhythmAnswer(Answer):
    """Peak before a change and trough after it in the steady state, and what would hold the target."""

    rise_mg_n_l_day: Annotated[float, number("mg N/(L day)", 0, 1e6)]
    peak_mg_n_l: Annotated[float, number("mg N/L", 0, 1e6)]
    trough_mg_n_l: Annotated[float, number("mg N/L", 0, 1e6)]
    skipped_mg_n_l: Annotated[float, number("mg N/L", 0, 1e6, "The peak when one change is skipped")]
    target_mg_n_l: MgNPerL
    holds: bool
    holds_every_days: Annotated[float, number("days", 0, 4000, "With this share")] | None
    holds_share: Annotated[float, number("share", 0, 1, "At this interval; none where no share would")] | None
    kh_low_dkh: (
        Annotated[float, number("dKH", 0, 40, "Before a change, in the long run; none where the tap's is not known")]
        | None
    )
    kh_words: str | None = Field(description="Where alkalinity runs out between changes")
    course: list[NitratePoint]


def _rise(q: NitrateRhythmQuestion, w: Working) -> float:
    """How fast nitrate rises, mg N/(L day): by the keeper's own tests, else by what is made."""
    if q.measured_rise_mg_n_l_day is not None:
        return w.line(
            "rise", "your own tests", "no change between", q.measured_rise_mg_n_l_day, "mg N/(L day)", "arithmetic"
        )
    left = 1 - PLANTS_TAKE if q.planted else 1.0
    return w.sum(
        "rise",
        "made × left / litres",
        {"made": q.made_mg_n_day, "left": left, "litres": q.net_l},
        "mg N/(L day)",
        "memory",
    )


@computation("nitrate-rhythm", "What rhythm of changes holds nitrate")
def nitrate_rhythm(question: NitrateRhythmQuestion) -> NitrateRhythmAnswer:
    """The saw-tooth of nitrate between changes.

    question: mg N a day in so many litres, the tap's nitrate and the limit in mg N/L, a share changed every so many
    days. Raises CannotAnswer where the tap alone stands over the target. Source: mass balance, peak = tap + rise × days
    / share in the long run; what plants take from memory.
    """
    q, w = question, Working()
    target = q.target_ppm_ion * NITROGEN_SHARE["NO3"]
    rise = _rise(q, w)
    if q.tap_mg_n_l >= target:
        raise CannotAnswer(
            "tap_mg_n_l",
            "the tap itself stands at the target or over it: no change brings it lower.",
            "Mix in purified water, plant more, or set a higher target.",
        )
    peak = w.sum(
        "peak", "tap + rise × days / share",
        {"tap": q.tap_mg_n_l, "rise": rise, "days": q.every_days, "share": q.change_share}, "mg N/L", "arithmetic",
    )  # fmt: skip
    trough = w.sum(
        "trough", "peak − rise × days", {"peak": peak, "rise": rise, "days": q.every_days}, "mg N/L", "arithmetic"
    )
    skipped = w.sum(
        "skipped", "peak + rise × days", {"peak": peak, "rise": rise, "days": q.every_days}, "mg N/L", "arithmetic"
    )
    low = None
    if q.tap_kh_dkh is not None:
        # Nitrification uses alkalinity, and a change brings both back towards the tap's.
        low = w.sum(
            "KH low", "max(tap − taken × (peak − nitrate), 0)",
            {"tap": q.tap_kh_dkh, "taken": DKH_PER_MG_N, "peak": peak, "nitrate": q.tap_mg_n_l}, "dKH", "epa1993",
        )  # fmt: skip
    room = target - q.tap_mg_n_l
    every = min(q.change_share * room / rise, 4000.0) if rise > 0 else None
    share = rise * q.every_days / room
    holds = peak <= target
    return NitrateRhythmAnswer(
        verdict=_verdict(q, peak, every, share, holds=holds),
        working=w.lines,
        rise_mg_n_l_day=rise,
        peak_mg_n_l=peak,
        trough_mg_n_l=trough,
        skipped_mg_n_l=skipped,
        target_mg_n_l=target,
        holds=holds,
        holds_every_days=every,
        holds_share=share if share <= MOST_SHARE else None,
        kh_low_dkh=low,
        kh_words=_kh_words(low, q),
        course=_course(q, rise, trough),
    )


def _kh_words(low: float | None, q: NitrateRhythmQuestion) -> str | None:
    if low is None or not lacks_alkalinity(low) or q.tap_kh_dkh is None or lacks_alkalinity(q.tap_kh_dkh):
        return None
    return (
        f"Alkalinity runs out between changes: of the tap's {q.tap_kh_dkh:.1f} dKH about {low:.1f} is left before a"
        " change, and pH falls with it. Change more or sooner, or feed less; bicarbonate only where the animals like"
        " hard water."
    )


def _ppm(mg_n_l: float) -> str:
    return f"{mg_n_l / NITROGEN_SHARE['NO3']:.0f} ppm"


def _verdict(q: NitrateRhythmQuestion, peak: float, every: float | None, share: float, *, holds: bool) -> str:
    rhythm = f"{q.change_share:.0%} every {q.every_days:g} days"
    if every is None:
        return "Nothing is made, so nitrate does not rise."
    if holds:
        return f"{rhythm} holds nitrate under {_ppm(peak)}; the target is {q.target_ppm_ion:g}."
    would = f"{share:.0%} at a time" if share <= MOST_SHARE else "no share at this interval"
    return (
        f"{rhythm} lets nitrate climb to {_ppm(peak)}, over {q.target_ppm_ion:g}: "
        f"{would}, or the same every {every:.0f} days, would hold it."
    )


def _course(q: NitrateRhythmQuestion, rise: float, trough: float) -> list[NitratePoint]:
    at, day = q.now_mg_n_l if q.now_mg_n_l is not None else trough, 0.0
    found = [NitratePoint(day=0, nitrate_mg_n_l=at)]
    for _ in range(8):
        day += q.every_days
        at += rise * q.every_days
        found.append(NitratePoint(day=day, nitrate_mg_n_l=at))
        at += (q.tap_mg_n_l - at) * q.change_share
        found.append(NitratePoint(day=day, nitrate_mg_n_l=at))
    return found
