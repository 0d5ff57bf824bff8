"""What stands on the label of a tank."""

from reedmace.core.quantity import formatting
from reedmace.logbook.replay.state import LogbookState
from reedmace.logbook.replay.water import net_litres
from reedmace.logbook.rooms.room_view import animals_in_words


def label_words(state: LogbookState) -> str:
    """Litres, filters and animals of a tank in a line. state: the tank's."""
    litres = [formatting.litres(net_litres(state))] if state.tank_plan is not None else []
    box = ", ".join([*litres, *(f.filter.name for f in state.filters())])
    return ". ".join(part for part in (box, formatting.opening(animals_in_words(state))) if part)
