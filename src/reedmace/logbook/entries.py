"""The kinds of entry. Entries are only ever added; a correction is a new one that supersedes another."""

from datetime import date, datetime
from typing import Annotated, Literal

from pydantic import AwareDatetime, Field, field_validator, model_validator

from reedmace.core.chemistry import AmmoniaProduct
from reedmace.core.chemistry.dose import PowderProduct
from reedmace.core.cycle.log import BottleWindow, Helper, KitSteps, Method, Off, Plants, TapWater
from reedmace.core.filter import Basket, Filter
from reedmace.core.filter.room import Plumbing, Priorities, RoomKind
from reedmace.core.fit import Layout
from reedmace.core.quantity.units import Basis
from reedmace.core.stock import Animals, Species
from reedmace.core.stock.species import Water
from reedmace.core.tank import Sump, TankVolumeQuestion
from reedmace.core.working import PH, Celsius, MgNPerL, Name, Part, Share, number, whole
from reedmace.logbook.upcast import FIRST, upcast

Ppm = Annotated[float, number("ppm", 0, 2000, "As the kit reads it, on `basis`")]
Key = Annotated[
    str,
    Field(
        min_length=8,
        max_length=64,
        pattern=r"^[A-Za-z0-9_-]+$",
        description="Made by the sender; the same key twice is one entry",
    ),
]


class Surroundings(Part):
    """What stands round the tank."""

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
    ph: PH | None = None
    lid: bool = False
    planted: bool = False
    drilled: bool = False
    overflow_box: bool = False
    often_away: bool = False
    tanks_here_count: Annotated[int, whole(1, 200)] = 1
    sump: Sump | None = Field(default=None, description="As measured; its water counts with the tank's")


class TankPlan(Part):
    """The tank as measured."""

    kind: Literal["tank-plan"]
    tank: TankVolumeQuestion
    surroundings: Surroundings = Field(default_factory=Surroundings)


class StockPlan(Part):
    """The animals wanted or kept."""

    kind: Literal["stock-plan"]
    animals: Annotated[list[Animals], Field(max_length=60)]
    own_species: Annotated[list[Species], Field(max_length=40)] = Field(default_factory=list)
    feed_g_day: Annotated[float, number("g/day", 0, 5000)] | None = None


FilterKey = Annotated[
    str, Field(min_length=1, max_length=40, pattern=r"^[A-Za-z0-9_-]+$", description="Of one filter on this tank")
]


class FittedFilter(Part):
    """One filter on this tank: the box as it stood that day, what is in it, its hoses."""

    key: FilterKey
    filter: Filter
    media: Annotated[list[Basket], Field(max_length=12)] = Field(default_factory=list)
    plumbing: Plumbing = Field(default_factory=Plumbing)
    owned: bool = Field(default=False, description="In hand already, so not to be bought")
    retired: bool = Field(default=False, description="Taken off the tank; its history stays")


class Heater(Part):
    """What warms the tank."""

    watts: Annotated[float, number("W", 1, 5000)]
    stands_in: Literal["tank", "sump", "filter"] = "tank"


class AirSource(Part):
    """Where air-driven filters get their air: a pump of their own, or the room's."""

    shared: bool = False
    pump_l_min: Annotated[float, number("L/min", 0.1, 500)] | None = None
    pump_kpa: Annotated[float, number("kPa", 1, 200)] | None = None


class FilterPlan(Part):
    """What hangs on the tank: any number of filters, their air, the heater; and what further ones are chosen by."""

    kind: Literal["filter-plan"]
    version: Literal[2] = 2
    filters: Annotated[list[FittedFilter], Field(max_length=12)] = Field(default_factory=list)
    air: AirSource = Field(default_factory=AirSource)
    heater: Heater | None = None
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
    started_at: AwareDatetime
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


class StepDone(Part):
    """A fitting step ticked, or unticked."""

    kind: Literal["step-done"]
    filter_key: FilterKey = FIRST
    step_id: Name
    done: bool = True
    note: Annotated[str, Field(max_length=500)] = ""


class FlowTest(Part):
    """A timed bucket, with what the sums said that day."""

    kind: Literal["flow-test"]
    filter_key: FilterKey = FIRST
    container_l: Annotated[float, number("L", 0.05, 200)]
    times_s: Annotated[list[Annotated[float, number("s", 0.5, 3600)]], Field(min_length=1, max_length=10)]
    computed_lph: Annotated[float, number("L/h", 0, 1e7)] | None = None


class TimedFlow(Part):
    """A flow found another way than with a bucket."""

    kind: Literal["timed-flow"]
    filter_key: FilterKey = FIRST
    method: Literal["transit", "level-drop", "meter"]
    measured_lph: Annotated[float, number("L/h", 0, 1e6)]
    plus_minus_lph: Annotated[float, number("L/h", 0, 1e6)] | None = None
    computed_lph: Annotated[float, number("L/h", 0, 1e7)] | None = None


class Reading(Part):
    """One test. At least one figure."""

    kind: Literal["reading"]
    basis: Basis = "ion"
    ammonia_ppm: Ppm | None = None
    nitrite_ppm: Ppm | None = None
    nitrate_ppm: Ppm | None = None
    ph: PH | None = None
    kh_dkh: Annotated[float, number("dKH", 0, 40)] | None = None
    temperature_c: Celsius | None = None
    phosphate_ppm: Annotated[float, number("ppm", 0, 100, "As PO4")] | None = None
    off_scale: Annotated[list[Off], Field(max_length=3)] = Field(default_factory=list)


