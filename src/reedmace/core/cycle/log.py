"""What has been done and read in a cycling tank, as the sums take it: days since the start, mg N/L, dKH."""

from typing import Annotated, Literal

from pydantic import Field

from reedmace.core.chemistry import AmmoniaProduct
from reedmace.core.chemistry.dose import PowderProduct
from reedmace.core.quantity.units import NITROGEN_SHARE
from reedmace.core.working import PH, Celsius, MgNPerL, NetLitres, Part, number

Day = Annotated[float, number("days", 0, 400, "Since the cycle was started")]
Off = Literal["ammonia", "nitrite", "nitrate"]
Method = Literal["measured-ammonia", "seeded-filter"]

ZERO_AMMONIA_MG_N_L = 0.13
ZERO_NITRITE_MG_N_L = 0.05
"""A colour kit's zero: half its first step (0.25 ppm ammonia, 0.25 ppm nitrite, as ions), in mg N/L, rounded up."""
HIGH_AMMONIA_MG_N_L = 5 * NITROGEN_SHARE["NH4"]
HIGH_NITRITE_MG_N_L = 5 * NITROGEN_SHARE["NO2"]
"""Above about 5 ppm keepers stop dosing (common practice)."""


class LoggedReading(Part):
    """One test. What was not measured is null. `off_scale` names tests that read "this or more"."""

    day: Day
    ammonia_mg_n_l: MgNPerL | None = None
    nitrite_mg_n_l: MgNPerL | None = None
    nitrate_mg_n_l: MgNPerL | None = None
    ph: PH | None = None
    kh_dkh: Annotated[float, number("dKH", 0, 40)] | None = None
    temperature_c: Celsius | None = None
    off_scale: Annotated[list[Off], Field(max_length=3)] = Field(default_factory=list)


class LoggedDose(Part):
    """Ammonia added."""

    day: Day
    raise_mg_n_l: MgNPerL


class LoggedChange(Part):
    """Water changed."""

    day: Day
    share: Annotated[float, number("share", 0, 1)]


class LoggedAlkalinity(Part):
    """Bicarbonate added."""

    day: Day
    raise_dkh: Annotated[float, number("dKH", 0, 40)]


class CycleLog(Part):
    """A cycling tank: its water, its plan and everything logged so far."""

    net_l: NetLitres
    day_now: Day
    method: Method = "measured-ammonia"
    temperature_c: Celsius = 26
    start_kh_dkh: Annotated[float, number("dKH", 0, 40)] = 4
    start_ph: PH = 7.4
    planned_load_mg_n_l_day: Annotated[float, number("mg N/(L day)", 0, 1000)] = 0.3
    plan_target_ppm: Annotated[float, number("ppm", 0.1, 8, "What the measured-ammonia doses aim at, as the ion")] = 2
    product: AmmoniaProduct = Field(default_factory=lambda: PowderProduct(form="ammonium-chloride"))
    filter_running: bool = True
    readings: Annotated[list[LoggedReading], Field(max_length=400)] = Field(default_factory=list)
    doses: Annotated[list[LoggedDose], Field(max_length=400)] = Field(default_factory=list)
    changes: Annotated[list[LoggedChange], Field(max_length=400)] = Field(default_factory=list)
    alkalinity: Annotated[list[LoggedAlkalinity], Field(max_length=400)] = Field(default_factory=list)

    def challenge_mg_n_l(self) -> float:
        """The load-matched dose, mg N/L: 1.2 times a day's planned load, at least 0.5."""
        return max(1.2 * self.planned_load_mg_n_l_day, 0.5)

    def latest(self, field: str) -> tuple[float, float] | None:
        """(day, value) of the newest reading that has `field`, or None. field: a column of LoggedReading."""
        found = [(r.day, getattr(r, field)) for r in self.readings if getattr(r, field) is not None]
        return max(found, default=None)
