"""Stock stage: waste load, compatibility, and flow requirement of the animals."""

from reedmace.core.contract import Part
from reedmace.core.filter import FlowRequirementAnswer, flow_requirement_here
from reedmace.core.quantity import formatting
from reedmace.core.stock import WasteLoadAnswer
from reedmace.core.stock.crowding import too_many
from reedmace.core.stock.flow_demand import CROWDED_MG_N_L_DAY, FULL_MG_N_L_DAY
from reedmace.core.tank import TankVolumeAnswer
from reedmace.logbook.replay.current_plans import stock_plan
from reedmace.logbook.replay.entries import Situation
from reedmace.logbook.replay.equipment import stock_load, tank_site, temperature_c
from reedmace.logbook.replay.state import LogbookState
from reedmace.logbook.replay.water import volume


class StockView(Part):
    """Everything the Stock stage shows."""

    verdict: str
    fits: bool | None
    volume: TankVolumeAnswer
    load: WasteLoadAnswer
    requirement: FlowRequirementAnswer


def _lives(state: LogbookState) -> bool:
    """Whether animals were in before the logbook began."""
    body = state.situation.body if state.situation else None
    return isinstance(body, Situation) and body.stands in ("animals-in", "running")


def _verdict(load: WasteLoadAnswer, crowded: str | None, *, lives: bool) -> tuple[str, bool | None]:
    """Whether these animals fit this water and each other; None while there are none. crowded: why too many."""
    if not load.lines:
        who = (
            "Who lives in it? Its filter is judged by them."
            if lives
            else "Who will live in it? The filter is sized for them."
        )
        return who, None
    if load.clashes:
        more = f" And {len(load.clashes) - 1} more below." if len(load.clashes) > 1 else ""
        return f"Not all of this fits: {load.clashes[0].text}{more}", False
    grown = load.ammonia_mg_n_l_day
    if crowded is not None:
        return crowded, False
    if grown > CROWDED_MG_N_L_DAY:
        return "Enough room while they are young; grown, they are too many for this water.", True
    low, high = load.temperature_low_c, load.temperature_high_c
    warmth = (
        f", at {formatting.celsius.bare(low)} to {formatting.celsius(high)}"
        if low is not None and high is not None
        else ""
    )
    crowd = "These animals fit together" if len(load.lines) > 1 else "They fit this tank"
    heavy = "; a full stock, so feed sparingly and change weekly" if grown > FULL_MG_N_L_DAY else ""
    return f"{crowd}{warmth}{heavy}.", True


def stock_view(state: LogbookState) -> StockView:
    """The Stock stage. state: the tank's, with the draft on screen."""
    stock = stock_plan(state)
    load = stock_load(state)
    here = tank_site(state)
    crowded = too_many(load, here.net_l, here.length_cm, stock.own_species)
    verdict, fits = _verdict(load, crowded, lives=_lives(state))
    return StockView(
        verdict=verdict,
        fits=fits,
        volume=volume(state),
        load=load,
        requirement=flow_requirement_here(here, stock.animals, stock.own_species, temperature_c(state)),
    )
