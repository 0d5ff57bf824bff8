"""What the ranking of filters is asked for a tank."""

from collections.abc import Sequence
from functools import lru_cache

from reedmace.core.filter import (
    Filter,
    RankFiltersQuestion,
)
from reedmace.core.filter.choice.candidates import InstalledFilter
from reedmace.core.filter.kinds import KINDS, kind_of
from reedmace.core.filter.typical import typical_box, typical_medians
from reedmace.core.fit import (
    FittingPlanQuestion,
)
from reedmace.core.fit.layout import drawn_hose_m
from reedmace.logbook.plans.plan_kinds import FittedFilter
from reedmace.logbook.replay.current_plans import filter_plan, stock_plan
from reedmace.logbook.replay.equipment import fitting_question, installed_filters, tank_site, temperature_c
from reedmace.logbook.replay.state import LogbookState


def rank_question(state: LogbookState, boxes: Sequence[Filter] = ()) -> RankFiltersQuestion:
    """Input of the ranking for this tank; installed filters count as installed.

    state: the tank's; boxes: to choose from, besides those typed for this tank.
    """
    stock, plan = stock_plan(state), filter_plan(state)
    installed = installed_filters(state)
    # What hangs there is taken as it hangs, whatever a shelf says of it since.
    among = {f.id: f for f in (*boxes, *plan.own_filters, *(h.filter for h in installed))}
    # A filter only considered counts with the hoses it would get, as it does once chosen.
    hosed = [f for f in among.values() if kind_of(f.kind).hosed]
    base = fitting_question(state, FittedFilter(key="looked-at", filter=_ANY_BOX, plumbing=plan.plumbing), [])
    return RankFiltersQuestion(
        site=tank_site(state),
        hose_m=_typical_hoses_m(base.model_dump_json())
        | {f.id: drawn_hose_m(base.model_copy(update={"filter": f})) for f in hosed},
        animals=stock.animals,
        own_species=stock.own_species,
        feed_g_day=stock.feed_g_day,
        plumbing=base.plumbing,
        priorities=plan.priorities,
        own_filters=list(among.values()),
        installed=[InstalledFilter(filter_id=h.filter.id, plumbing=h.plumbing, media=h.media) for h in installed],
        running_ids=[h.filter.id for h in installed] if state.flow_tests else [],
        price_per_kwh=plan.price_per_kwh,
        temperature_c=temperature_c(state),
    )


@lru_cache(maxsize=256)
def _typical_hoses_m(base: str) -> dict[str, float]:
    """Drawn length of both hoses of every typical box, by id, m. base: the tank's fitting question as JSON."""
    question = FittingPlanQuestion.model_validate_json(base)
    hosed = (f for f in typical_medians().filters if kind_of(f.kind).hosed)
    return {f.id: drawn_hose_m(question.model_copy(update={"filter": f})) for f in hosed}


_ANY_BOX = typical_box(KINDS[0], 300)
"""Stands in a fitting question for the box that replaces it."""
