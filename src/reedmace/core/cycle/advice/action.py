"""A single action and its amount: a dose, baking soda, a water change, a thermostat setting."""

import math
from dataclasses import replace
from typing import Annotated, Literal, get_args

from pydantic import Field, computed_field

from reedmace.core.chemistry import (
    AlkalinityDoseQuestion,
    AmmoniaDoseQuestion,
    WaterChangeQuestion,
    alkalinity_dose,
    ammonia_dose,
    water_change,
)
from reedmace.core.chemistry.shock_limits import PH_SHIFT_EMPTY
from reedmace.core.chemistry.water_change import Pouring, Solute
from reedmace.core.contract import Celsius, ComputedPart, MgNPerL, Share, Working, number, whole
from reedmace.core.cycle.record.dose_to_prove import dose_to_prove_mg_n_l, leaves_traces, may_be_fed
from reedmace.core.cycle.record.log import HIGH_AMMONIA_MG_N_L, TRANSFERRED, CycleLog
from reedmace.core.cycle.record.nitrification import film_at_work
from reedmace.core.cycle.record.water_now import WaterNow
from reedmace.core.quantity import formatting
from reedmace.core.quantity.units import NITROGEN_SHARE
from reedmace.core.stock import WasteLoadQuestion, waste_load

MUCH_AMMONIA_MG_N_L = 1.5
"""Ammonia above which the first half of the film has far to go, mg N/L (memory)."""
WARMING_C_DAY = 2.0
"""Largest change of the thermostat in a day (common practice)."""

Do = Literal[
    "test",
    "test-other-kit",
    "dose-ammonia",
    "raise-kh",
    "wait",
    "warm",
    "cool",
    "change-water",
    "treat-water",
    "test-tap",
    "other-water",
    "aerate",
    "bind-ammonia",
    "start-filter",
    "stop-dosing",
    "dilute-test",
    "skimmer-off",
    "feed-phosphate",
    "feed-tank",
    "feed-little",
    "watch-growth",
    "add-seed",
    "add-animals",
    "feed-film",
]


When = Literal["now", "tonight", "tomorrow", "later"]
WHEN: tuple[When, ...] = get_args(When)
"""Soonest first."""


class Action(ComputedPart):
    """One action: what, how much, when and why. An amount that does not apply is null."""

    do: Do
    title: str
    detail: str
    reason: str
    when: When
    amount: Annotated[float, number("amount_unit", 0, 1e7)] | None = None
    amount_unit: Literal["g", "mL", "drops", "L"] | None = None
    share: Share | None = Field(default=None, description="Of the water, with a change")
    times_count: Annotated[int, whole(1, 8, "The amount so many times, some hours apart")] = 1
    raise_mg_n_l: MgNPerL | None = Field(default=None, description="What a dose of ammonia adds")
    raise_dkh: Annotated[float, number("dKH", 0, 40)] | None = Field(default=None, description="What bicarbonate adds")
    to_c: Celsius | None = Field(default=None, description="Thermostat to be reached")
    step_c: Annotated[float, number("°C", 0, 5, "Most in a day")] | None = None
    ph_shift: Annotated[float, number("pH", 0, 10, "Expected of one portion")] | None = None
    caution: str | None = None

    @computed_field(description="The title as it reads inside a sentence")  # type: ignore[prop-decorator]
    @property
    def inside(self) -> str:
        """The title as it reads inside a sentence."""
        return formatting.inside(self.title)


def next_dose(log: CycleLog, s: WaterNow, w: Working) -> Action | None:
    """The next ammonia dose; None where the water holds that much already.

    log: the cycle's; s: the water now; w: gets the lines. Never aims over the hold of 5 ppm (common practice).
    """
    wanted = log.plan_target_ppm * NITROGEN_SHARE["NH4"] if not log.doses else dose_to_prove_mg_n_l(log)
    if log.method in TRANSFERRED:
        wanted = dose_to_prove_mg_n_l(log)
    if may_be_fed(log, s.ammonia_now):
        # On top of the trace: a smaller dose would prove nothing.
        wanted += s.ammonia_now
    wanted = min(wanted, HIGH_AMMONIA_MG_N_L)
    if wanted <= s.ammonia_now:
        return None
    answer = ammonia_dose(
        AmmoniaDoseQuestion(
            net_l=log.net_l,
            target_ppm=wanted,
            basis="N",
            current_ppm=min(s.ammonia_now, 100),
            half_ppm=min(log.kit.zero_mg_n_l("ammonia"), 50),
            product=log.product,
        )
    )
    w.lines.extend(answer.working[:3])
    amount, unit = next(
        (a, u) for a, u in ((answer.grams, "g"), (answer.millilitres, "mL"), (answer.drops, "drops")) if a is not None
    )
    return Action(
        do="dose-ammonia",
        title=f"Dose to {log.ppm(wanted)}",
        detail=(
            f"{answer.verdict.split(' to bring')[0]}, stirred into a jug of tank water. It comes to"
            f" {log.ppm(answer.low_ppm)} to {log.ppm(answer.high_ppm)}, mostly by {answer.doubt_by}."
        ),
        reason=_why_dosed(log),
        when="now",
        amount=amount,
        amount_unit=unit,
        raise_mg_n_l=answer.raise_mg_n_l,
        caution=(
            "Aquarium-grade ammonia only, never household cleaner; gloves, away from children, never together with"
            " bleach."
        ),
    )


