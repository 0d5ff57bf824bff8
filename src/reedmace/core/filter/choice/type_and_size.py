"""Which kind of filter and how big: the sizes of every kind that do here, what binds at their ends, and the order."""

import math
from collections.abc import Sequence

import numpy as np

from reedmace.core.contract import Working, computation
from reedmace.core.filter.choice.boxes_here import boxes_here
from reedmace.core.filter.choice.candidates import RankFiltersQuestion
from reedmace.core.filter.choice.kind_map import (
    DOES,
    TO_SPARE,
    KindMap,
    KindRow,
    SizePoint,
    TypeAndSizeAnswer,
    most_said,
)
from reedmace.core.filter.choice.limits import MOST_OF_ONE
from reedmace.core.filter.choice.margins import MONTHS_FROM_DAYS
from reedmace.core.filter.choice.reasons import caveats_of, reason_of
from reedmace.core.filter.choice.wishes import CHOSEN_FROM, wishes_of
from reedmace.core.filter.kind_parts.limit import one_remedy
from reedmace.core.filter.kind_parts.traits import KindTraits
from reedmace.core.filter.kind_parts.typical import Typical
from reedmace.core.filter.learned import PUMPED_FLOW, LearnedRelation
from reedmace.core.filter.site.site import default_priorities
from reedmace.core.filter.typical import MAKES, SIZES, typical_id, typical_table
from reedmace.core.quantity import formatting
from reedmace.core.quantity.constants import DAYS_PER_MONTH

SEVERAL_COST = 6.0
"""Points that each further filter costs a kind in the order (a stated judgement)."""
NO_SPARE_COST = 12.0
"""Points that a kind without a spare is behind where one may fail (a stated judgement)."""
YEARLY_DAYS = 300.0
"""Intervals said as a year, and as months (stated judgements)."""
NUMBERS = {2: "two", 3: "three", 4: "four"}


def _window(share: list[float]) -> tuple[int, int] | None:
    """First and last size of the longest run in which half of the makes do; None where none do."""
    best: tuple[int, int] | None = None
    start = None
    for i, ok in enumerate([*(one >= DOES for one in share), False]):
        if ok and start is None:
            start = i
        if not ok and start is not None:
            if best is None or i - 1 - start > best[1] - best[0]:
                best = (start, i - 1)
            start = None
    return best


def _size_recommended(sizes: tuple[float, ...], low: int, high: int) -> int:
    """Index of the size that leaves a fifth to spare at both ends, or else the middle of the bar.

    sizes: L/h; low, high: ends of the bar.
    """
    wanted = sizes[low] * TO_SPARE
    if wanted > sizes[high] / TO_SPARE:
        wanted = float(np.sqrt(sizes[low] * sizes[high]))
    return min(range(low, high + 1), key=lambda i: abs(np.log(sizes[i] / wanted)))


def _count_that_does(m: KindMap, n: int, kind: KindTraits) -> tuple[int, list[float], tuple[int, int] | None]:
    """Fewest of a kind that do, share of boxes of each size that does, window of sizes or None."""
    counts = range(2 if m.spare else 1, MOST_OF_ONE + 1) if kind.may_pair else range(1, 2)
    for count in counts:
        share = m.shares_that_do(n, count)
        window = _window(share)
        if window is not None:
            return count, share, window
    # Where not even several carry each other's load, one is still better than none.
    share = m.shares_that_do(n, 1)
    return 1, share, _window(share)


