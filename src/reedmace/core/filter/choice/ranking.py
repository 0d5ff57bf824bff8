"""Ranking of every filter that fits this tank, alone or as a pair, by the keeper's priorities, with reasons."""

import numpy as np

from reedmace.core.contract import Working, computation
from reedmace.core.errors import CannotAnswer
from reedmace.core.film import carried_times
from reedmace.core.filter.choice.candidates import (
    MOST_SHOWN,
    Candidate,
    Contribution,
    Excluded,
    RankFiltersAnswer,
    RankFiltersQuestion,
)
from reedmace.core.filter.choice.changes import Situation, smallest_changes
from reedmace.core.filter.choice.flows import flows_here
from reedmace.core.filter.choice.limits import MOST_OF_ONE, limits_of
from reedmace.core.filter.choice.margins import Available, margins, times_words
from reedmace.core.filter.choice.pairs import best_pairs
from reedmace.core.filter.choice.ranking_columns import RankingColumns, ranking_columns, stirred
from reedmace.core.filter.choice.reasons import caveats_of, reason_of
from reedmace.core.filter.choice.requirement import TankRequirement, tank_requirement
from reedmace.core.filter.choice.scores import (
    NAMES,
    weights_of,
)
from reedmace.core.filter.choice.verdict import first_of, several, verdict_of
from reedmace.core.filter.filter_table import Bools, FilterTable, Floats, table_of
from reedmace.core.filter.kind_parts.limit import Limit, one_remedy
from reedmace.core.filter.site.site import default_priorities
from reedmace.core.filter.typical import typical_medians
from reedmace.core.flow.materials import MEDIA_KG_L
from reedmace.core.quantity import formatting
from reedmace.core.quantity.constants import KWH_PER_WATT_YEAR


def _enough(
    q: RankFiltersQuestion, t: FilterTable, service: Floats, film: Floats, asked: TankRequirement, w: Working
) -> str | None:
    """Why another filter would not help: present filters, or glass, gravel and plants, carry this stock."""
    need = asked.film_m2
    ids = [f.id for f in t.filters]
    running = [ids.index(i) for i in q.running_ids if i in ids]
    if running:
        flow, media = float(service[running].sum()), float(film[running].sum())
        times = carried_times(media, q.site.film_here_m2, need)
        w.line("film", "running filters / asked", f"{media:.2f} m² for {need:.2f} asked", times, "times", "memory")
        kept = stirred(q, asked.low, [(t.filters[i], float(service[i])) for i in running])[1]
        if flow >= asked.low and times >= 1 and kept.enough:
            return (
                f"You already have enough: what runs here moves {formatting.lph(flow)} in service where"
                f" {formatting.lph.bare(asked.low)} is asked, and its film carries these animals {times_words(times)}"
                " over. Another filter would only add something to clean; a sterile one does nothing for a spike."
            )
        return None
    if asked.light:
        return (
            f"This planted tank hardly needs a filter: glass and gravel give {q.site.film_here_m2:.1f} m² of film where"
            f" {need:.2f} would carry these animals, and plants take ammonia first. A small sponge for movement is"
            " plenty; a larger filter would find nothing more to do."
        )
    return None


@computation("rank-filters", "Which filter, for this tank and these priorities, and why")
def rank_filters(question: RankFiltersQuestion) -> RankFiltersAnswer:
    """Every feasible filter for this tank in the order of the keeper's priorities.

    question: sizes in cm, water in L, hoses in mm and m, weights 0 to 5.
    Raises CannotAnswer when two filters share an id.
    Source: delivered flows by the operating point and air lift; the rest common practice, stated.
    """
    q, w = question, Working()
    t = _table(q)
    asked = tank_requirement(q)
    priorities = q.priorities or default_priorities(q.site, has_young=asked.has_young)
    r = ranking_columns(q, t, asked, weights_of(priorities), flows_here(q, t, asked.feed))
    limits = limits_of(t, q.site, asked.for_limits(), r.clean, r.service, r.film)
    broken = np.column_stack([limit.broken for limit in limits])
    order = np.flatnonzero(~broken.any(axis=1))
    order = order[np.lexsort((np.array([t.filters[i].id for i in order]), r.price[order], -r.scores[order]))]
    ranked = [_candidate(r, int(i)) for i in order[:MOST_SHOWN]]
    alone: Bools = np.logical_not(broken[:, :-1].any(axis=1))
    pairs = best_pairs(r, alone)
    situation = Situation(
        t, q.site, q.plumbing, asked.for_limits(), priorities, r.parts, r.clean, r.service, r.film, limits, asked.high
    )
    # Where the animals are too many no change of the site makes up for it.
    changes = [] if asked.too_many else smallest_changes(situation, order)
    enough = _enough(q, t, r.service, r.film, asked, w)
    first = first_of(ranked, pairs) or several(situation)
    if ranked:
        _write_first(ranked[0], r.weights, "nicklin1963" if t.air[order[0]] else "darcy", w)
    verdict = verdict_of(ranked, pairs, first, q.site, asked.low, {f.id: f.name for f in t.filters})
    return RankFiltersAnswer(
        verdict=" ".join(filter(None, (asked.too_many, enough, verdict))),
        working=w.lines,
        fitting_count=len(order),
        excluded_count=len(t) - len(order),
        first=first,
        ranked=ranked,
        pairs=pairs,
        excluded=_excluded(t, limits, broken, r.scores, r.clean, r.scores[order]),
        single_change=changes[0].text if changes else None,
        changes=changes,
        too_many=asked.too_many,
        enough=enough,
        priorities=priorities,
        asked_low_lph=asked.low,
        asked_high_lph=asked.high,
    )


