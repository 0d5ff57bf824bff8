"""Nitrogen added against nitrogen found."""

from typing import Annotated, Literal

from reedmace.core.contract import Answer, Question, Working, computation, number
from reedmace.core.cycle.record.log import BASELINE_DAYS, CycleLog, LoggedReading
from reedmace.core.quantity.units import NITROGEN_SHARE

Mg = Annotated[float, number("mg N/L", 0, 1e5)]


class NitrogenBalanceQuestion(Question):
    """A log."""

    log: CycleLog


class NitrogenBalanceAnswer(Answer):
    """Nitrogen expected in the water against the last full test; null where undefined."""

    added_mg_n_l: Mg
    expected_mg_n_l: Mg
    found_mg_n_l: Mg | None
    gap_mg_n_l: Annotated[float, number("mg N/L", -1e5, 1e5, "Found less expected")] | None
    most_nitrate_ppm: Annotated[float, number("ppm", 0, 1e6, "Nitrate as the ion, if all of it were nitrified")]
    meaning: Literal["closes", "missing", "too-much", "unknown"]


Meaning = Literal["closes", "missing", "too-much", "unknown"]


def _nitrogen_mg_l(r: LoggedReading) -> float:
    """Ammonia, nitrite and nitrate of one test together, mg N/L."""
    return (r.ammonia_mg_n_l or 0.0) + (r.nitrite_mg_n_l or 0.0) + (r.nitrate_mg_n_l or 0.0)


def _brought(log: CycleLog, start: float, tap: float, until: float) -> tuple[float, float]:
    """(brought in all, to be expected after every change) by a day, mg N/L. start: at first; tap: in its water."""
    made_a_day = log.animals_in_mg_n_l_day + log.food_mg_n_l_day()
    total, added, day = start, start, 0.0
    happened = sorted(
        [(d.day, "dose", d.raise_mg_n_l) for d in log.doses] + [(c.day, "change", c.share) for c in log.changes]
    )
    for at, what, value in [*happened, (until, "end", 0.0)]:
        if at > until + 0.02:
            continue
        total += made_a_day * max(at - day, 0.0)
        added += made_a_day * max(at - day, 0.0)
        day = max(at, day)
        if what == "dose":
            total += value
            added += value
        elif what == "change":
            total = total * (1 - value) + tap * value
    return added, total


def _meaning(log: CycleLog, newest: LoggedReading, total: float, found: float, blur: float) -> tuple[Meaning, str]:
    """What a gap means, and in a sentence. total: expected; found: read; blur: of the kits, all mg N/L."""
    gap = found - total
    if newest.off_scale and gap < 0:
        return "unknown", (
            f"{total:.1f} mg/L of nitrogen should be in the water; {found:.1f} were read, with"
            f" {' and '.join(newest.off_scale)} off the scale: the rest is most likely there."
        )
    if gap < -blur:
        why = "plants take it" if log.plants != "none" else "a nitrate kit reads low when its bottle is not shaken hard"
        return "missing", (
            f"{-gap:.1f} mg/L of nitrogen are missing: {total:.1f} should be there, {found:.1f} were found. Most often"
            f" {why}; otherwise a dose was smaller than written down."
        )
    if gap > blur:
        return "too-much", (
            f"{gap:.1f} mg/L of nitrogen too much: {found:.1f} were found where the doses explain {total:.1f}. Food, a"
            " dying plant, the tap's own nitrate, or nitrite reading as nitrate."
        )
    return "closes", f"The books close: {total:.1f} mg/L of nitrogen were to be expected, {found:.1f} were found."


@computation("nitrogen-balance", "Nitrogen put in against nitrogen found")
def nitrogen_balance(question: NitrogenBalanceQuestion) -> NitrogenBalanceAnswer:
    """Nitrogen dosed, fed and brought, through every water change, against ammonia + nitrite + nitrate as tested.

    question: the log. Source: mass balance; what a gap means is common practice.
    """
    log, w = question.log, Working()
    full = [
        r
        for r in log.readings
        if r.ammonia_mg_n_l is not None and r.nitrite_mg_n_l is not None and r.nitrate_mg_n_l is not None
    ]
    newest = max(full, key=lambda r: r.day, default=None)
    until = newest.day if newest else log.day_now
    tap = log.tap.released_mg_n_l() + log.tap.nitrite_mg_n_l + log.tap.nitrate_mg_n_l
    first = min(full, key=lambda r: r.day, default=None)
    early = sum(d.raise_mg_n_l for d in log.doses if first is not None and d.day <= first.day + 0.02)
    # A baseline shows the initial nitrogen better than the tap does.
    told = first is not None and until > first.day and first.day <= BASELINE_DAYS
    start = max(_nitrogen_mg_l(first) - early, 0.0) if first is not None and told else tap
    w.line("N start", "baseline, or tap", "ammonia + nitrite + nitrate, less the first dose", start, "mg N/L", "keeper")
    added, total = _brought(log, start, tap, until)
    w.line("N in", "start + doses + food", f"{len(log.doses)} doses", added, "mg N/L", "arithmetic")
    w.line(
        "N expected", "each change: N (1 − x) + tap × x", f"{len(log.changes)} changes", total, "mg N/L", "arithmetic"
    )
    most = w.sum("NO3", "N / N share of NO3", {"N": total, "N share of NO3": NITROGEN_SHARE["NO3"]}, "ppm", "masses")
    if newest is None:
        return NitrogenBalanceAnswer(
            verdict="Cannot be drawn up yet: it takes one test of ammonia, nitrite and nitrate together.",
            working=w.lines, added_mg_n_l=added, expected_mg_n_l=total, found_mg_n_l=None, gap_mg_n_l=None,
            most_nitrate_ppm=most, meaning="unknown",
        )  # fmt: skip
    parts = (newest.ammonia_mg_n_l or 0.0, newest.nitrite_mg_n_l or 0.0, newest.nitrate_mg_n_l or 0.0)
    found = w.line(
        "N found", "ammonia + nitrite + nitrate", " + ".join(f"{p:.2f}" for p in parts), sum(parts), "mg N/L", "keeper"
    )
    gap = w.sum("gap", "found − expected", {"found": found, "expected": total}, "mg N/L", "arithmetic")
    # Colour kits read to about a step: a third of the value, and the three together never better than 1 mg N/L.
    blur = w.sum("kit", "max(0.35 × expected, 1)", {"expected": total}, "mg N/L", "practice")  # fmt: skip
    meaning, verdict = _meaning(log, newest, total, found, blur)
    return NitrogenBalanceAnswer(
        verdict=verdict, working=w.lines, added_mg_n_l=added, expected_mg_n_l=total, found_mg_n_l=found,
        gap_mg_n_l=gap, most_nitrate_ppm=most, meaning=meaning,
    )  # fmt: skip