def _row(m: KindMap, n: int, kind: KindTraits) -> tuple[float, KindRow]:
    """(score, row) of one kind. n: its number."""
    sizes = m.t.sizes_lph[n]
    work = f"{kind.care.minutes:.0f} min: {formatting.inside(kind.care.title)}"
    count, share, window = _count_that_does(m, n, kind)
    points = [
        SizePoint(box_lph=lph, does_share=one, typical_id=typical_id(kind, lph))
        for lph, one in zip(sizes, share, strict=True)
    ]
    if window is None:
        return -1.0, _barred(m, n, kind, points, work)
    low, high = window
    pick = m.smallest_that_moves_enough(n, count, share, window)
    if pick is None:
        pick = _size_recommended(sizes, low, high)
    rows = m.t.rows_of(n, pick)
    i, r, asked = int(rows[0]), m.here.r, m.here.asked
    f = m.t.table.filters[i]
    service = count * np.sort(r.service[rows])
    below = m.why_not(n, low - 1, count) if low else "the smallest made"
    above = m.why_not(n, high + 1, count) if high + 1 < SIZES else "the largest made"
    boxes = m.t.boxes[n]
    score = float(r.scores[i]) - SEVERAL_COST * max(count - (2 if m.spare else 1), 0)
    if m.spare and count > 1:
        score += NO_SPARE_COST
    return score, KindRow(
        kind=kind.name,
        title=kind.title,
        fits=True,
        count=count,
        counted=boxes.counted,
        sizes=points,
        low_lph=sizes[low],
        high_lph=sizes[high],
        low_label_l=_label_l(boxes, sizes[low]),
        high_label_l=_label_l(boxes, sizes[high]),
        binds_low=below,
        binds_high=above,
        size_lph=sizes[pick],
        typical_id=points[pick].typical_id,
        does_share=float(share[pick]),
        moves_low_lph=float(service[0]),
        moves_high_lph=float(service[-1]),
        service_days=float(r.days[i]),
        serviced=serviced_words(float(r.days[i])),
        noise_db=float(r.sound[i]),
        watts=count * float(r.watts[i]),
        work=work,
        ask_for="",
        look_for=_look_for(m, i, kind),
        speaks=reason_of(r.weights, r.parts[i]) + (", and one may fail" if m.spare and count > 1 else ""),
        caveats=caveats_of(
            f, m.here.q.site, guard=asked.guard, low_lph=asked.low, dirty_lph=count * float(r.service[i]),
            days=float(r.days[i]), slow=bool(r.slow[i]), count=count,
        ),
        barred=None,
        remedy=None,
    )  # fmt: skip


def serviced_words(days: float) -> str:
    """How often something is cleaned, in a word or two. days: between."""
    if days >= YEARLY_DAYS:
        return "yearly"
    if days >= MONTHS_FROM_DAYS:
        return f"{days / DAYS_PER_MONTH:.0f} months"
    return f"{days:.0f} days"


def _label_l(boxes: Typical, lph: float) -> float | None:
    """Tank size such a box says it is for, to two figures, L."""
    found = boxes.figure("tank_up_to_l", lph)
    return None if found is None else float(f"{found:.2g}")


def _look_for(m: KindMap, i: int, kind: KindTraits) -> list[str]:
    """What a box must have besides its flow, as a shop can be asked for it."""
    f, site = m.t.table.filters[i], m.here.q.site
    found = [f"{formatting.litres(0.8 * f.media_l, '.2g')} of media or more"]
    if kind.on_rim:
        found.append(f"at most {formatting.cm(site.behind_cm)} deep behind the glass")
    if kind.space_over_cm is not None:
        found.append(f"at most {formatting.cm(max(site.beneath_cm - kind.space_over_cm, 1))} high")
    if f.max_head_m is not None and kind.rise == "return":
        found.append(f"{formatting.metres(f.max_head_m)} of lift at no flow or more")
    if f.air_l_min is not None:
        found.append(f"an air pump of {f.air_l_min:.1f} L/min, with a check valve")
    if site.often_away and not f.air:
        found.append("starts by itself after a power cut")
    if not f.air:
        found.append(f"about {m.here.r.watts[i]:.0f} W or less")
    return found


