"""The log of a cycling tank as the computations take it: days since the start, mg N/L, dKH."""

from typing import Annotated, Literal

from pydantic import Field

from reedmace.core.chemistry import ALKALINITY_PER_N, BASE_PER_N, AmmoniaProduct
from reedmace.core.chemistry.ammonia_dose import PowderProduct, base_per_n
from reedmace.core.contract import PH, Celsius, MgNPerL, NetLitres, Part, Share, number
from reedmace.core.errors import CannotAnswer
from reedmace.core.film import FOOD_MG_N_PER_G, SeedDonor
from reedmace.core.memo import Memoizing, memoize
from reedmace.core.quantity.units import NITROGEN_SHARE, Analyte, Basis, ppm_words
from reedmace.core.stock import Animals, Species
from reedmace.core.water_parameters import WaterFigures

Day = Annotated[float, number("days", 0, 400, "Since the cycle was started")]
Off = Literal["ammonia", "nitrite", "nitrate"]
Method = Literal[
    "measured-ammonia", "seeded-filter", "planted", "fish-food", "side-by-side", "mature-rock", "animals-in"
]
Helper = Literal["seed-media", "bottled-culture", "plants"]
TRANSFERRED: tuple[Method, ...] = ("seeded-filter", "side-by-side")
"""Methods in which a running filter brings its film (common practice)."""
DOSED: tuple[Method, ...] = ("measured-ammonia", "seeded-filter", "side-by-side", "mature-rock")
"""Methods that feed the bacteria with dosed ammonia and are proved by doses (common practice)."""
Chlorine = Literal["none", "chlorine", "chloramine", "unknown"]
Plants = Literal["none", "some", "many"]
MediaWhat = Literal["seed-added", "rinsed-tank-water", "rinsed-tap", "replaced", "dried", "new-filter", "taken-off"]

CHLORAMINE_MG_N_L, UNASKED_TAP_MG_N_L = 0.6, 0.2
"""Ammonia freed by treating tap water with chloramine, and what an unknown tap may bring, mg N/L.

From memory: 3 mg/L of chloramine as Cl2 hold a fifth of it as N; taps in the United States hold 0.2 to 0.8 mg N/L.
"""
COARSEST_ZERO_PPM = 0.125
"""Largest zero of any kit: half of a usual first step, 0.25 ppm as the ion (common practice)."""
BASELINE_DAYS = 2.0
"""Days after the start within which a test still shows the initial water (memory)."""
SETTLED_DAYS = 42
HIGH_AMMONIA_MG_N_L = 5 * NITROGEN_SHARE["NH4"]
HIGH_NITRITE_MG_N_L = 5 * NITROGEN_SHARE["NO2"]
"""Nitrite above which keepers stop dosing, about 5 ppm (common practice)."""


class LoggedBetween(Part):
    """What a vial may be, where it stood between steps or the picture was in doubt."""

    what: Off
    low_mg_n_l: MgNPerL
    high_mg_n_l: MgNPerL


class LoggedReading(WaterFigures):
    """One test. What was not measured is null. `off_scale` names tests that read "this or more"."""

    day: Day
    ammonia_mg_n_l: MgNPerL | None = None
    nitrite_mg_n_l: MgNPerL | None = None
    nitrate_mg_n_l: MgNPerL | None = None
    off_scale: Annotated[list[Off], Field(max_length=3)] = Field(default_factory=list)
    between: Annotated[list[LoggedBetween], Field(max_length=3)] = Field(default_factory=list)
    other_kit: bool = Field(default=False, description="Read with another kit than the tests before it")

    def at_most_mg_n_l(self, what: Off) -> float | None:
        """Upper end of what was read, mg N/L: the value itself without a range, None where untested. what: which."""
        value: float | None = getattr(self, f"{what}_mg_n_l")
        return None if value is None else max([value, *(b.high_mg_n_l for b in self.between if b.what == what)])


class LoggedDose(Part):
    """Ammonia added."""

    day: Day
    raise_mg_n_l: MgNPerL


