"""Fit stage: each filter's layout, flood risk, steps and flow."""

from collections.abc import Sequence
from datetime import datetime
from typing import Annotated

from pydantic import Field

from reedmace.core.contract import Lph, Part, number, whole
from reedmace.core.filter.kind_parts.steps import Step
from reedmace.core.filter.kinds import kind_of
from reedmace.core.filter.learned import LearnedRelation
from reedmace.core.filter.media.basket import usual_packing
from reedmace.core.filter.typical import is_typical
from reedmace.core.fit import FloodRiskAnswer
from reedmace.core.fit.shopping_list import ShoppingListAnswer, shopping_list
from reedmace.core.fit.shopping_water import Bought, ShoppingListQuestion
from reedmace.core.flow import BucketTestAnswer, BucketTestQuestion, CurrentsAnswer, OverflowCheckAnswer, bucket_test
from reedmace.core.quantity import formatting
from reedmace.core.tank import TankVolumeAnswer
from reedmace.logbook.care.supplies import heater_of, tank_heater
from reedmace.logbook.care.takeover import Takeover, takeover
from reedmace.logbook.plans.plan_kinds import CyclePlan
from reedmace.logbook.replay.arrival import came_at, ran_already
from reedmace.logbook.replay.current_plans import filter_plan
from reedmace.logbook.replay.entries import FlowTest
from reedmace.logbook.replay.equipment import (
    EquippedFilter,
    currents_and_oxygen_of,
    dangers_of,
    installed_filters,
    needs_guard,
    steps_of,
    stock_load,
    tank_site,
)
from reedmace.logbook.replay.measured_flows import all_flows, calibration
from reedmace.logbook.replay.rank_question import rank_question
from reedmace.logbook.replay.state import LogbookState
from reedmace.logbook.replay.sump_overflow import overflow_of
from reedmace.logbook.replay.water import volume
from reedmace.logbook.stages.kind_sizes import ask_for_kind


class Proof(Part):
    """One way to prove a filter's flow, and when it applies."""

    method: str
    words: str


class FittedView(Part):
    """One filter on the Fit stage."""

    installed: EquippedFilter
    danger: FloodRiskAnswer
    overflow: OverflowCheckAnswer | None
    steps: list[Step]
    done_count: Annotated[int, whole(0, 200)]
    ran_already: bool = Field(description="It hung and ran before the notebook began: no step is asked for")
    next_step_id: str | None
    proofs: list[Proof]
    causes: list[str]
    measured_lph: Lph | None
    calibration: Annotated[float, number("ratio", 0, 1e6)] | None
    last_test: BucketTestAnswer | None


class FitView(Part):
    """Everything the Fit stage and the fitting sheet show."""

    verdict: str
    volume: TankVolumeAnswer
    filters: list[FittedView]
    steps_count: Annotated[int, whole(0, 5000)]
    done_count: Annotated[int, whole(0, 5000)]
    delivered_lph: Lph
    currents: CurrentsAnswer | None = Field(description="Of all of them, as their outlets are put and turned")
    takeover: Takeover | None


def _last_test(state: LogbookState, one: EquippedFilter, causes: list[str]) -> BucketTestAnswer | None:
    bodies = [e.body for e in state.flow_tests if isinstance(e.body, FlowTest) and e.body.filter_key == one.key]
    if not bodies:
        return None
    last = bodies[-1]
    return bucket_test(
        BucketTestQuestion(
            container_l=last.container_l, times_s=last.times_s, computed_lph=last.computed_lph, causes=causes
        )
    )


