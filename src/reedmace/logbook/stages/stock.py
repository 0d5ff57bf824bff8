"""The Stock stage: what the animals make, whether they go together in this water, what flow they ask for."""

from reedmace.core.contract import Part
from reedmace.core.filter import FlowRequirementAnswer, FlowRequirementQuestion, flow_requirement
from reedmace.core.stock import WasteLoadAnswer
from reedmace.core.tank import TankVolumeAnswer
from reedmace.logbook.equipment import room, stock_load
from reedmace.logbook.questions import stock_plan, volume
from reedmace.logbook.state import LogbookState


class StockView(Part):
    """All that the Stock stage shows."""

    volume: TankVolumeAnswer
    load: WasteLoadAnswer
    requirement: FlowRequirementAnswer


def stock_view(state: LogbookState) -> StockView:
    """The Stock stage. state: the tank's, with what is typed on screen."""
    stock = stock_plan(state)
    return StockView(
        volume=volume(state),
        load=stock_load(state),
        requirement=flow_requirement(
            FlowRequirementQuestion(net_l=room(state).net_l, animals=stock.animals, own_species=stock.own_species)
        ),
    )
