"""How a kind of filter is cleaned, and which of its parts wear out."""

from dataclasses import dataclass

from reedmace.core.filter.kind_parts.steps import Step


@dataclass(frozen=True)
class Worn:
    """A part that wears: its name, usual life in days (memory), and the sign of its end."""

    part: str
    days: float
    shows: str


@dataclass(frozen=True)
class Care:
    """Cleaning of a kind: steps in order, the share of film one cleaning touches, minutes (memory)."""

    title: str
    share: float
    """Largest share of its own film touched at one time (common practice)."""
    minutes: float
    steps: tuple[Step, ...]
    worn: tuple[Worn, ...] = ()
    holds_film: bool = True
    """Whether the part cleaned carries the film, so that it rests a fortnight until the next."""


def care_steps(prefix: str, *steps: tuple[str, str, str] | tuple[str, str, str, str]) -> tuple[Step, ...]:
    """Cleaning steps, each locked until the one before is done.

    prefix: of their ids; steps: (id, title, detail) or with a caution as the fourth.
    """
    found: list[Step] = []
    for one in steps:
        found.append(
            Step(
                id=f"{prefix}-care-{one[0]}",
                title=one[1],
                detail=one[2],
                caution=one[3] if len(one) > 3 else None,
                after=[found[-1].id] if found else [],
            )
        )
    return tuple(found)