def fitted_view(state: LogbookState, one: EquippedFilter) -> FittedView:
    """One filter on the Fit stage. state: the tank's; one: the filter."""
    kind, ticked = kind_of(one.filter.kind), state.ticked(one.key)
    steps = steps_of(state, one).steps
    flows, before = all_flows(state, one.key), ran_already(state, one.key)
    return FittedView(
        installed=one,
        danger=dangers_of(one, tank_heater(state)),
        overflow=overflow_of(one),
        steps=steps,
        done_count=len(steps) if before else sum(s.id in ticked for s in steps),
        ran_already=before,
        next_step_id=None if before else next((s.id for s in steps if s.id not in ticked), None),
        proofs=[Proof(method=m, words=w) for m, w in kind.proofs],
        causes=list(kind.causes),
        measured_lph=flows[-1][1] if flows else None,
        calibration=calibration(state, one.key),
        last_test=_last_test(state, one, list(kind.causes)),
    )


def fit_view(state: LogbookState, now: datetime) -> FitView:
    """The Fit stage of a tank. state: the tank's, with what is typed on screen; now: aware time."""
    filters = [fitted_view(state, one) for one in installed_filters(state)]
    asked, done = sum(len(f.steps) for f in filters), sum(f.done_count for f in filters)
    waiting = next(((f, s) for f in filters for s in f.steps if s.id == f.next_step_id), None)
    if not filters:
        verdict = "Choose a filter first: the steps are made for it."
    elif all(f.ran_already for f in filters):
        verdict = "It runs already: time its flow, and see what could go wrong."
    elif waiting is None:
        verdict = f"Fitted: all {asked} steps are done."
    else:
        at = f" ({waiting[0].installed.filter.name})" if len(filters) > 1 else ""
        verdict = f"Next: {formatting.inside(waiting[1].title)}{at}. {done} of {asked} steps done."
    installed = [f.installed for f in filters]
    return FitView(
        verdict=verdict,
        currents=currents_and_oxygen_of(rank_question(state), installed, 0.0)[0] if installed else None,
        volume=volume(state),
        filters=filters,
        steps_count=asked,
        done_count=done,
        delivered_lph=sum(f.installed.flow.delivered_lph for f in filters),
        takeover=takeover(state, now),
    )


def _bought(state: LogbookState, one: EquippedFilter, learned: Sequence[LearnedRelation]) -> Bought:
    """A filter as it is bought: packed as usual where nothing was packed, asked for by kind and size until chosen."""
    media = one.media or usual_packing(kind_of(one.filter.kind).packing, one.filter.media_l)
    return Bought(
        **dict(one.plan_question),
        media=media,
        owned=one.owned,
        packed_as_usual=not one.media,
        asked_as=ask_for_kind(state, one.filter.kind, learned)[:80] if is_typical(one.filter.id) else "",
    )


def shopping_question(state: LogbookState, learned: Sequence[LearnedRelation] = ()) -> ShoppingListQuestion | None:
    """Input of the shopping list; None before a filter is chosen. state: the tank's; learned: relations moved here."""
    installed = installed_filters(state)
    if not installed:
        return None
    cycle = state.cycle_plan.body if state.cycle_plan else None
    more = {"product": cycle.product, "target_ppm": cycle.target_ppm} if isinstance(cycle, CyclePlan) else {}
    plan, heater = filter_plan(state), heater_of(state)
    bought = heater if heater is not None and plan.heater is None and heater.asked_w else None
    air_from = "room" if plan.air.source == "room" else "hand" if plan.air.pump_l_min is not None else "bought"
    return ShoppingListQuestion(
        filters=[_bought(state, h, learned) for h in installed],
        begins=not came_at(state),
        net_l=tank_site(state).net_l,
        needs_guard=needs_guard(state),
        air_from=air_from,
        heater_w=bought.asked_w if bought else 0,
        heaters_count=bought.heaters_count if bought else 1,
        feed_g_day=min(stock_load(state).feed_g_day, 5000),
        skimmer_owned=plan.skimmer is not None,
        **more,
    )


def shopping_list_view(state: LogbookState, learned: Sequence[LearnedRelation] = ()) -> ShoppingListAnswer | None:
    """Shopping list of a tank; None before a filter is chosen. state: the tank's; learned: relations moved here."""
    question = shopping_question(state, learned)
    return shopping_list(question) if question else None
