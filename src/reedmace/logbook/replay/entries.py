"""The kinds of logbook entry. Append-only: a correction is a new entry that supersedes another."""

from datetime import datetime
from typing import Annotated, Literal, NamedTuple

from pydantic import AwareDatetime, Field, model_validator

from reedmace.core.contract import MgNPerL, Name, Part, Share, number, whole
from reedmace.core.cycle import Sign
from reedmace.core.cycle.record.log import Off
from reedmace.core.cycle.record.test_line import ReadBetween
from reedmace.core.quantity.units import Basis
from reedmace.core.water_parameters import KitFigures
from reedmace.logbook.plans.plan_kinds import CyclePlan, FilterKey, FilterPlan, FitPlan, KitPlan, StockPlan, TankPlan
from reedmace.logbook.replay.breeding_entries import BroodStep, OnRound
from reedmace.logbook.times import OurTime
from reedmace.logbook.upcast import FIRST

Key = Annotated[
    str,
    Field(
        min_length=8,
        max_length=64,
        pattern=r"^[A-Za-z0-9_-]+$",
        description="Made by the sender; the same key twice is one entry",
    ),
]


class StepDone(Part):
    """A fitting step ticked or unticked."""

    kind: Literal["step-done"]
    filter_key: FilterKey = FIRST
    step_id: Name
    done: bool = True
    note: Annotated[str, Field(max_length=500)] = ""


class FlowTest(Part):
    """A bucket test, with the computed flow of that day."""

    kind: Literal["flow-test"]
    filter_key: FilterKey = FIRST
    container_l: Annotated[float, number("L", 0.05, 200)]
    times_s: Annotated[list[Annotated[float, number("s", 0.5, 3600)]], Field(min_length=1, max_length=10)]
    computed_lph: Annotated[float, number("L/h", 0, 1e7)] | None = None


class TimedFlow(Part):
    """A flow measured by another method than a bucket."""

    kind: Literal["timed-flow"]
    filter_key: FilterKey = FIRST
    method: Literal["transit", "level-drop", "meter"]
    measured_lph: Annotated[float, number("L/h", 0, 1e6)]
    plus_minus_lph: Annotated[float, number("L/h", 0, 1e6)] | None = None
    computed_lph: Annotated[float, number("L/h", 0, 1e7)] | None = None


class Reading(KitFigures):
    """One test with at least one figure."""

    kind: Literal["reading"]
    basis: Basis = "ion"
    off_scale: Annotated[list[Off], Field(max_length=3)] = Field(default_factory=list)
    between: Annotated[list[ReadBetween], Field(max_length=3)] = Field(
        default_factory=list, description="Ranges of figures that stood between steps"
    )
    other_kit: bool = Field(default=False, description="Read with another kit than the tests before it")


class Dose(Part):
    """Ammonia added: the rise it made, and what was poured."""

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
    """A water change."""

    kind: Literal["water-change"]
    share: Annotated[float, number("share", 0, 1)]
    treated: bool = Field(default=True, description="For chlorine and chloramine")
    litres: Annotated[float, number("L", 0, 1e6)] | None = None


class Conditioner(Part):
    """Conditioner for the whole volume, after untreated water was added."""

    kind: Literal["conditioner"]


class Outage(Part):
    """The filter stopped, or ran again."""

    kind: Literal["outage"]
    running: bool
    filter_key: FilterKey | None = Field(default=None, description="Which filter; left out, all of them")


class MediaWork(Part):
    """Media cleaned, changed, seeded, or added from a running filter. `share` is of all media."""

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


class Purchase(Part):
    """Something of the shopping list that was bought, at its price."""

    kind: Literal["purchase"]
    item: Annotated[str, Field(min_length=1, max_length=120)]
    price: Annotated[float, number("money", 0, 1e5)]


class SeedSponge(Part):
    """A spare sponge or media bag added to this tank to seed."""

    kind: Literal["seed"]
    name: Name
    disease_note: Literal["none-seen", "treated", "sick-now", "unknown"] = "none-seen"
    media_share: Annotated[float, number("share", 0, 1, "Of the media of the filter it is meant for")] = 0.5
    text: Annotated[str, Field(max_length=500)] = ""


