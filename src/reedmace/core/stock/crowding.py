"""Too many animals for a water, whatever the filter: what number, or what tank, would do."""

import math

from reedmace.core.quantity import formatting
from reedmace.core.stock.compatibility import outgrows
from reedmace.core.stock.flow_demand import CROWDED_MG_N_L_DAY
from reedmace.core.stock.species import Species, find_species
from reedmace.core.stock.waste_load import WasteLoadAnswer

ROUND_UP_L = 10.0
"""Litres to which the tank that would do is rounded up."""


def too_many(load: WasteLoadAnswer, net_l: float, tank_length_cm: float, own_species: list[Species]) -> str | None:
    """Why these animals are too many today, and what would do; None where weekly changes keep up with them.

    load: of the animals; net_l, tank_length_cm: of the tank; own_species: the keeper's own. Source: memory, as
    `CROWDED_MG_N_L_DAY`.

    Young animals are judged by what they make today; what they will make grown is said by the stock's own verdict.
    """
    today = load.today_mg_n_day / net_l
    if today <= CROWDED_MG_N_L_DAY:
        return None
    share = CROWDED_MG_N_L_DAY / today
    litres = math.ceil(net_l / share / ROUND_UP_L) * ROUND_UP_L
    return (
        f"Too many for {formatting.litres(net_l)}, whatever the filter: weekly changes would not keep up with what they"
        f" make. {_fewer(load, share, tank_length_cm, own_species)}a tank of {formatting.litres(litres)} would do."
    )


def _fewer(load: WasteLoadAnswer, share: float, tank_length_cm: float, own_species: list[Species]) -> str:
    """The number that would do, where one kind makes nearly all of it."""
    most = max(load.lines, key=lambda line: line.today_mg_n_day, default=None)
    if most is None or most.today_mg_n_day < 0.8 * load.today_mg_n_day:
        return f"About {share:.0%} of them, or "
    others = load.today_mg_n_day - most.today_mg_n_day
    keeps = math.floor(max(share * load.today_mg_n_day - others, 0.0) / (most.today_mg_n_day / most.count))
    if keeps < 1 or outgrows(find_species(most.species_id, "animals", own_species), tank_length_cm):
        return f"Not one {formatting.inside(most.common_name)} fits it; "
    return f"{keeps} × {formatting.inside(most.common_name)}{' with the others' if others > 0 else ''}, or "