def _why_dosed(log: CycleLog) -> str:
    if leaves_traces(log):
        return (
            "Whole doses leave a trace time after time. Half a dose gone in a day proves the filter for half"
            " the animals; it grows with them, and the others come later."
        )
    if log.doses or film_at_work(log):
        return "The film needs feeding, and each dose that is gone in a day is the proof you are after."
    if log.method == "measured-ammonia":
        return "Nothing lives in the filter yet; this is the food that starts it."
    return "The film that came across must be fed, and a dose gone in a day shows that it lives."


def water_preparation(log: CycleLog, s: WaterNow) -> str:
    """How new water is prepared for this tank: temperature, treatment, salt. log: the cycle's; s: the water now."""
    pouring = Pouring(s.temperature, log.tap.cold_c, log.tap.hot_c, log.salinity_g_kg, log.tap.chlorine)
    pouring = replace(pouring, measured=log.warmth_measured())
    words = pouring.words(0.0, known=False)
    return formatting.opening(words)


PORTION_APART_DAYS = 0.45
"""Days between portions of baking soda: mostly twelve hours (common practice)."""
ONE_PORTION_PH = 0.3
"""A pH shift no larger than this is given in one portion (memory)."""


def raise_alkalinity(log: CycleLog, s: WaterNow, w: Working) -> Action:
    """One portion of baking soda towards the target KH, limited by its pH shift.

    log: the cycle's; s: the water now; w: gets the lines. What is left is asked for when half a day has gone by: what
    is written down is what was done. Source: carbonate equilibrium at a steady CO2; common practice for the target.
    """
    kh, goal = s.kh_now or 0.0, s.wanted.kh_target_dkh
    # At a steady CO2 pH follows the logarithm of KH, which limits a portion.
    base = max(kh, 0.3)
    whole = goal <= base * 10**ONE_PORTION_PH
    target = goal if whole else min((kh + goal) / 2, base * 10**PH_SHIFT_EMPTY)
    target = max(target, kh + 0.1)
    dose = alkalinity_dose(AlkalinityDoseQuestion(net_l=log.net_l, current_dkh=kh, target_dkh=target, planned_mg_n_l=0))
    w.lines.extend(dose.working[-2:])
    shift = w.line(
        "ΔpH",
        "log10(KH after / KH before)",
        f"log10({target:.2f} / {base:.2f})",
        math.log10(max(target / base, 1.0)),
        "pH",
        "carbonate",
    )
    last = max((a.day for a in log.alkalinity), default=-1.0)
    return Action(
        do="raise-kh",
        title=f"Add {_grams(dose.sodium_bicarbonate_g)} g of baking soda",
        detail=f"Sodium bicarbonate, dissolved first: KH {kh:.1f} to {target:.2g} dKH."
        + ("" if whole else f" The rest, to {goal:.2g} dKH, twelve hours on."),
        reason="The film burns alkalinity with every milligram of ammonia and stops when it is gone.",
        when="tonight" if log.day_now - last < PORTION_APART_DAYS else "now",
        amount=dose.sodium_bicarbonate_g,
        amount_unit="g",
        raise_dkh=target - kh,
        ph_shift=max(shift, 0.0),
    )


def _grams(grams: float) -> str:
    return f"{grams:.0f}" if grams >= 10 else f"{grams:.2g}"


def change_for(
    log: CycleLog, s: WaterNow, solute: Solute, least: float, most: float, w: Working
) -> tuple[float, int, float | None]:
    """(litres of one portion, portions, pH shift of a portion) of a change that brings one solute to its target.

    log: the cycle's; s: the water now; solute: which, and where to; least, most: bounds of the share, 0 to 1;
    w: gets the line.
    """
    answer = water_change(
        WaterChangeQuestion(
            net_l=log.net_l,
            solutes=[solute],
            animals_in=log.animals_are_in(),
        )
    )
    share = min(max(answer.change_share, least), most)
    litres = w.sum("V", "share × net litres", {"share": share, "net litres": log.net_l}, "L", "practice")
    if s.ph is None or s.kh_now is None or log.tap.ph is None:
        return litres, 1, None
    # The same share again, now with the pH of both waters, to find the number of portions.
    parts = water_change(
        WaterChangeQuestion(
            net_l=log.net_l,
            solutes=[Solute(what="other", now_ppm=1, target_ppm=1 - share)],
            tank_ph=s.ph,
            tank_kh_dkh=min(s.kh_now, 40),
            tap_ph=log.tap.ph,
            tap_kh_dkh=log.tap_kh_dkh(),
            animals_in=log.animals_are_in(),
        )
    )
    return (parts.part_l if parts.parts_count > 1 else litres), parts.parts_count, parts.ph_shift


def cool_down(log: CycleLog, s: WaterNow) -> Action | None:
    """Heater down to the middle of the planned animals' range; None where the water is cool enough for them.

    log: the cycle's; s: the water now.
    """
    loads = waste_load(WasteLoadQuestion(net_l=log.net_l, animals=log.animals, own_species=log.own_species))
    low, high = loads.temperature_low_c, loads.temperature_high_c
    wanted = (low + high) / 2 if low is not None and high is not None else 25.0
    if s.temperature <= (high if high is not None else 26.5):
        return None
    wanted = min(max(wanted, 0.5), 40.0)
    return Action(
        do="cool",
        title=f"Heater down to {formatting.celsius(wanted, '.0f')}",
        detail="A degree or two a day, before the animals come.",
        reason=f"{formatting.celsius(s.temperature)} was for the film; the animals want less.",
        when="now",
        to_c=wanted,
        step_c=WARMING_C_DAY,
    )
