"""Stage views: what is typed on screen applied to what is saved; nothing is written."""

from apiflask import APIBlueprint
from flask import g

from reedmace.api.openapi_responses import READ
from reedmace.api.session import state_of, tanks
from reedmace.api.shelf import shelf_here
from reedmace.api.tanks import REFUSED
from reedmace.logbook.replay.state import LogbookState
from reedmace.logbook.stages import (
    CycleStartView,
    Draft,
    FilterView,
    FitView,
    KeepView,
    StockView,
    TankView,
    cycle_start_view,
    filter_view,
    fit_view,
    keep_view,
    stock_view,
    tank_view,
    with_draft,
)
from reedmace.practice.truth import given_of
from reedmace.store import learned_boxes

blueprint = APIBlueprint("views", __name__, url_prefix="/api", tag="Stages")


def _seen(tank_id: int, draft: Draft) -> LogbookState:
    return with_draft(state_of(tank_id), draft)


@blueprint.post("/tanks/<int:tank_id>/views/tank")
@blueprint.input(Draft)
@blueprint.output(TankView)
@blueprint.doc(responses=REFUSED)
def see_tank(tank_id: int, json_data: Draft) -> TankView:
    """The Tank stage with what is typed on screen; nothing is written."""
    return tank_view(_seen(tank_id, json_data))


@blueprint.post("/tanks/<int:tank_id>/views/stock")
@blueprint.input(Draft)
@blueprint.output(StockView)
@blueprint.doc(responses=REFUSED)
def see_stock(tank_id: int, json_data: Draft) -> StockView:
    """The Stock stage with what is typed on screen; nothing is written."""
    return stock_view(_seen(tank_id, json_data))


@blueprint.post("/tanks/<int:tank_id>/views/filter")
@blueprint.input(Draft)
@blueprint.output(FilterView)
@blueprint.doc(responses=REFUSED)
def see_filter(tank_id: int, json_data: Draft) -> FilterView:
    """The Filter stage with what is typed on screen; nothing is written."""
    lesson_shelf = given_of(g.practice).shelf if "practice" in g else ()
    shelf = lesson_shelf or shelf_here(tanks().get(tank_id).owner_id)
    return filter_view(_seen(tank_id, json_data), json_data.seen, shelf, learned_boxes(g.database, g.now))


@blueprint.post("/tanks/<int:tank_id>/views/fit")
@blueprint.input(Draft)
@blueprint.output(FitView)
@blueprint.doc(responses=REFUSED)
def see_fit(tank_id: int, json_data: Draft) -> FitView:
    """The Fit stage with what is typed on screen; nothing is written."""
    return fit_view(_seen(tank_id, json_data), g.now)


@blueprint.post("/tanks/<int:tank_id>/views/begin")
@blueprint.input(Draft)
@blueprint.output(CycleStartView)
@blueprint.doc(responses=REFUSED)
def see_begin(tank_id: int, json_data: Draft) -> CycleStartView:
    """The cycle's plan with what is typed on screen; nothing is written."""
    return cycle_start_view(_seen(tank_id, json_data), g.now, json_data.resources, animals_in=json_data.animals_in)


@blueprint.get("/tanks/<int:tank_id>/views/keep")
@blueprint.output(KeepView)
@blueprint.doc(responses=READ)
def see_keep(tank_id: int) -> KeepView:
    """Flow over time and costs."""
    return keep_view(state_of(tank_id), g.now)
