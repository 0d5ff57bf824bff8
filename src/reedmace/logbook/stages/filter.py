"""Filter stage: kind and size, the keeper's boxes, what hangs there, and the sizing rules."""

from collections.abc import Sequence
from typing import Annotated

from pydantic import Field

from reedmace.core.contract import Lph, Part, number
from reedmace.core.filter import (
    Filter,
    FlowRequirementAnswer,
    RankFiltersAnswer,
    flow_requirement_here,
    rank_filters,
)
from reedmace.core.filter.choice.kind_map import TypeAndSizeAnswer
from reedmace.core.filter.learned import LearnedRelation
from reedmace.core.filter.shelf_box import ShelfItem, boxes_of
from reedmace.core.filter.typical import typical_named
from reedmace.core.quantity import formatting
from reedmace.core.tank import TankVolumeAnswer
from reedmace.logbook.care.supplies import Supplies, supplies
from reedmace.logbook.plans.plan_kinds import FittedFilter
from reedmace.logbook.replay.current_plans import filter_plan, stock_plan, tank_plan
from reedmace.logbook.replay.equipment import installed_filters, tank_site, temperature_c
from reedmace.logbook.replay.rank_question import rank_question
from reedmace.logbook.replay.state import LogbookState
from reedmace.logbook.replay.water import volume
from reedmace.logbook.stages.filter_set import Difference, Together, differences_of, set_verdict, together
from reedmace.logbook.stages.kind_sizes import types_for
from reedmace.logbook.stages.shelf_rows import ShelfVerdict, shelf_on_tank


class FilterView(Part):
    """Everything the Filter stage shows. `assumed` lists what was not entered."""

    verdict: str
    enough: bool | None
    assumed: list[str]
    volume: TankVolumeAnswer
    temperature_c: Annotated[float, number("°C", 0, 45)]
    requirement: FlowRequirementAnswer
    asked_low_lph: Lph
    asked_high_lph: Lph
    price_per_kwh: Annotated[float, number("money/kWh", 0, 100)]
    ranking: RankFiltersAnswer
    types: TypeAndSizeAnswer = Field(description="Which kind and how big, by boxes as they are usually made")
    shelf: ShelfVerdict = Field(description="The keeper's own boxes on this tank")
    shown: Together | None
    hanging: Together | None
    differences: list[Difference] = Field(description="What changes if the set shown hangs instead of what does")
    supplies: Supplies


def _assumed(state: LogbookState) -> list[str]:
    found = []
    if not state.tank_plan:
        found.append(
            f"a tank of {formatting.cm.bare(60)} × {formatting.cm.bare(30)} × {formatting.cm(36)}, until yours is"
            " measured"
        )
    elif tank_plan(state).by_litres:
        found.append(f"the sizes of a usual box of {formatting.litres(volume(state).net_l)}, until yours is measured")
    if not stock_plan(state).animals:
        found.append("a community tank, until animals are chosen")
    return found


def _known(state: LogbookState, boxes: list[Filter], name: str) -> Filter | None:
    """A filter by its id: what hangs here, or a box of the keeper's."""
    hanging = (h.filter for h in installed_filters(state))
    among = {f.id: f for f in (*boxes, *filter_plan(state).own_filters, *hanging)}
    # A box whose kind is not said is looked at as the likeliest.
    likeliest = next((f for key, f in among.items() if key.startswith(f"{name}-")), None)
    return among.get(name) or likeliest


def filter_view(
    state: LogbookState,
    seen: list[str] | None = None,
    shelf: Sequence[ShelfItem] = (),
    learned: Sequence[LearnedRelation] = (),
) -> FilterView:
    """The Filter stage of a tank.

    state: the tank's, with what is typed on screen; seen: ids of filters looked at instead of what hangs there; shelf:
    the keeper's boxes; learned: how typical boxes differ from memory, learned where this runs.
    """
    plan, stock = filter_plan(state), stock_plan(state)
    boxes = [f for item in shelf for f in boxes_of(item)]
    asked = rank_question(state, boxes)
    types = types_for(asked, learned)
    # The usual box of every kind at the size recommended stands among the keeper's own.
    usual = [f for row in types.kinds if (f := typical_named(row.typical_id, learned)) is not None]
    judged = shelf_on_tank(asked, shelf)
    # Of a long shelf, the boxes that suit best.
    listed = {one.filter_id for row in judged.rows for one in row.as_kinds}
    left_out = {f.id for f in boxes} - listed - {h.filter.id for h in installed_filters(state)}
    among = {f.id: f for f in (*asked.own_filters, *usual) if f.id not in left_out}
    ranking = rank_filters(asked.model_copy(update={"own_filters": list(among.values())}))
    hanging = installed_filters(state)
    best = next((row for row in types.kinds if row.fits), None)
    ids = seen or ([] if hanging or best is None else [best.typical_id] * best.count)
    looked = [
        FittedFilter(key=f"seen{i}", filter=found, plumbing=plan.plumbing)
        for i, name in enumerate(ids)
        if (found := _known(state, boxes, name) or typical_named(name, learned)) is not None
    ]
    same = [h.filter.id for h in hanging] == [f.filter.id for f in looked]
    on_tank = together(state, hanging, chosen=True) if hanging else None
    shown = on_tank if not looked or same else together(state, installed_filters(state, looked), chosen=False)
    verdict, enough = (ranking.verdict, None) if shown is None else set_verdict(shown)
    if shown is not None and ranking.too_many is not None:
        # No filter makes up for it.
        verdict, enough = f"{ranking.too_many} {verdict}", False
    requirement = flow_requirement_here(tank_site(state), stock.animals, stock.own_species, temperature_c(state))
    return FilterView(
        verdict=verdict,
        enough=enough,
        assumed=_assumed(state),
        volume=volume(state),
        temperature_c=temperature_c(state),
        requirement=requirement,
        asked_low_lph=ranking.asked_low_lph,
        asked_high_lph=ranking.asked_high_lph,
        price_per_kwh=plan.price_per_kwh,
        ranking=ranking,
        types=types,
        shelf=judged,
        shown=shown,
        hanging=on_tank,
        differences=differences_of(on_tank, shown) if on_tank and shown and shown is not on_tank else [],
        supplies=supplies(state, hanging or (installed_filters(state, looked) if looked else [])),
    )
