"""Records of a practice tank: what is done to it, how it is set up, and what becomes of it."""

from dataclasses import dataclass, field, replace
from typing import Any, Literal, NamedTuple

from reedmace.standins.practice_animals import Group

HOUR = 60.0
"""Minutes; a tank is looked at every hour."""

What = Literal[
    "dose", "nitrite", "soda", "change", "untreated-change", "film-loss", "film-gain", "animals", "feed", "heater",
    "run", "plants", "food", "tap-ammonia", "air-stone", "clean",
]  # fmt: skip


@dataclass(frozen=True)
class Act:
    """Something done to a tank, or that happens to it.

    minute: since the start; amount: mg N/L for a dose, dKH for soda, share for changes, losses and the filter, mg N/(L
    day) for film, plants and food, a count for animals, °C for the heater, the share of the media's
    dirt that is cleaned out; name: the species of animals.
    """

    minute: float
    what: What
    amount: float
    name: str = ""


@dataclass(frozen=True)
class Setup:
    """A tank before anything is done: litres, water, tap, warmth, and bacteria already on it."""

    net_l: float
    kh_dkh: float = 5.0
    ph: float = 7.5
    nitrate_mg_n_l: float = 1.0
    tap_ammonia_mg_n_l: float = 0.0
    warmth_c: float = 25.0
    salt: bool = False
    filter_runs: bool = True
    airless: float = 0.5
    """Share of its film that lies in water without oxygen while the filter stands still (memory)."""
    clogs_days: float = 0.0
    """Days of whole rations until dirt halves the filter's flow; 0 where it is never dirty enough to count."""


class Sample(NamedTuple):
    """A tank at one hour: mg N/L, dKH, pH, mg/L, °C, mg N/(L day), animals alive, the worst harm among them, flow."""

    minute: float
    tan: float
    no2: float
    no3: float
    free: float
    kh_dkh: float
    ph: float
    oxygen: float
    warmth_c: float
    clears: float
    clears_nitrite: float
    alive: int
    harm: float
    flow: float = 1.0
    """Of the clean filter's, as a share."""


@dataclass(frozen=True)
class Death:
    """Animals that died. cause: what harmed them most."""

    minute: float
    species_id: str
    count: int
    cause: str


@dataclass
class Run:
    """What became of a tank: a sample an hour and at the end, deaths, when distress began, and how it stands."""

    samples: list[Sample] = field(default_factory=list)
    deaths: list[Death] = field(default_factory=list)
    distress: list[tuple[float, str]] = field(default_factory=list)
    """Minute at which distress began to show, and its cause."""
    state: Any = None
    groups: list[Group] = field(default_factory=list)
    added_n: float = 0.0
    """Nitrogen brought in less nitrogen taken out so far, mg N/L, for the balance."""
    added_alkalinity: float = 0.0
    """The same for alkalinity, mg CaCO3/L."""
    changes: list[tuple[float, float]] = field(default_factory=list)
    """Water changed: (minute, litres)."""

    def copied(self) -> "Run":
        """The same, to run on from."""
        return replace(
            self, samples=list(self.samples), deaths=list(self.deaths), distress=list(self.distress),
            state=self.state.copy(), groups=[replace(g) for g in self.groups], changes=list(self.changes),
        )  # fmt: skip

    def lost_by(self, minute: float) -> int:
        """Animals that died up to a minute. minute: since the start."""
        return sum(d.count for d in self.deaths if d.minute <= minute)

    def changed_l(self, minute: float) -> float:
        """Litres of water changed up to a minute. minute: since the start."""
        return sum(litres for at, litres in self.changes if at <= minute)

    @property
    def lost(self) -> int:
        """Animals that died."""
        return sum(d.count for d in self.deaths)

    def at(self, minute: float) -> Sample:
        """The last sample up to a minute. minute: since the start."""
        last = self.samples[-1]
        return last if minute >= last.minute else self.samples[int(minute // HOUR)]
