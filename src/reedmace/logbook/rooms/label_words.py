"""What stands on the label of a tank."""

from reedmace.core.quantity import formatting
from reedmace.core.stock import SPECIES
from reedmace.logbook.replay.animals import animals_in
from reedmace.logbook.replay.current_plans import stock_plan
from reedmace.logbook.replay.state import LogbookState
from reedmace.logbook.replay.water import net_litres

MOST_KINDS = 4
"""Kinds of animals named; more do not fit a label."""


def label_words(state: LogbookState) -> str:
    """Litres, filters and animals of a tank in a line. state: the tank's."""
    own = {s.id: s for s in stock_plan(state).own_species}
    animals = []
    for a in animals_in(state) or stock_plan(state).animals:
        species = own.get(a.species_id) or SPECIES.get(a.species_id)
        animals.append(f"{a.count} {formatting.inside(species.common_name) if species else a.species_id}")
    named = animals[:MOST_KINDS] + ([f"{len(animals) - MOST_KINDS} kinds more"] if len(animals) > MOST_KINDS else [])
    filters = [f.filter.name for f in state.filters()]
    litres = [formatting.litres(net_litres(state))] if state.tank_plan is not None else []
    return ". ".join(part for part in (", ".join([*litres, *filters]), ", ".join(named)) if part)
