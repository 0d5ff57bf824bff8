"""What fitting a filter takes and what can go wrong: purchases, mishaps and power cuts."""

from dataclasses import dataclass
from typing import Literal

from reedmace.core.contract import Part


class PowerCut(Part):
    """What a power cut does to this kind of filter."""

    minute: str
    hour: str
    night: str
    on_return: str


@dataclass(frozen=True)
class Purchase:
    """One thing a fitting takes. `unit` "cm" is cut to size; whole lengths are bought."""

    item: str
    amount: float
    unit: Literal["piece", "cm"]
    how: str
    need: Literal["needed", "wise", "spare"] = "needed"


@dataclass(frozen=True)
class MishapDraft:
    """One thing that can happen: how far the level falls (cm), through what bore (mm), and how much is caught (L)."""

    code: str
    what: str
    depth_cm: float
    why: str
    prevention: str
    bore_mm: float | None = None
    keeps_l: float = 0.0