def _barred(m: KindMap, n: int, kind: KindTraits, points: list[SizePoint], work: str) -> KindRow:
    """A kind that cannot serve: why, and what would let it in."""
    at = np.flatnonzero((m.t.kind == n) & (m.t.make == 0))
    limits = m.here.limits
    best = int(max(at, key=lambda i: (-sum(bool(limit.broken[i]) for limit in limits), m.here.r.service[i])))
    broken = m.here.broken(best)
    # Where the kind is wrong for the tank, that alone is said.
    said = [limit for limit in broken if limit.final] or broken
    reason = "; ".join(limit.reason(best) for limit in said)
    reason = reason or most_said([m.why_not(n, size, 1) for size in range(SIZES)])
    return KindRow(
        kind=kind.name, title=kind.title, fits=False, count=1, counted=m.t.boxes[n].counted,
        sizes=points, low_lph=None, high_lph=None, low_label_l=None, high_label_l=None, binds_low="", binds_high="",
        size_lph=None, typical_id=points[len(points) // 2].typical_id,
        does_share=0.0, moves_low_lph=None, moves_high_lph=None, service_days=None, serviced="",
        noise_db=None,
        watts=None, work=work, ask_for="", look_for=[], speaks="", caveats=[], barred=f"{formatting.opening(reason)}.",
        remedy=one_remedy(broken, best, MOST_OF_ONE) or None if broken else None,
    )  # fmt: skip


def _ask_for(row: KindRow) -> str:
    return (
        f"{formatting.opening(phrase_of(row))}." if row.fits else f"{row.title}: {formatting.inside(row.barred or '')}"
    )


def phrase_of(row: KindRow) -> str:
    """A kind with its size, as one asks for it in a shop: "a hang-on whose box says 240 to 420 L/h". row: that fits."""
    name = row.title.lower()
    article = "an" if name[0] in "aeiou" else "a"
    if row.count > 1:
        article, name = NUMBERS[row.count], f"{name}s"
    if row.low_lph is None or row.high_lph is None:
        return f"{article} {name}"
    if row.counted and row.low_label_l is not None and row.high_label_l is not None:
        small, large = formatting.litres.bare(row.low_label_l), formatting.litres(row.high_label_l)
        if row.low_label_l == row.high_label_l:
            return f"{article} {name} sold for about {large}"
        return f"{article} {name} sold for {small} to {large}"
    low, high = formatting.lph.bare(row.low_lph), formatting.lph(row.high_lph)
    size = f"about {high}" if row.low_lph == row.high_lph else f"{low} to {high}"
    return f"{article} {name} whose box says {size}" + (" each" if row.count > 1 else "")


@computation("type-and-size", "Which kind of filter, and how big, as any shop can fill it")
def type_and_size(question: RankFiltersQuestion) -> TypeAndSizeAnswer:
    """For every kind the sizes that do on this tank, what binds at each end, and their order for this keeper.

    question: as for the ranking; its own filters do not count, only boxes as they are usually made. Raises CannotAnswer
    for an unknown species.
    Source: flows by the operating point and the air lift; what a box of a size usually has, and how makes differ, from
    memory; the rest common practice, as in the ranking.
    """
    q = question.model_copy(update={"own_filters": [], "installed": [], "running_ids": []})
    w = Working()
    t = typical_table(tuple(q.learned))
    here = boxes_here(q, t.table)
    priorities = q.priorities or default_priorities(q.site, has_young=here.asked.has_young)
    m = KindMap(t, here, spare=priorities.redundant >= CHOSEN_FROM)
    asked = m.here.asked
    w.line("asked", "in service", "of every kind alike", asked.low, "L/h", "practice")
    w.line("film", "asked, tank's own", "at today's size", asked.film_m2, "m²", "memory")
    for one in q.learned:
        rests = f"{one.count} {'flows timed' if one.figure == PUMPED_FLOW else 'boxes typed'} here"
        w.line(f"{one.kind}, {one.figure}", "learned / memory", rests, math.exp(one.shift_share), "", "memory")
    w.line("boxes", "kinds × sizes × makes", f"{len(m.t.kinds)} × {SIZES} × {MAKES}", len(m.t.table), "boxes", "memory")
    scored = sorted((_row(m, n, kind) for n, kind in enumerate(m.t.kinds)), key=lambda one: -one[0])
    rows = [row.model_copy(update={"ask_for": _ask_for(row)}) for _, row in scored]
    fitting = [row for row in rows if row.fits]
    verdict, why = _verdict(fitting)
    if asked.too_many is not None:
        verdict = asked.too_many
        why = "The animals come first; what stands below is what would move this water all the same."
    return TypeAndSizeAnswer(
        verdict=verdict,
        working=w.lines,
        why=why,
        kinds=rows,
        too_many=asked.too_many,
        asked_low_lph=asked.low,
        priorities=priorities,
        wishes=wishes_of(priorities),
        rests_on=_rests_on(q.learned),
        smallest_lph=min(s[0] for s in m.t.sizes_lph),
        largest_lph=max(s[-1] for s in m.t.sizes_lph),
    )


def _rests_on(learned: Sequence[LearnedRelation]) -> str:
    """What typical boxes rest on besides memory, in a phrase. learned: relations moved here."""
    most: dict[tuple[bool, str], int] = {}
    for one in learned:
        at = (one.figure == PUMPED_FLOW, one.kind)
        most[at] = max(one.count, most.get(at, 0))
    said = []
    for timed, one_of, many in ((False, "box typed", "boxes typed"), (True, "flow timed", "flows timed")):
        n = sum(count for (is_flow, _), count in most.items() if is_flow == timed)
        if n:
            said.append(f"{n} {one_of if n == 1 else many} here")
    return " and ".join(said)


def _verdict(fitting: list[KindRow]) -> tuple[str, str]:
    """Kind and size in a sentence, and why this kind is first."""
    if not fitting:
        return "No kind of filter fits this tank as it stands.", "Each row says what would let it in."
    first, *others = fitting
    verdict = formatting.opening(phrase_of(first))
    if others:
        verdict += f", or {phrase_of(others[0])}"
    why = f"{first.title} first: {first.speaks}."
    if others:
        why += f" {others[0].title}: {others[0].speaks}."
    return f"{verdict}.", why
