"""What acts on a simulated tank at a moment, and where its run may be taken up."""

from dataclasses import dataclass, replace

from reedmace.standins.practice_run import Run

FILM_FLOW = 0.4
"""Share of a clean filter's flow below which its film wants for oxygen (memory)."""


@dataclass
class Now:
    """What acts on a tank at a moment."""

    warmth: float
    heater: float
    run: float
    feed: float = 1.0
    air: float = 0.0
    plants: float = 0.0
    food: float = 0.0
    tap_ammonia: float = 0.0
    dirt: float = 0.0
    """In the media, in the amounts that halve the flow of a clean filter."""

    @property
    def flow(self) -> float:
        """Flow through the filter, as a share of the clean one's."""
        return self.run / (1.0 + self.dirt)


@dataclass
class Checkpoint:
    """A tank at a full hour before anything is done at it. minute: since the start."""

    minute: float
    run: Run
    now: Now

    def copied(self) -> "Checkpoint":
        """The same, to run on from."""
        return Checkpoint(self.minute, self.run.copied(), replace(self.now))