class LoggedChange(Part):
    """Water changed."""

    day: Day
    share: Share
    treated: bool = True
    conditioned: bool = Field(default=False, description="Conditioner went to the whole tank after it")


class LoggedAlkalinity(Part):
    """Bicarbonate added."""

    day: Day
    raise_dkh: Annotated[float, number("dKH", 0, 40)]


class LoggedOutage(Part):
    """A filter stopped. Hours of a stop still going on count up to now."""

    day: Day
    hours: Annotated[float, number("h", 0, 10000)]
    share: Share = Field(default=1, description="Of all film, what stood still with it")
    closed: bool | None = Field(default=None, description="Whether its body is closed; null for the log's filter")


class LoggedMedia(Part):
    """Media added, cleaned, changed or left to dry.

    `share` is of all bacteria; of a mature filter's when seed is added.
    """

    day: Day
    what: MediaWhat
    share: Share = 0.5


class BottleWindow(Part):
    """Conditions a bottled culture works in, by its label.

    Usual values until the label is read, and whether it is in date.
    """

    low_c: Annotated[float, number("°C", 0, 40)] = 25
    high_c: Annotated[float, number("°C", 0, 40)] = 30
    ph_low: PH = 7.3
    ph_high: PH = 8.0
    in_date: bool = True


class TapWater(Part):
    """What the tap water contains."""

    ammonia_mg_n_l: Annotated[float, number("mg N/L", 0, 20)] = 0
    nitrite_mg_n_l: Annotated[float, number("mg N/L", 0, 20)] = 0
    nitrate_mg_n_l: Annotated[float, number("mg N/L", 0, 100)] = 0
    kh_dkh: Annotated[float, number("dKH", 0, 40, "Null for the same as at the start")] | None = None
    ph: PH | None = None
    chlorine: Chlorine = "unknown"
    cold_c: Annotated[float, number("°C", 0, 40)] = 12
    hot_c: Annotated[float, number("°C", 20, 90)] = 55

    def released_mg_n_l(self) -> float:
        """Ammonia that a treated change brings, mg N/L: as tested, and what chloramine holds and treating frees."""
        return max(self.ammonia_mg_n_l, CHLORAMINE_MG_N_L if self.chlorine == "chloramine" else 0.0)

    def cautious_mg_n_l(self) -> float:
        """The same where animals depend on it, mg N/L: a tap nobody asked about may hold chloramine too."""
        untested = self.chlorine == "unknown" and not self.ammonia_mg_n_l
        return UNASKED_TAP_MG_N_L if untested else self.released_mg_n_l()


class KitSteps(Memoizing):
    """The steps printed on the keeper's own kit, in ppm on `basis`, and its expiry date."""

    basis: Basis = "ion"
    ammonia_ppm: Annotated[list[Annotated[float, number("ppm", 0, 100)]], Field(min_length=2, max_length=14)] = Field(
        default_factory=lambda: [0, 0.25, 0.5, 1, 2, 4, 8]
    )
    nitrite_ppm: Annotated[list[Annotated[float, number("ppm", 0, 100)]], Field(min_length=2, max_length=14)] = Field(
        default_factory=lambda: [0, 0.25, 0.5, 1, 2, 5]
    )
    nitrate_ppm: Annotated[list[Annotated[float, number("ppm", 0, 1000)]], Field(min_length=2, max_length=14)] = Field(
        default_factory=lambda: [0.0, 5.0, 10.0, 20.0, 40.0, 80.0, 160.0]
    )
    kh_step_dkh: Annotated[float, number("dKH", 0.05, 5, "One drop of the titration")] = 1
    expired: bool = False

    def steps_mg_n_l(self, what: Literal["ammonia", "nitrite", "nitrate"]) -> list[float]:
        """The steps of one test in mg N/L, rising.

        what: which test. Raises CannotAnswer for steps that are not distinct.
        """
        ion = {"ammonia": "NH4", "nitrite": "NO2", "nitrate": "NO3"}[what]
        share = 1.0 if self.basis == "N" else NITROGEN_SHARE[ion]
        steps: list[float] = {"ammonia": self.ammonia_ppm, "nitrite": self.nitrite_ppm, "nitrate": self.nitrate_ppm}[
            what
        ]
        if len(set(steps)) < 2:
            raise CannotAnswer(
                f"kit.{what}_ppm",
                "has fewer than two different steps.",
                "Type them as printed, such as 0, 0.25, 0.5, 1.",
            )
        return sorted(step * share for step in set(steps))

    def check(self) -> None:
        """Raise CannotAnswer for a kit whose steps are not distinct."""
        for what in ("ammonia", "nitrite", "nitrate"):
            self.steps_mg_n_l(what)

    @memoize
    def zero_mg_n_l(self, what: Literal["ammonia", "nitrite"]) -> float:
        """Upper bound of this kit's zero, mg N/L: half its first step, capped at a usual kit's.

        what: which test.
        """
        first = next((step for step in self.steps_mg_n_l(what) if step > 0), 0.0)
        most = COARSEST_ZERO_PPM * NITROGEN_SHARE["NH4" if what == "ammonia" else "NO2"]
        return min(first / 2, most) * 1.001 if first else most


