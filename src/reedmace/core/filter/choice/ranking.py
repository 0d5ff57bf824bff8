"""Ranking of every filter that fits this tank, alone or as a pair, by the keeper's priorities, with reasons."""

from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from reedmace.core.contract import Working, computation
from reedmace.core.errors import CannotAnswer
from reedmace.core.film import carried_times
from reedmace.core.filter.choice.candidates import (
    MOST_PAIRS,
    MOST_SHOWN,
    Candidate,
    Contribution,
    Excluded,
    Pair,
    RankFiltersAnswer,
    RankFiltersQuestion,
)
from reedmace.core.filter.choice.changes import Situation, smallest_changes
from reedmace.core.filter.choice.flows import flows_here
from reedmace.core.filter.choice.limits import MOST_OF_ONE, enough_by_film, limits_of
from reedmace.core.filter.choice.margins import Available, margins, times_words
from reedmace.core.filter.choice.reasons import caveats_of, reason_of
from reedmace.core.filter.choice.requirement import TankRequirement, tank_requirement, water_of
from reedmace.core.filter.choice.scores import (
    NAMES,
    pair_scores,
    price_here,
    single_scores,
    sound_here,
    watts_here,
    weights_of,
)
from reedmace.core.filter.choice.verdict import first_of, several, verdict_of
from reedmace.core.filter.filter_box import Filter
from reedmace.core.filter.filter_flow import Placed, currents_and_oxygen
from reedmace.core.filter.filter_table import Bools, FilterTable, Floats, Ints, film_m2, table_of
from reedmace.core.filter.kind_parts.limit import Limit, one_remedy
from reedmace.core.filter.media.straining import straining
from reedmace.core.filter.site.noise import added_db
from reedmace.core.filter.site.site import default_priorities
from reedmace.core.filter.sizing_schools import ENOUGH_SHARE
from reedmace.core.filter.typical import typical_medians
from reedmace.core.filter.water_path import Delivered, food_shares
from reedmace.core.flow import CurrentsAnswer, OxygenBalanceAnswer
from reedmace.core.flow.materials import MEDIA_KG_L
from reedmace.core.quantity import formatting
from reedmace.core.quantity.constants import KWH_PER_WATT_YEAR

BEST_FOR_PAIRS = 200


def stirred(
    q: RankFiltersQuestion, low: float, set_: list[tuple[Filter, float]]
) -> tuple[CurrentsAnswer, OxygenBalanceAnswer]:
    """Currents and oxygen of a set of filters here, kept while other filters and wishes are tried.

    q: the question; low: flow asked, L/h; set_: each filter with its clean flow, L/h.
    """
    return _stirred(water_of(q), tuple((f.model_dump_json(), lph) for f, lph in set_), low, formatting.chosen())


@lru_cache(maxsize=512)
def _stirred(
    water: str, boxes: tuple[tuple[str, float], ...], low: float, _units: formatting.Units
) -> tuple[CurrentsAnswer, OxygenBalanceAnswer]:
    """Currents and oxygen. water: from `water_of`; boxes: each as JSON with its flow, L/h; _units: of its words."""
    q = RankFiltersQuestion.model_validate_json(water)
    asked = tank_requirement(q)
    return currents_and_oxygen(
        q.site,
        [Placed(Filter.model_validate_json(box), q.plumbing, lph) for box, lph in boxes],
        asked.current_preferences,
        asked.oxygen_consumers,
        low,
        asked.today_mg_n_day,
        q.temperature_c,
    )


@dataclass(frozen=True)
class RankingColumns:
    """A ranking in progress.

    n filters with scores (n,), parts (n, k), flows and required flows (n,) in L/h, film (n,) in m², sound (n,) in dB.
    """

    q: RankFiltersQuestion
    table: FilterTable
    asked: TankRequirement
    weights: Floats
    parts: Floats
    scores: Floats
    clean: Floats
    service: Floats
    low: Floats
    days: Floats
    rises: Floats
    film: Floats
    sound: Floats
    watts: Floats
    price: Floats
    slow: Bools

    def pair_service(self, best: Ints, i: Ints, j: Ints) -> Floats:
        """Flow in service of pairs that share the tank's dirt as they share its water (m,), L/h."""
        sub = self.table.taken(best)
        grid = np.array([0.02, 0.25, 0.5, 0.75, 1.0])
        flows = np.column_stack([flows_here(self.q, sub, self.asked.feed * share).service_lph for share in grid])
        place = np.full(len(self.table), -1)
        place[best] = np.arange(len(best))
        total = np.maximum(self.clean[i] + self.clean[j], 1e-9)

        def at(k: Ints) -> Floats:
            x = np.clip(self.clean[k] / total, grid[0], 1.0)
            low = np.clip(np.searchsorted(grid, x, side="right") - 1, 0, len(grid) - 2)
            part = (x - grid[low]) / (grid[low + 1] - grid[low])
            rows = place[k]
            return np.asarray(flows[rows, low] * (1 - part) + flows[rows, low + 1] * part)

        return at(i) + at(j)


