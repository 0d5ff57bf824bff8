"""The counter: yes or no on boxes for a tank, without an account; nothing is stored."""

from apiflask import APIBlueprint
from flask import current_app, g
from peewee import InterfaceError, OperationalError

from reedmace.core.filter.learned import LearnedRelation
from reedmace.database import AllBusy
from reedmace.logbook.stages.counter import CounterAnswer, CounterQuestion, counter_view
from reedmace.store import learned_boxes

blueprint = APIBlueprint("counter", __name__, url_prefix="/api", tag="Counter")


@blueprint.post("/counter")
@blueprint.input(CounterQuestion)
@blueprint.output(CounterAnswer)
@blueprint.doc(responses={422: "Not usable"})
def ask_counter(json_data: CounterQuestion) -> CounterAnswer:
    """Whether up to four boxes do for a tank of so many litres with these animals; nothing is stored."""
    return counter_view(json_data, _learned())


def _learned() -> list[LearnedRelation]:
    """Relations learned here; none while the database cannot be reached, since the counter needs nothing of it."""
    database = current_app.extensions["database"]
    try:
        with database.connection_context():
            return learned_boxes(database, g.now)
    except (AllBusy, InterfaceError, OperationalError):
        return []
