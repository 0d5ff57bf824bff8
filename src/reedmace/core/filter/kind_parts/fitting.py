"""What fitting a filter takes and what can go wrong: purchases, mishaps and power cuts."""

from dataclasses import dataclass
from typing import Literal

from reedmace.core.contract import Part


class PowerCut(Part):
    """Effect of a power cut on this kind of filter."""

    minute: str
    hour: str
    night: str
    on_return: str


@dataclass(frozen=True)
class Purchase:
    """One item needed for fitting. `unit` "cm" is cut to size; whole lengths are bought."""

    item: str
    amount: float
    unit: Literal["piece", "cm"]
    how: str
    need: Literal["needed", "wise", "spare"] = "needed"


@dataclass(frozen=True)
class MishapDraft:
    """A possible mishap: fall of the level (cm), bore it drains through (mm), and litres caught."""

    code: str
    what: str
    depth_cm: float
    why: str
    prevention: str
    bore_mm: float | None = None
    keeps_l: float = 0.0
