"""Plan of one day with animals in.

Water changes and baking soda hour by hour, with the water simulated between them.
"""

from typing import Annotated, Literal

from pydantic import Field

from reedmace.core.chemistry.alkalinity_dose import soda_g
from reedmace.core.chemistry.carbonate import Carbonate
from reedmace.core.chemistry.salinity import is_fresh
from reedmace.core.chemistry.shock_limits import (
    LEAST_SHARE,
    PH_SHIFT_ANIMALS,
    Bounds,
    Water,
    largest_change,
    largest_soda_dkh,
)
from reedmace.core.chemistry.tolerance import (
    NITRATE_LIMIT_MG_N_L,
    UNTESTED_KH_DKH,
    UNTESTED_PH,
    UNTESTED_TAP_KH_DKH,
    UNTESTED_TAP_PH,
    nitrite_limit_mg_n_l,
)
from reedmace.core.contract import (
    PH,
    Celsius,
    Litres,
    MgNPerL,
    NetLitres,
    Part,
    Question,
    Share,
    Working,
    number,
)
from reedmace.core.cycle.record.log import BottleWindow, TapWater
from reedmace.core.cycle.record.targets import held_kh_dkh
from reedmace.core.flow.oxygen_balance import SHORT_MG_L
from reedmace.core.quantity.units import Basis
from reedmace.core.water_parameters import OXYGEN

LARGEST_CHANGE = 0.5
"""Largest change at one time with animals in (common practice)."""
WORTH_A_BUCKET = 0.1
"""Least share of the water that is worth changing at all, where so much may go in (common practice)."""
MOST_CHANGES, APART_H = 4, 4.0
"""Most changes in a day, and the hours between them (common practice)."""
MOST_SODA, LEAST_SODA_DKH, DAY_H = 3, 0.2, 24.0


class EmergencyPlanQuestion(Question):
    """Today's test results, the tap, the animals' daily ammonia, and their preferred water."""

    net_l: NetLitres
    litres_known: bool = Field(
        default=True, description="Whether the tank was measured: else shares are said, not litres"
    )
    ammonia_mg_n_l: Annotated[MgNPerL | None, Field(description="Null where untested")] = None
    nitrite_mg_n_l: Annotated[MgNPerL | None, Field(description="Null where untested")] = None
    nitrate_mg_n_l: MgNPerL | None = None
    ph: PH = Field(default=UNTESTED_PH, description="Untested, taken high: that frees ammonia")
    before_ph: PH | None = Field(default=None, description="The highest read lately, before it fell")
    kh_dkh: Annotated[float, number("dKH", 0, 40)] = UNTESTED_KH_DKH
    kh_known: bool = Field(default=True, description="Whether KH was tested: soda is given on no guess")
    temperature_c: Celsius = 25
    temperature_known: bool = True
    salinity_g_kg: Annotated[float, number("g/kg", 0, 45)] = 0
    load_mg_n_l_day: Annotated[float, number("mg N/(L day)", 0, 1000)] = 0.2
    feed_g_day: Annotated[float, number("g/day", 0, 5000)] = 0
    tap: TapWater = Field(default_factory=TapWater)
    bottle: BottleWindow = Field(default_factory=BottleWindow)
    animals_low_c: Celsius | None = None
    animals_high_c: Celsius | None = None
    animals_ph_low: PH | None = None
    animals_ph_high: PH | None = None
    oxygen_mg_l: Annotated[float, OXYGEN.number()] | None = None
    breathe_water_share: Share = Field(
        default=1, description="Most of its oxygen that any of them takes from the water"
    )
    gasping: bool = False
    settled: bool = Field(default=False, description="Whether the filter carried these animals until lately")
    basis: Basis = Field(default="ion", description="In which the sentences speak of ppm")


AIR_BREATHING_SHARE = 0.7
"""Share of their oxygen from the water under which animals live on the air above it (memory)."""


def short_of_oxygen(oxygen_mg_l: float | None, breathe_water_share: float) -> bool:
    """Whether oxygen that was read harms them. oxygen_mg_l: mg/L, None where unread; breathe_water_share: 0 to 1."""
    return oxygen_mg_l is not None and oxygen_mg_l < SHORT_MG_L and breathe_water_share >= AIR_BREATHING_SHARE


