"""The plans of a tank; each holds until a newer one is written."""

from datetime import date
from typing import Annotated, Literal

from pydantic import Field, model_validator

from reedmace.core.chemistry import AmmoniaProduct
from reedmace.core.chemistry.ammonia_dose import PowderProduct
from reedmace.core.contract import PH, Celsius, Part, Share, number, whole
from reedmace.core.cycle.record.log import BottleWindow, Helper, KitSteps, Method, Plants, TapWater
from reedmace.core.film import SeedDonor
from reedmace.core.filter import Basket, Filter
from reedmace.core.filter.site.site import Co2, Plumbing, Priorities, RoomKind
from reedmace.core.fit import Layout
from reedmace.core.quantity.units import Basis
from reedmace.core.stock import Animals, Species
from reedmace.core.stock.species import Water
from reedmace.core.tank import StandsIn, Sump, TankVolumeQuestion
from reedmace.logbook.times import OurTime
from reedmace.logbook.upcast import upcast


class Surroundings(Part):
    """Surroundings of a tank."""

    behind_cm: Annotated[float, number("cm", 0, 300, "Back glass to wall")] = 10
    stand_height_cm: Annotated[float, number("cm", 0, 200)] = 70
    cabinet_cm: Annotated[float, number("cm", 0, 200, "Free height inside the stand; left out, all of it")] | None = (
        None
    )
    canister_at_cm: Annotated[float, number("cm", 0, 200, "Foot of a canister above the floor")] = 0
    sockets: Annotated[int, whole(0, 40)] = 2
    room: RoomKind = "living"
    water: Water = "fresh"
    temperature_c: Celsius | None = None
    room_c: Annotated[Celsius | None, Field(description="The room's air in the cold season")] = None
    ph: PH | None = None
    lid: bool = False
    cabinet_shut: bool = False
    planted: bool = False
    co2: Co2 = "none"
    surface_film: bool = False
    drilled: bool = False
    overflow_box: bool = False
    often_away: bool = False
    tanks_here_count: Annotated[int, whole(1, 200)] = 1
    change_weekday: Annotated[int, whole(0, 6, "The day on which water is changed, 0 for Monday")] | None = None
    sump: Sump | None = Field(default=None, description="As measured; its water counts with the tank's")

    @property
    def beneath_cm(self) -> float:
        """Free height under the tank, cm: of its cabinet, or else of its stand."""
        return self.stand_height_cm if self.cabinet_cm is None else self.cabinet_cm


class TankPlan(Part):
    """The tank as measured."""

    kind: Literal["tank-plan"]
    tank: TankVolumeQuestion
    by_litres: bool = Field(default=False, description="Only its litres are known: the sizes are those of a usual box")
    surroundings: Surroundings = Field(default_factory=Surroundings)


class StockPlan(Part):
    """The animals planned or kept."""

    kind: Literal["stock-plan"]
    animals: Annotated[list[Animals], Field(max_length=60)]
    own_species: Annotated[list[Species], Field(max_length=40)] = Field(default_factory=list)
    feed_g_day: Annotated[float, number("g/day", 0, 5000)] | None = None


FilterKey = Annotated[
    str, Field(min_length=1, max_length=40, pattern=r"^[A-Za-z0-9_-]+$", description="Of one filter on this tank")
]


class FittedFilter(Part):
    """One filter on this tank: its box as of that day, its media, its hoses."""

    key: FilterKey
    filter: Filter
    media: Annotated[list[Basket], Field(max_length=12)] = Field(default_factory=list)
    plumbing: Plumbing = Field(default_factory=Plumbing)
    owned: bool = Field(default=False, description="In hand already, so not to be bought")
    retired: bool = Field(default=False, description="Taken off the tank; its history stays")


class Heater(Part):
    """A heater."""

    watts: Annotated[float, number("W", 1, 5000)]
    stands_in: StandsIn = "tank"


class Skimmer(Part):
    """A foam skimmer at hand."""

    label_l: Annotated[float, number("L", 1, 1e5, "Litres its box says it serves")]


