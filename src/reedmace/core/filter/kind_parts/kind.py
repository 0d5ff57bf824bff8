"""The record of a filter kind: holds every rule that differs by kind, so that no other module names one."""

from collections.abc import Callable
from dataclasses import dataclass, field

from reedmace.core.contract import Working
from reedmace.core.filter.filter_box import Filter
from reedmace.core.filter.filter_table import FilterTable
from reedmace.core.filter.kind_parts.fitting import MishapDraft, Purchase
from reedmace.core.filter.kind_parts.limit import Bools, Limit
from reedmace.core.filter.kind_parts.placement import PartMark, PartRole, PlacedIssue, ResolvedLayout, RunDraft
from reedmace.core.filter.kind_parts.steps import Step, StepFacts
from reedmace.core.filter.kind_parts.traits import KindTraits
from reedmace.core.filter.site.site import Site


def _none(*_: object) -> list[str]:
    return []


@dataclass(frozen=True, kw_only=True)
class FilterKind(KindTraits):
    """One kind of filter: its traits, and the rules that judge a box or a placement of this kind."""

    inspections: dict[str, tuple[tuple[str, str, str, PartRole], ...]]
    """Inspections before power: points found on the drawing and confirmed."""
    loop_words: Callable[[float, float], str]
    """Effect of height on the flow in words, from the rise (m) and the outlet's height above the water (cm)."""
    limits: Callable[[FilterTable, Bools, Site], list[Limit]]
    """The kind's own hard limits. table: all filters; mine: which are of this kind; site: the site."""
    steps: Callable[[StepFacts, Working], list[Step]]
    marks: Callable[[ResolvedLayout], list[PartMark]]
    runs: Callable[[ResolvedLayout], list[RunDraft]]
    faults: Callable[[ResolvedLayout], list[PlacedIssue]]
    fittings: Callable[[ResolvedLayout], list[Purchase]]
    """Items the plan needs besides hoses and lines, each once."""
    mishaps: Callable[[ResolvedLayout], list[MishapDraft]]
    caveats: Callable[[Filter, Site], list[str]] = field(default=_none)