class SeedMove(Part):
    """A spare sponge taken out, installed, or returned. `seed_key` is the key of its own entry."""

    kind: Literal["seed-move"]
    seed_key: Key
    phase: Literal["out", "in", "back"]
    travels: Literal["wet-open", "wet-closed", "damp", "dry"] = "wet-open"
    temperature_c: Annotated[float, number("°C", 0, 60)] = 22
    to: Annotated[str, Field(max_length=80)] = ""


class Stocking(Part):
    """Animals added (positive) or removed (negative): lost, or moved to another tank or home."""

    kind: Literal["stocking"]
    species_id: Name
    count: Annotated[int, whole(-2000, 2000)]
    moved: bool = Field(default=False, description="From or to another tank or home")


class Quarantine(Part):
    """A quarantine of a number of days from now; 0 ends it."""

    kind: Literal["quarantine"]
    days: Annotated[int, whole(0, 365)]


class CareDone(Part):
    """A small task of the care plan done, a worn part changed, or the plugs checked."""

    kind: Literal["care"]
    what: Literal["guard", "carbon", "part", "plugs", "socks", "top-up", "feed-young"]
    filter_key: FilterKey | None = None
    part: Annotated[str, Field(max_length=80)] = ""


class Ailing(Part):
    """Animals seen unwell, or all well again (no signs)."""

    kind: Literal["ailing"]
    signs: Annotated[list[Sign], Field(max_length=11)] = Field(default_factory=list)
    species_id: Name | None = None
    count: Annotated[int, whole(0, 5000, "That show it")] = 0
    text: Annotated[str, Field(max_length=500)] = ""


class AirSeen(Part):
    """Bubbling of an air-driven filter as observed."""

    kind: Literal["air-seen"]
    bubbles: Literal["steady", "weak", "none"]
    filter_key: FilterKey | None = None


Change = Literal["better", "same", "worse"]


class Review(Part):
    """Verdict on a change, a month later."""

    kind: Literal["review"]
    of: Annotated[str, Field(min_length=1, max_length=80, description="Key of the change")]
    worth: bool
    flow: Change | None = None
    clarity: Change | None = None
    noise: Change | None = None
    text: Annotated[str, Field(max_length=500)] = ""


class AwayTime(Part):
    """An absence of the keeper."""

    kind: Literal["away"]
    from_at: OurTime
    until_at: OurTime

    @model_validator(mode="after")
    def _ends_after_it_begins(self) -> "AwayTime":
        if self.until_at <= self.from_at:
            raise ValueError("the return lies before the departure; give a later day")
        return self


class Note(Part):
    """A note in words."""

    kind: Literal["note"]
    text: Annotated[str, Field(min_length=1, max_length=2000)]


Stands = Literal["empty", "cycling", "animals-in", "running", "filter-in-hand"]


class Situation(Part):
    """State of a tank when it was added, and since when; the newest counts."""

    kind: Literal["situation"]
    stands: Stands
    since: OurTime | None = Field(default=None, description="Of a cycle, of the animals, of a tank that runs")


class Withdrawal(Part):
    """Withdraws the entry it supersedes (undo)."""

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
    | Purchase
    | SeedSponge
    | SeedMove
    | Stocking
    | Quarantine
    | CareDone
    | Ailing
    | AirSeen
    | Review
    | AwayTime
    | OnRound
    | BroodStep
    | Note
    | Situation
    | Withdrawal,
    Field(discriminator="kind"),
]
PLAN_KINDS = ("tank-plan", "stock-plan", "filter-plan", "fit-plan", "cycle-plan", "kit-plan")


class NewEntry(Part):
    """An entry as sent. A plan names the plan it was based on, so that a conflicting save is detected."""

    key: Key
    at: OurTime
    body: Body
    supersedes: Annotated[int, whole(1, 2**53)] | None = None
    based_on: (
        Annotated[int, whole(1, 2**53, "Id of the plan entry this one was edited from; null for the first")] | None
    ) = None


class Entry(Part):
    """An entry as stored."""

    id: Annotated[int, whole(1, 2**53)]
    key: str
    at: AwareDatetime
    written_at: AwareDatetime
    body: Body
    supersedes: Annotated[int, whole(1, 2**53)] | None = None
    who: str | None = Field(default=None, description="Whose hand wrote it, where it was not the keeper's own")


class StoredReading(NamedTuple):
    """An entry of a series that devices write by the thousand, its body as the stored JSON text."""

    id: int
    key: str
    at: datetime
    written_at: datetime
    supersedes: int | None
    body: str