class AirSource(Part):
    """Source of air for air-driven filters.

    A pump of this tank's own, or the room's; by default as the room has tanks.
    """

    source: Literal["own", "room"] | None = None
    pump_l_min: Annotated[float, number("L/min", 0.1, 500)] | None = None
    pump_kpa: Annotated[float, number("kPa", 1, 200)] | None = None
    stones: bool = Field(default=False, description="Air stones in the lift tubes")

    @model_validator(mode="before")
    @classmethod
    def _as_now(cls, data: object) -> object:
        # Stored until now as a yes or no that no screen asked for, so only a yes carries meaning.
        if isinstance(data, dict) and "shared" in data:
            rest = {k: v for k, v in data.items() if k != "shared"}
            return {"source": "room" if data["shared"] else None, **rest}
        return data


class FilterPlan(Part):
    """Equipment of a tank: any number of filters, their air, the heater, and the criteria for choosing more."""

    kind: Literal["filter-plan"]
    version: Literal[2] = 2
    filters: Annotated[list[FittedFilter], Field(max_length=12)] = Field(default_factory=list)
    air: AirSource = Field(default_factory=AirSource)
    heater: Heater | None = None
    skimmer: Skimmer | None = None
    plumbing: Plumbing = Field(default_factory=Plumbing, description="Of filters not chosen yet")
    priorities: Priorities | None = None
    own_filters: Annotated[list[Filter], Field(max_length=200)] = Field(default_factory=list)
    price_per_kwh: Annotated[float, number("money/kWh", 0, 100)] = 0.30

    @model_validator(mode="before")
    @classmethod
    def _as_now(cls, data: object) -> object:
        return upcast(data)

    @model_validator(mode="after")
    def _keys_differ(self) -> "FilterPlan":
        keys = [f.key for f in self.filters]
        if len(set(keys)) < len(keys):
            raise ValueError("two filters share a key; give each its own")
        return self

    @property
    def hanging(self) -> list[FittedFilter]:
        """Those that are on the tank."""
        return [f for f in self.filters if not f.retired]

    def taken_up_again(self, now: "FilterPlan") -> "FilterPlan":
        """This plan as the newest; filters added since are removed but keep their history. now: the current plan."""
        here = {f.key for f in self.filters}
        since = [f.model_copy(update={"retired": True}) for f in now.filters if f.key not in here]
        return self.model_copy(update={"filters": [*self.filters, *since]})


class FitPlan(Part):
    """Where the parts of each filter are put, by its key."""

    kind: Literal["fit-plan"]
    version: Literal[2] = 2
    places: Annotated[dict[FilterKey, Layout], Field(max_length=12)] = Field(default_factory=dict)

    @model_validator(mode="before")
    @classmethod
    def _as_now(cls, data: object) -> object:
        return upcast(data)

    def of(self, key: str) -> Layout:
        """Where the parts of one filter go. key: its key."""
        return self.places.get(key) or Layout()


class CyclePlan(Part):
    """How and since when it is cycled."""

    kind: Literal["cycle-plan"]
    started_at: OurTime
    method: Method = "measured-ammonia"
    target_ppm: Annotated[float, number("ppm", 0.1, 8)] = 2
    product: AmmoniaProduct = Field(default_factory=lambda: PowderProduct(form="ammonium-chloride"))
    temperature_c: Celsius = 26
    start_kh_dkh: Annotated[float, number("dKH", 0, 40)] = 4
    start_ph: PH = 7.4
    basis: Basis = "ion"
    helpers: Annotated[list[Helper], Field(max_length=3)] = Field(default_factory=list)
    salinity_g_kg: Annotated[float, number("g/kg", 0, 45)] = 0
    tap: TapWater = Field(default_factory=TapWater)
    seed_share: Share = 1
    rock_kg: Annotated[float, number("kg", 0.01, 2000, "Mature rock put in, weighed wet")] | None = None
    donor: SeedDonor | None = Field(default=None, description="Of the film brought in, where it is known")
    bottle: BottleWindow = Field(default_factory=BottleWindow)
    plants: Plants = "none"
    food_g_day: Annotated[float, number("g/day", 0, 100, "Dry food fed to the empty tank")] = 0
    ammonia_source: Literal["aquarium-grade", "plain", "household-cleaner", "unknown"] = "aquarium-grade"
    skimmer_running: bool = False


class KitPlan(Part):
    """The steps of the keeper's own test kit, and when it runs out."""

    kind: Literal["kit-plan"]
    kit: KitSteps = Field(default_factory=KitSteps)
    expires_on: date | None = None
