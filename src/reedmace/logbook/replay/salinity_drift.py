"""Drift of salinity: evaporation concentrates salt, and water taken out removes it."""

from datetime import datetime, timedelta

from reedmace.core.chemistry.salinity import is_fresh
from reedmace.core.quantity import formatting
from reedmace.logbook.replay.current_plans import cycle_plan
from reedmace.logbook.replay.entries import Reading
from reedmace.logbook.replay.state import LogbookState
from reedmace.logbook.replay.water import net_litres

LATELY = timedelta(days=14)
DRIFT_G_KG = 1.0
"""Deviation from the target salinity at which it is corrected (common practice)."""


def salinity_drift(state: LogbookState, now: datetime) -> str | None:
    """Correction the newest reading asks for, in words; None in fresh water, without a late reading, or on target.

    state: the tank's; now: aware time. Fresh water in is volume × (read / kept − 1), by the salt that stays.
    """
    kept = cycle_plan(state, now).salinity_g_kg
    read = [
        (e.at, e.body.salinity_g_kg) for e in state.readings if isinstance(e.body, Reading) and e.body.salinity_g_kg
    ]
    if is_fresh(kept) or not read or now - read[-1][0] > LATELY:
        return None
    salinity = read[-1][1]
    if salinity - kept >= DRIFT_G_KG:
        litres = net_litres(state) * (salinity / kept - 1)
        return (
            f"Salinity stands at {salinity:.1f} g/kg where {kept:.0f} is kept: water has evaporated. Top up with about"
            f" {formatting.litres(litres)} of fresh water in all, so little at a time that it falls no more than 1 g/kg"
            " a day; where the tank is full, take as much out first."
        )
    if kept - salinity >= DRIFT_G_KG:
        return (
            f"Salinity stands at {salinity:.1f} g/kg where {kept:.0f} is kept: the next changes bring it back, mixed a"
            " little saltier, no more than 1 g/kg a day."
        )
    return None