def _table(q: RankFiltersQuestion) -> FilterTable:
    """The boxes to rank, or typical ones of every kind and size where none is given.

    Raises CannotAnswer where two share an id.
    """
    t = table_of(q.own_filters) if q.own_filters else typical_medians()
    if len({f.id for f in t.filters}) != len(t):
        raise CannotAnswer("own_filters", "two filters share an id.", "Give each its own.")
    return t


def _candidate(r: RankingColumns, i: int) -> Candidate:
    """One filter that fits, with its scores, caveats and margins. i: its row of the table."""
    q, asked, f = r.q, r.asked, r.table.filters[i]
    clean, dirty, days, film = (float(column[i]) for column in (r.clean, r.service, r.days, r.film))
    watts, price, low = (float(column[i]) for column in (r.watts, r.price, r.low))
    points = 100 * r.parts[i] * r.weights / r.weights.sum()
    has = Available(
        film,
        clean,
        dirty,
        float(r.parts[i, NAMES.index("clear_water")]),
        days,
        *stirred(q, low, [(f, clean)]),
    )
    biology, *others = margins(has, asked.for_margins(q))
    return Candidate(
        filter_id=f.id,
        name=f.name,
        kind=f.kind,
        box_lph=f.box_lph,
        delivered_lph=clean,
        dirty_lph=dirty,
        service_day=days,
        turnovers_per_hour=clean / q.site.net_l,
        rise_m=float(r.rises[i]),
        watts=watts,
        price=price,
        air_pump_price=max(float(r.price[i] - f.price), 0.0),
        price_known=f.price_known,
        noise_db=float(r.sound[i]),
        money_three_years=price + 3 * watts * KWH_PER_WATT_YEAR * q.price_per_kwh,
        media_kg=f.media_l * MEDIA_KG_L["ceramic-rings"],
        film_m2=film,
        carries_times_count=biology.share,
        enough_by_film=bool(r.slow[i]),
        score=float(r.scores[i]),
        reason=reason_of(r.weights, r.parts[i]),
        caveats=caveats_of(
            f, q.site, guard=asked.guard, low_lph=asked.low, dirty_lph=dirty, days=days, slow=bool(r.slow[i])
        ),
        margins=[biology, *others],
        contributions=[
            Contribution(priority=name, score=float(r.parts[i, k]), points=float(points[k]))
            for k, name in enumerate(NAMES)
        ],
    )


def _write_first(best: Candidate, weights: Floats, source: str, w: Working) -> None:
    """The lines of the first place's flow and score."""
    w.line("Q", "pump or air lift meets plumbing", best.name, best.delivered_lph, "L/h", source)
    for c in best.contributions:
        w.line(
            c.priority,
            "weight / all weights × score × 100",
            f"{weights[NAMES.index(c.priority)]:g} / {weights.sum():g} × {c.score:.2f} × 100",
            c.points,
            "points",
            "practice",
        )
    w.line("score", "sum", best.name, best.score, "points", "arithmetic")


def _excluded(
    t: FilterTable, limits: list[Limit], broken: Bools, scores: Floats, clean: Floats, in_order: Floats
) -> list[Excluded]:
    rows = []
    for i in np.flatnonzero(broken.any(axis=1)).tolist():
        hit = np.flatnonzero(broken[i])
        alone = len(hit) == 1 and limits[hit[0]].key is not None
        rows.append((1 + int(np.sum(in_order > scores[i])) if alone else None, i, hit))
    rows.sort(key=lambda r: (r[0] or 10**6, t.filters[r[1]].name))
    return [
        Excluded(
            filter_id=t.filters[i].id,
            name=t.filters[i].name,
            kind=t.filters[i].kind,
            box_lph=t.filters[i].box_lph,
            delivered_lph=float(clean[i]),
            reason="; ".join(limits[k].reason(i) for k in hit),
            remedy=one_remedy([limits[k] for k in hit], i, MOST_OF_ONE),
            would_rank=place,
        )
        for place, i, hit in rows[:MOST_SHOWN]
    ]
