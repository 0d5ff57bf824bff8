"""Cautions and help beside an emergency plan."""

from reedmace.core.chemistry import un_ionised_share
from reedmace.core.chemistry.salinity import is_fresh
from reedmace.core.chemistry.tolerance import (
    ammonia_limit_mg_n_l,
)
from reedmace.core.cycle.animals.day_plan import DayPlan, EmergencyPlanQuestion, Limit
from reedmace.core.quantity import formatting
from reedmace.core.quantity.units import ppm_words

TRACE_MG_N_L = 0.3
"""Ammonia from which a higher pH of the tap is worth a caution, mg N/L (a stated judgement)."""


def cautions(q: EmergencyPlanQuestion, day: DayPlan, over: list[Limit]) -> list[str]:
    """Cautions, the worst first. q: the water; day: its plan; over: limits exceeded."""
    limit, _ = ammonia_limit_mg_n_l(q.ph, q.temperature_c, q.salinity_g_kg)
    ammonia = q.ammonia_mg_n_l or 0.0
    found: list[str] = []
    if q.gasping:
        found.append("Gasping: aerate now, before anything else; an air stone or the outlet turned to the surface.")
    brings = q.tap.released_mg_n_l()
    if brings >= limit:
        found.append(
            f"The tap itself brings {ppm_words(brings, 'ammonia', q.basis)} of ammonia: use a conditioner"
            " that binds it, or purified water brought to this KH."
        )
    tap_ph = day.tap.carbonate.ph()
    if over and ammonia > TRACE_MG_N_L and tap_ph - q.ph > 0.2:
        free = un_ionised_share(min(tap_ph, 10), q.temperature_c, q.salinity_g_kg)
        now = un_ionised_share(q.ph, q.temperature_c, q.salinity_g_kg)
        found.append(
            f"The tap raises pH, which frees ammonia: {now * ammonia:.3f} mg/L of the poison form would be"
            f" {free * ammonia:.3f} at the tap's pH. That is why the changes are small and several."
        )
    if over and (q.tap.ph is None or q.tap.kh_dkh is None) and is_fresh(q.salinity_g_kg):
        found.append(
            f"The tap's pH and KH are not known; it is taken for pH {tap_ph:.1f} and {day.tap.carbonate.kh_dkh():.0f}"
            " dKH. Test it: the portions may be larger."
        )
    if over and not day.changes:
        found.append(
            "Tank and tap are far apart in pH: no bucket of it may go in at once. Let it drip in over hours, testing pH"
            " as it goes."
        )
    if q.tap.chlorine != "none":
        chloramine = (
            " Chloramine leaves ammonia behind when it is broken: take a conditioner that binds that too."
            if q.tap.chlorine == "chloramine"
            else ""
        )
        found.append(f"Treat every litre for chlorine and chloramine before it goes in.{chloramine}")
    if not is_fresh(q.salinity_g_kg):
        found.append(
            f"Mix the new water to the tank's own salinity, {q.salinity_g_kg:g} g/kg, a day ahead where you can; top up"
            " evaporation with fresh water only."
        )
    if day.stays_soft():
        found.append(
            "No baking soda: these animals want soft water. Film lives in it too, slower and with other microbes; give"
            " it weeks, and keep food small."
        )
    found.append("Matched to the tank's temperature. Unplug heater and filter first; plug them back in after.")
    found.append("Ammonia-binding media buy time only; a new, sterile filter does nothing for this.")
    return found


def help_words(q: EmergencyPlanQuestion) -> list[str]:
    """What shortens it, the best first. q: the water."""
    found = [
        (
            "Seeded media from a healthy tank that runs, wet and aired on the way: the only thing that ends it within"
            " days."
        ),
        "Floating and fast-growing plants, as many as you can get: they take ammonia first.",
    ]
    b = q.bottle
    inside = b.low_c <= q.temperature_c <= b.high_c and b.ph_low <= q.ph <= b.ph_high
    found.append(
        "A bottled culture at the most its label allows; it may help, and it cannot hurt."
        if inside and b.in_date
        else (
            "A bottled culture does little here: it is past its date."
            if not b.in_date
            else (
                f"A bottled culture does little here: it wants {formatting.celsius.bare(b.low_c)} to"
                f" {formatting.celsius(b.high_c)} and pH {b.ph_low:g} to {b.ph_high:g}."
            )
        )
    )
    found.append("Little food, taken out when left, and a test every day until both have read zero for a week.")
    return found
