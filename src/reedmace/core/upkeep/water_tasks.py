"""Water in the care plan: topping up what evaporates, and raising alkalinity that runs down."""

from typing import Annotated

from pydantic import Field

from reedmace.core.chemistry.alkalinity_dose import soda_g
from reedmace.core.contract import NetLitres, Part, Share, number
from reedmace.core.quantity import formatting

MOST_SODA_DKH, ONE_PORTION_PH, LOWEST_DKH = 2.0, 0.3, 0.3
"""Largest dose of soda at a time (dKH), its largest pH shift, and the least KH computed from (dKH).

At a steady CO2 pH follows the logarithm of KH (carbonate equilibrium; the limit from memory).
"""
LEAST_DKH = 0.5
"""A smaller dose is not worth weighing, dKH (a stated judgement)."""


class CaredTopUp(Part):
    """Evaporation, as from `evaporation`."""

    every_days: Annotated[float, number("days", 0, 4000)]
    litres_day: Annotated[float, number("L/day", 0, 1e6, "None where the tank was never measured")] | None = None
    since_days: Annotated[float, number("days", 0, 40000)] = 0
    salt_water: bool = False


class CaredKh(Part):
    """Alkalinity now, and its fall."""

    now_dkh: Annotated[float, number("dKH", 0, 40)]
    falls_dkh_day: Annotated[float, number("dKH/day", 0, 40)]
    floor_dkh: Annotated[
        float, number("dKH", 0, 40, "Under it film and animals are short; 0 where the animals want none")
    ]
    target_dkh: Annotated[float, number("dKH", 0, 40)]
    tap_dkh: Annotated[float, number("dKH", 0, 40)] | None = None
    change_share: Share = 0.25
    net_l: Annotated[NetLitres | None, Field(description="None where the tank was never measured")] = None


def top_up_words(t: CaredTopUp) -> tuple[str, str]:
    """(title, reason) of a top-up. t: what evaporates."""
    often = "Every day" if t.every_days < 1.5 else f"Every {int(t.every_days)} days"
    much = "" if t.litres_day is None else f" about {formatting.litres(t.litres_day * max(t.every_days, 1.0), '.1f')}"
    fresh = " of fresh water, never salted" if t.salt_water else ""
    why = f"{often}: so much evaporates" + (
        ", and the salt stays behind." if t.salt_water else "; a falling level costs flow and noise."
    )
    return f"Top up{much}{fresh}", why


def first_soda_day(kh: CaredKh, change_day: float, change_every: float, horizon: float) -> float | None:
    """The first day on which alkalinity reaches its lower limit; None where it never does.

    kh: as it stands and falls; change_day: the next change, days; change_every, horizon: days. Source: mass balance.
    """
    if kh.floor_dkh <= 0:
        return None
    level, day, change = kh.now_dkh, 0.0, max(change_day, 0.0)
    while day <= horizon:
        if level <= kh.floor_dkh:
            return day
        until = (level - kh.floor_dkh) / kh.falls_dkh_day if kh.falls_dkh_day > 0 else horizon + 1
        if kh.tap_dkh is None or day + until <= change:
            found = day + until
            return found if found <= horizon else None
        level -= (change - day) * kh.falls_dkh_day
        level += kh.change_share * (kh.tap_dkh - level)
        day, change = change, change + change_every
    return None


def soda_words(kh: CaredKh, *, now: bool) -> tuple[str, str] | None:
    """(title, reason) of the baking soda that raises alkalinity.

    None where too little is missing. kh: alkalinity; now: due.
    """
    level = min(kh.now_dkh, kh.floor_dkh) if now else kh.floor_dkh
    missing = kh.target_dkh - level
    if missing < LEAST_DKH:
        return None
    rise = min(missing, MOST_SODA_DKH, max(level, LOWEST_DKH) * (10**ONE_PORTION_PH - 1))
    rest = " The rest half a day on, so that pH does not jump." if missing - rise >= LEAST_DKH else ""
    amount = (
        f"{formatting.dkh(rise, '.2g')} of bicarbonate"
        if kh.net_l is None
        else f"{soda_g(rise, kh.net_l):.2g} g of bicarbonate"
    )
    when = "It stands at" if now else "By then it falls to"
    return (
        f"Test KH and add {amount}",
        f"{when} {formatting.dkh(level, '.2g')}, as the film uses it up; "
        f"this brings it up by {formatting.dkh(rise, '.2g')}. Dissolved first, and only if the test agrees.{rest}",
    )
