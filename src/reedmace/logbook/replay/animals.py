"""Animals in a tank and their ammonia, from its logbook."""

import math
from datetime import datetime

from reedmace.core.memo import memoize
from reedmace.core.stock import SPECIES, Animals, WasteLoadQuestion, waste_load
from reedmace.core.stock.brood import USUAL_COUNT
from reedmace.logbook.replay.arrival import came_with_animals
from reedmace.logbook.replay.breeding_entries import BroodStep
from reedmace.logbook.replay.broods import broods_of, fry_load
from reedmace.logbook.replay.current_plans import stock_plan
from reedmace.logbook.replay.entries import Stocking
from reedmace.logbook.replay.state import LogbookState
from reedmace.logbook.replay.water import net_litres

UNKNOWN_LOAD = 0.3
"""Ammonia load assumed until animals are chosen, mg N/L a day: a community's (memory)."""


@memoize
def daily_load(state: LogbookState) -> float:
    """Planned ammonia, mg N per litre and day; 0.3 until animals are chosen. state: the tank's."""
    stock = stock_plan(state)
    if not (stock.animals or stock.feed_g_day):
        return UNKNOWN_LOAD
    question = WasteLoadQuestion(
        net_l=net_litres(state), animals=stock.animals, own_species=stock.own_species, feed_g_day=stock.feed_g_day
    )
    return waste_load(question).ammonia_mg_n_l_day


@memoize
def animals_in(state: LogbookState) -> list[Animals]:
    """Animals in the tank by species, young of a brood from hatching on as well. state: the tank's."""
    young = [b for b in broods_of(state) if b.hatched]
    found = {a.species_id: a.count for a in grown_in(state)}
    for b in young:
        found[b.species_id] = found.get(b.species_id, 0) + (USUAL_COUNT if b.count is None else b.count)
    return [Animals(species_id=s, count=min(n, 2000)) for s, n in found.items() if n > 0]


@memoize
def grown_in(state: LogbookState) -> list[Animals]:
    """Animals in the tank by species that no brood counts: added less removed. state: the tank's."""
    counts: dict[str, int] = {}
    if came_with_animals(state):
        # They were in before the logbook began: the Stock plan from before others were added.
        before = state.model_copy(update={"stock_plan": state.stock_before})
        counts = {a.species_id: a.count for a in stock_plan(before).animals}
    for e in state.events:
        if isinstance(e.body, Stocking):
            counts[e.body.species_id] = counts.get(e.body.species_id, 0) + e.body.count
    return [Animals(species_id=s, count=min(n, 2000)) for s, n in counts.items() if n > 0]


@memoize
def grown_load(state: LogbookState) -> float:
    """Ammonia of the animals no brood counts, as grown, mg N per litre and day; 0 without any. state: the tank's."""
    own = stock_plan(state).own_species
    known = {s.id for s in own} | set(SPECIES)
    present = [a for a in grown_in(state) if a.species_id in known]
    return _load_of(state, present) if present else 0.0


def load_in(state: LogbookState, now: datetime) -> float:
    """Ammonia of the animals in the tank, mg N per litre and day; of the planned ones where none are recorded.

    state: the tank's; now: aware time, for young grow. Grown animals count as grown, young by their length today.
    """
    return grown_load(state) + fry_load(state, now) / net_litres(state) or daily_load(state)


MORE_LOAD_SHARE = 0.2
"""Share of a settled load by which animals may add to it without a watch of their own (memory, cautious)."""


def loaded_at(state: LogbookState) -> datetime | None:
    """When animals last came that brought the load to more than a fifth over what was settled; None without any.

    state: the tank's. Small additions count together.
    """
    own = stock_plan(state).own_species
    known = {s.id for s in own} | set(SPECIES)
    came = came_with_animals(state)
    load = base = _load_at_arrival(state) if came else 0.0
    for e in state.events:
        if isinstance(e.body, BroodStep) and e.body.what in ("free-swimming", "came") and load == 0:
            # Young alone in a tank without any: they are its first animals.
            came = e.at
            continue
        if not isinstance(e.body, Stocking) or e.body.count == 0:
            continue
        if e.body.species_id not in known:
            # Nobody knows what it makes.
            came = e.at if e.body.count > 0 else came
            continue
        moved = [Animals(species_id=e.body.species_id, count=abs(e.body.count))]
        load = max(load + math.copysign(_load_of(state, moved), e.body.count), 0.0)
        # Film shrinks with what feeds it: those who come later are held against who was left.
        base = min(base, load) if e.body.count < 0 else base
        if load > (1 + MORE_LOAD_SHARE) * base:
            came, base = e.at, load
    return came


def _load_at_arrival(state: LogbookState) -> float:
    before = stock_plan(state.model_copy(update={"stock_plan": state.stock_before})).animals
    return _load_of(state, before) if before else UNKNOWN_LOAD


def _load_of(state: LogbookState, animals: list[Animals]) -> float:
    """Ammonia of some animals in this tank, mg N per litre and day."""
    own = stock_plan(state).own_species
    return waste_load(WasteLoadQuestion(net_l=net_litres(state), animals=animals, own_species=own)).ammonia_mg_n_l_day