class Limit(Part):
    """One poison: its concentration, its limit, and the rule behind the limit."""

    what: Literal["ammonia", "nitrite", "nitrate"]
    now_mg_n_l: MgNPerL
    limit_mg_n_l: MgNPerL
    rule: str
    over: bool


class PlannedChange(Part):
    """One planned change today."""

    after_hours: Annotated[float, number("h", 0, 24)]
    share: Share
    litres: Litres
    before_ph: Annotated[float, number("pH", 0, 14)]
    ammonia_after_mg_n_l: MgNPerL
    nitrite_after_mg_n_l: MgNPerL
    after_ph: Annotated[float, number("pH", 0, 14)]


class DayPlan:
    """The day plan under construction; carries the water from step to step."""

    def __init__(self, q: EmergencyPlanQuestion, made: float, limits: list[Limit]) -> None:
        self.q, self.made, self.limits = q, made, limits
        here = (q.temperature_c, q.salinity_g_kg)
        self.water = Water(
            Carbonate.of(q.ph, q.kh_dkh, *here),
            q.ammonia_mg_n_l or 0.0,
            q.nitrite_mg_n_l or 0.0,
            q.nitrate_mg_n_l or 0.0,
        )
        tap_kh = q.tap.kh_dkh if q.tap.kh_dkh is not None else max(q.kh_dkh, UNTESTED_TAP_KH_DKH)
        tap_ph = q.tap.ph if q.tap.ph is not None else max(q.ph, UNTESTED_TAP_PH)
        if not is_fresh(q.salinity_g_kg):
            # In salt water the new water is mixed to the tank's own values, whatever the tap was.
            tap_ph, tap_kh = q.tap.ph or q.ph, q.tap.kh_dkh or q.kh_dkh
        self.tap = Water(
            Carbonate.of(tap_ph, tap_kh, *here), q.tap.cautious_mg_n_l(), q.tap.nitrite_mg_n_l, q.tap.nitrate_mg_n_l
        )
        self.bounds = Bounds(PH_SHIFT_ANIMALS, self.water.carbonate.co2_mmol())
        self.hour = 0.0
        self.changes: list[PlannedChange] = []
        self.soda: list[tuple[float, float, Water, Water]] = []
        self.reaches: list[float] = []

    def wait(self, until_hour: float) -> None:
        """Simulate the water until an hour of the day. until_hour: hours since the start."""
        hours = until_hour - self.hour
        if hours > 0:
            self.water = self.water.later(hours, self.bounds.co2_mmol, self.made)
            self.hour = until_hour

    def tomorrow(self, water: Water | None = None) -> Water:
        """The water a day from now if nothing more is done."""
        return (water or self.water).later(DAY_H - self.hour, self.bounds.co2_mmol, self.made)

    def excess(self, water: Water) -> float:
        """The worst poison as a multiple of its limit at the end of the day; 1 is just within."""
        return max(self.poison_excess(water), water.nitrate / NITRATE_LIMIT_MG_N_L)

    def poison_excess(self, water: Water) -> float:
        """The same of ammonia and nitrite, which harm within days; nitrate takes weeks."""
        then = self.tomorrow(water)
        nitrite = water.nitrite / (0.8 * nitrite_limit_mg_n_l(self.q.salinity_g_kg))
        return max(water.reach(), then.reach(), nitrite)

    def plan(self, w: Working) -> None:
        """Add the changes and soda of the day. w: takes the working."""
        for n in range(MOST_CHANGES):
            # One change a day is enough for nitrate.
            if (self.poison_excess(self.water) if n else self.excess(self.water)) <= 1.0:
                break
            if n:
                self.wait(n * APART_H)
            share = self._share()
            if share < LEAST_SHARE:
                break
            before = self.water
            self.water = before.changed(self.tap, share)
            self.changes.append(
                PlannedChange(
                    after_hours=self.hour,
                    share=share,
                    litres=share * self.q.net_l,
                    before_ph=before.carbonate.ph(),
                    ammonia_after_mg_n_l=self.water.ammonia,
                    nitrite_after_mg_n_l=self.water.nitrite,
                    after_ph=self.water.carbonate.ph(),
                )
            )
            self.reaches.append(self.water.reach())
            w.line(
                f"NH {n + 1}",
                "N (1 − x) + tap × x",
                f"{before.ammonia:.2f} (1 − {share:.2f}) + {self.tap.ammonia:.2f} × {share:.2f}",
                self.water.ammonia,
                "mg N/L",
                "arithmetic",
            )
            w.line(
                f"pH {n + 1}",
                "carbonate of both waters, mixed",
                f"pH {before.carbonate.ph():.2f} with {self.tap.carbonate.ph():.2f}",
                self.water.carbonate.ph(),
                "pH",
                "carbonate",
            )
        self._give_soda(w)

    def _share(self) -> float:
        """The smallest change that brings every poison within its limit until tomorrow, or as near as is safe."""
        most = largest_change(self.water, self.tap, LARGEST_CHANGE, self.bounds)
        if most < LEAST_SHARE or self.excess(self.water.changed(self.tap, most)) >= self.excess(self.water):
            return 0.0
        low, high = 0.0, most
        if self.excess(self.water.changed(self.tap, most)) <= 1.0:
            for _ in range(14):
                middle = (low + high) / 2
                low, high = (
                    (low, middle) if self.excess(self.water.changed(self.tap, middle)) <= 1.0 else (middle, high)
                )
        return max(high, min(WORTH_A_BUCKET, most))

    def _give_soda(self, w: Working) -> None:
        """Baking soda after the changes, in portions; none where the animals want softer water or KH is a guess."""
        if not self.q.kh_known:
            return
        target = soda_target_dkh(self.water.carbonate.kh_dkh(), self.bounds.co2_mmol, self.q)
        for n in range(MOST_SODA):
            if self.changes or n:
                self.wait(self.hour + APART_H)
            missing = target - self.water.carbonate.kh_dkh()
            if missing < LEAST_SODA_DKH or self.hour > DAY_H - APART_H:
                break
            raise_dkh = largest_soda_dkh(self.water, missing, self.bounds)
            if raise_dkh < LEAST_SODA_DKH:
                break
            before, self.water = self.water, self.water.with_soda(raise_dkh)
            self.soda.append((self.hour, raise_dkh, before, self.water))
            w.line(
                f"soda {n + 1}",
                "ΔKH × litres × 0.03",
                f"{raise_dkh:.2f} × {self.q.net_l:.1f} × 0.03",
                soda_g(raise_dkh, self.q.net_l),
                "g",
                "masses",
            )

    def stays_soft(self) -> bool:
        """Whether KH stays low because the animals tolerate no higher pH."""
        kh = self.water.carbonate.kh_dkh()
        if kh >= held_kh_dkh(self.q.salinity_g_kg)[0] or self.q.animals_ph_high is None:
            return False
        return soda_target_dkh(kh, self.bounds.co2_mmol, self.q) - kh < LEAST_SODA_DKH

    def holds(self) -> bool:
        """Whether ammonia and nitrite stay within their limits until tomorrow."""
        then = self.tomorrow()
        return then.reach() <= 1.001 and self.water.nitrite <= nitrite_limit_mg_n_l(self.q.salinity_g_kg) * 1.001


def soda_target_dkh(kh_dkh: float, co2_mmol: float, q: EmergencyPlanQuestion) -> float:
    """Target KH with baking soda, dKH; the present KH where none is wanted.

    kh_dkh: now; co2_mmol: this tank keeps, mmol/L; q: what the animals like. Source: common practice, carbonate
    equilibrium.
    """
    least, target = held_kh_dkh(q.salinity_g_kg)
    if kh_dkh >= least:
        return kh_dkh
    if q.animals_ph_high is None or _settled_ph(target, co2_mmol, q) <= q.animals_ph_high:
        return target
    low, high = kh_dkh, target
    for _ in range(20):
        middle = (low + high) / 2
        low, high = (middle, high) if _settled_ph(middle, co2_mmol, q) <= q.animals_ph_high else (low, middle)
    return low


def _settled_ph(kh_dkh: float, co2_mmol: float, q: EmergencyPlanQuestion) -> float:
    start = Carbonate.of(7.0, kh_dkh, q.temperature_c, q.salinity_g_kg)
    return start.breathing(co2_mmol, 1000.0).ph()