class Dose(Part):
    """Ammonia added: what it raised the water by, and what was poured."""

    kind: Literal["dose"]
    raise_mg_n_l: MgNPerL
    amount: Annotated[float, number("amount_unit", 0, 1e7)] | None = None
    amount_unit: Literal["g", "mL", "drops"] | None = None


class AlkalinityAdded(Part):
    """Bicarbonate added."""

    kind: Literal["alkalinity"]
    raise_dkh: Annotated[float, number("dKH", 0, 40)]
    grams: Annotated[float, number("g", 0, 1e7)] | None = None


class WaterChange(Part):
    """Water changed."""

    kind: Literal["water-change"]
    share: Annotated[float, number("share", 0, 1)]
    treated: bool = Field(default=True, description="For chlorine and chloramine")
    litres: Annotated[float, number("L", 0, 1e6)] | None = None


class Conditioner(Part):
    """Conditioner to the whole tank's litres, after water went in untreated."""

    kind: Literal["conditioner"]


class Outage(Part):
    """The filter stopped, or ran again."""

    kind: Literal["outage"]
    running: bool
    filter_key: FilterKey | None = Field(default=None, description="Which filter; left out, all of them")


class MediaWork(Part):
    """Media cleaned, changed, seeded, or put in from a running filter. `share` is of all the media there are."""

    kind: Literal["media-work"]
    what: Literal["rinsed", "rinsed-tap", "replaced", "dried", "seed-added", "new-filter", "seeding-started", "moved"]
    share: Share = 0.5
    filter_key: FilterKey | None = Field(
        default=None, description="Of which filter's media `share` is; left out, of all there are"
    )
    text: Annotated[str, Field(max_length=500)] = ""


class PlantGrowth(Part):
    """New growth seen on the plants."""

    kind: Literal["plant-growth"]


class SeedSponge(Part):
    """A spare sponge or media bag put in this tank to seed."""

    kind: Literal["seed"]
    name: Name
    disease_note: Literal["none-seen", "treated", "sick-now", "unknown"] = "none-seen"
    media_share: Annotated[float, number("share", 0, 1, "Of the media of the filter it is meant for")] = 0.5
    text: Annotated[str, Field(max_length=500)] = ""


class SeedMove(Part):
    """A seed lifted out, put in where it goes, or put back. `seed_key` is the key of its own entry."""

    kind: Literal["seed-move"]
    seed_key: Key
    phase: Literal["out", "in", "back"]
    travels: Literal["wet-open", "wet-closed", "damp", "dry"] = "wet-open"
    temperature_c: Annotated[float, number("°C", 0, 60)] = 22
    to: Annotated[str, Field(max_length=80)] = ""


class Stocking(Part):
    """Animals put in (positive) or lost (negative)."""

    kind: Literal["stocking"]
    species_id: Name
    count: Annotated[int, whole(-2000, 2000)]


class Note(Part):
    """Anything worth keeping in words."""

    kind: Literal["note"]
    text: Annotated[str, Field(min_length=1, max_length=2000)]


class Withdrawal(Part):
    """Takes back the entry it supersedes (undo)."""

    kind: Literal["withdrawal"]


Body = Annotated[
    TankPlan
    | StockPlan
    | FilterPlan
    | FitPlan
    | CyclePlan
    | KitPlan
    | StepDone
    | FlowTest
    | TimedFlow
    | Reading
    | Dose
    | AlkalinityAdded
    | WaterChange
    | Conditioner
    | Outage
    | MediaWork
    | PlantGrowth
    | SeedSponge
    | SeedMove
    | Stocking
    | Note
    | Withdrawal,
    Field(discriminator="kind"),
]
PLAN_KINDS = ("tank-plan", "stock-plan", "filter-plan", "fit-plan", "cycle-plan", "kit-plan")


class NewEntry(Part):
    """An entry as sent. A plan names the plan it was based on, so that a second tab's save is told."""

    key: Key
    at: AwareDatetime
    body: Body
    supersedes: Annotated[int, whole(1, 2**53)] | None = None
    based_on: (
        Annotated[int, whole(1, 2**53, "Id of the plan entry this one was edited from; null for the first")] | None
    ) = None

    @field_validator("at")
    @classmethod
    def _in_our_time(cls, value: datetime) -> datetime:
        if not 1990 <= value.year <= 2200:
            raise ValueError("the year must lie between 1990 and 2200")
        return value


class Entry(Part):
    """An entry as kept."""

    id: Annotated[int, whole(1, 2**53)]
    key: str
    at: AwareDatetime
    written_at: AwareDatetime
    body: Body
    supersedes: Annotated[int, whole(1, 2**53)] | None = None


__all__ = [
    "PLAN_KINDS",
    "AlkalinityAdded",
    "Body",
    "Conditioner",
    "CyclePlan",
    "Dose",
    "Entry",
    "FilterKey",
    "FilterPlan",
    "FitPlan",
    "FittedFilter",
    "FlowTest",
    "Key",
    "KitPlan",
    "MediaWork",
    "NewEntry",
    "Note",
    "Outage",
    "PlantGrowth",
    "Reading",
    "SeedMove",
    "SeedSponge",
    "StepDone",
    "StockPlan",
    "Stocking",
    "Surroundings",
    "TankPlan",
    "TimedFlow",
    "WaterChange",
    "Withdrawal",
]