def _pairs(r: RankingColumns, fits: Bools) -> list[Pair]:
    """The best redundant pairs: together they carry the flow, each alone carries the load."""
    t, asked, site = r.table, r.asked, r.q.site
    # The filters of a pair may each fall short of the flow, but neither of the load.
    able = t.where(lambda k: k.may_pair) & fits & (r.film + site.film_here_m2 >= asked.film_m2)
    able &= (r.service >= asked.load_lph) & (r.clean > 0)
    best = np.flatnonzero(able)
    best = best[np.argsort(-r.scores[best], kind="stable")][:BEST_FOR_PAIRS]
    if len(best) == 0:
        return []
    x, y = np.triu_indices(len(best))
    i, j = best[x], best[y]
    together = r.pair_service(best, i, j)
    # Two on the rim, two in the water, or two under the tank need room side by side along its length.
    air, rim, wet = t.air[i] & t.air[j], t.where(lambda k: k.on_rim), t.where(lambda k: k.in_tank)
    under = t.where(lambda k: k.hosed)
    room_for = ~((rim[i] & rim[j]) | (wet[i] & wet[j]) | (under[i] & under[j])) | (
        t.width_cm[i] + t.width_cm[j] <= site.length_cm
    )
    low = np.full(len(i), asked.low)
    fitted = (air | (site.sockets >= 2)) & room_for & (together >= ENOUGH_SHARE * low)
    i, j, together, low = i[fitted], j[fitted], together[fitted], low[fitted]
    if len(i) == 0:
        return []
    points = 100 * (pair_scores(t, site, r.parts, i, j, together, low, asked.high) @ r.weights) / r.weights.sum()
    single = np.sort(r.scores[fits & (r.service >= ENOUGH_SHARE * r.low)])[::-1]
    watts, price, strains = watts_here(t, site), price_here(t, site, i, j), r.parts[:, NAMES.index("clear_water")]
    found = []
    for k in np.argsort(-points, kind="stable")[:MOST_PAIRS]:
        a, b = t.filters[i[k]], t.filters[j[k]]
        shares = food_shares(np.array([r.clean[i[k]], r.clean[j[k]]]))
        exact = sum(
            float(flows_here(r.q, t.taken(np.array([n])), asked.feed * share).service_lph[0])
            for n, share in zip((i[k], j[k]), shares, strict=True)
        )
        flow = float(r.clean[i[k]] + r.clean[j[k]])
        found.append(
            Pair(
                filter_ids=[a.id, b.id],
                name=f"2 × {a.name}" if a.id == b.id else f"{a.name} with {b.name}",
                delivered_lph=flow,
                dirty_lph=exact,
                turnovers_per_hour=flow / site.net_l,
                watts=float(watts[i[k]] + watts[j[k]]),
                price=float(price[k]),
                air_pump_price=max(float(price[k] - a.price - b.price), 0.0),
                price_known=a.price_known and b.price_known,
                noise_db=float(added_db(r.sound[[i[k]]], r.sound[[j[k]]])[0]),
                score=float(points[k]),
                margins=margins(
                    Available(
                        float(r.film[i[k]] + r.film[j[k]]),
                        flow,
                        exact,
                        float(max(strains[i[k]], strains[j[k]])),
                        float(min(r.days[i[k]], r.days[j[k]])),
                        *stirred(r.q, float(low[k]), [(a, float(r.clean[i[k]])), (b, float(r.clean[j[k]]))]),
                    ),
                    asked.for_margins(r.q),
                ),
                would_rank=1 + int(np.sum(single > points[k])),
            )
        )
    return found


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
    pairs = _pairs(r, alone)
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


def ranking_columns(
    q: RankFiltersQuestion, t: FilterTable, asked: TankRequirement, weights: Floats, got: Delivered
) -> RankingColumns:
    """Scores and figures of every filter of a table on this tank.

    q: the question; t: n filters; asked: of this tank; weights: of the priorities, in the order of NAMES; got: the
    flows here.
    """
    film = film_m2(t)
    low = np.full(len(t), asked.low)
    slow = enough_by_film(q.site, got.service_lph, film, asked.for_limits()) & (got.service_lph < asked.low)
    parts = single_scores(t, q.site, got.service_lph, got.service_days, low, asked.high, slow)
    for one in q.installed:
        clear = NAMES.index("clear_water")
        for at in (i for i, f in enumerate(t.filters) if f.id == one.filter_id):
            parts[at, clear] = straining(float(parts[at, clear]), one.media)
    return RankingColumns(
        q,
        t,
        asked,
        weights,
        parts,
        100 * (parts @ weights) / weights.sum(),
        got.clean_lph,
        got.service_lph,
        low,
        got.service_days,
        got.rise_m,
        film,
        sound_here(t, q.site, got.service_lph),
        watts_here(t, q.site),
        price_here(t, q.site, np.arange(len(t))),
        slow,
    )


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