class CycleLog(Memoizing):
    """A cycling tank: its water, its plan and everything logged so far."""

    net_l: NetLitres
    litres_known: bool = Field(default=True, description="Whether the tank was measured")
    day_now: Day
    method: Method = "measured-ammonia"
    helpers: Annotated[list[Helper], Field(max_length=3)] = Field(default_factory=list)
    temperature_c: Celsius = 26
    temperature_known: bool = Field(default=True, description="False where it is only what is usual")
    salinity_g_kg: Annotated[float, number("g/kg", 0, 45)] = 0
    start_kh_dkh: Annotated[float, number("dKH", 0, 40)] = 4
    start_ph: PH = 7.4
    tap: TapWater = Field(default_factory=TapWater)
    planned_load_mg_n_l_day: Annotated[float, number("mg N/(L day)", 0, 1000)] = 0.3
    animals: Annotated[list[Animals], Field(max_length=60)] = Field(default_factory=list)
    own_species: Annotated[list[Species], Field(max_length=40)] = Field(default_factory=list)
    present: Annotated[list[Animals], Field(max_length=60)] = Field(
        default_factory=list, description="Of the animals, those put in already"
    )
    stocked_day: Day | None = Field(default=None, description="Day on which animals were last put in")
    animals_in_mg_n_l_day: Annotated[
        float, number("mg N/(L day)", 0, 1000, "Made by the animals that are in already")
    ] = 0
    food_g_day: Annotated[float, number("g/day", 0, 100, "Dry food fed to the empty tank")] = 0
    plan_target_ppm: Annotated[float, number("ppm", 0.1, 8, "What the measured-ammonia doses aim at, as the ion")] = 2
    product: AmmoniaProduct = Field(default_factory=lambda: PowderProduct(form="ammonium-chloride"))
    seed_share: Annotated[
        float, number("share", 0, 1, "Of a mature filter's film that is brought in at the start, alive")
    ] = 1
    rock_kg: Annotated[float, number("kg", 0.01, 2000, "Mature rock put in, weighed wet")] | None = None
    donor: SeedDonor | None = Field(default=None, description="Of the film brought in, where it is known")
    bottle: BottleWindow = Field(default_factory=BottleWindow)
    plants: Plants = "none"
    co2_given: bool = Field(default=False, description="CO2 is bubbled in for the plants")
    plants_growing_day: Day | None = Field(default=None, description="Day on which new growth was first seen")
    filter_running: bool = True
    filter_closed: bool = Field(default=False, description="A canister: airless within hours when it stands")
    skimmer_running: bool = False
    kit: KitSteps = Field(default_factory=KitSteps)
    readings: Annotated[list[LoggedReading], Field(max_length=400)] = Field(default_factory=list)
    doses: Annotated[list[LoggedDose], Field(max_length=400)] = Field(default_factory=list)
    changes: Annotated[list[LoggedChange], Field(max_length=400)] = Field(default_factory=list)
    alkalinity: Annotated[list[LoggedAlkalinity], Field(max_length=400)] = Field(default_factory=list)
    outages: Annotated[list[LoggedOutage], Field(max_length=100)] = Field(default_factory=list)
    media: Annotated[list[LoggedMedia], Field(max_length=100)] = Field(default_factory=list)

    def challenge_mg_n_l(self) -> float:
        """The load-matched dose, mg N/L: 1.2 times a day's planned load, at least 0.5, at most the limit of 5 ppm."""
        return min(max(1.2 * self.planned_load_mg_n_l_day, 0.5), HIGH_AMMONIA_MG_N_L)

    def ppm(self, value_mg_n_l: float, what: Analyte = "ammonia") -> str:
        """A figure as the keeper's own kit reads it, "2 ppm". value_mg_n_l: mg N/L; what: which test."""
        return ppm_words(value_mg_n_l, what, self.kit.basis)

    def doses_ammonia(self) -> bool:
        """Whether the method feeds the bacteria with dosed ammonia and proves them by doses."""
        return self.method in DOSED

    def food_mg_n_l_day(self) -> float:
        """Ammonia from food given to the empty tank once it has rotted, mg N/L/day; 0 with any other method."""
        if self.method != "fish-food":
            return 0.0
        return self.food_g_day * FOOD_MG_N_PER_G / self.net_l

    def alkalinity_eaten_per_n(self) -> float:
        """mg CaCO3 used for each mg N from source to nitrate: less where the nitrogen comes as a base."""
        brought = base_per_n(self.product) if self.doses_ammonia() else BASE_PER_N
        return ALKALINITY_PER_N - brought

    def animals_are_in(self) -> bool:
        """Whether animals live in the tank already, so that nothing may be dosed."""
        return self.method == "animals-in" or self.animals_in_mg_n_l_day > 0

    def settled(self) -> bool:
        """Whether the last animals were added long enough ago for weekly care: six weeks (common practice)."""
        return self.stocked_day is not None and self.day_now - self.stocked_day > SETTLED_DAYS

    def tap_kh_dkh(self) -> float:
        """KH of the tap, dKH; that of the start where unknown."""
        return self.start_kh_dkh if self.tap.kh_dkh is None else self.tap.kh_dkh

    @memoize
    def first_nitrate_mg_n_l(self) -> float:
        """Initial nitrate, mg N/L: from the baseline test, or the tap's where none was made in the first days."""
        early = [r for r in self.readings if r.nitrate_mg_n_l is not None and r.day <= BASELINE_DAYS]
        first = min(early, key=lambda r: r.day, default=None)
        return self.tap.nitrate_mg_n_l if first is None or first.nitrate_mg_n_l is None else first.nitrate_mg_n_l

    @memoize
    def latest(self, field: str) -> tuple[float, float] | None:
        """(day, value) of the newest reading that has `field`, or None. field: a column of LoggedReading."""
        found = [(r.day, getattr(r, field)) for r in self.readings if getattr(r, field) is not None]
        return max(found, default=None)

    def temperature_now_c(self) -> float:
        """The newest temperature read, otherwise the planned one, °C."""
        found = self.latest("temperature_c")
        return found[1] if found else self.temperature_c

    def warmth_measured(self) -> bool:
        """Whether the temperature was read or chosen, not only assumed."""
        return self.temperature_known or self.latest("temperature_c") is not None

    def as_of(self, day: float) -> "CycleLog":
        """The log as it stood on an earlier day. day: days since the start."""
        until = {
            name: [one for one in getattr(self, name) if one.day <= day]
            for name in ("readings", "doses", "changes", "alkalinity", "outages", "media")
        }
        growing = self.plants_growing_day
        return self.model_copy(
            update={
                "day_now": day,
                "filter_running": True,
                "plants_growing_day": growing if growing is not None and growing <= day else None,
                **until,
            }
        )
