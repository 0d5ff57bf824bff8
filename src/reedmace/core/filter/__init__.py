"""Kinds, the catalogue, sizing schools, running cost and the ranking."""

from reedmace.core.filter.catalogue import CATALOGUE, Filter, FilterKind
from reedmace.core.filter.cost import RunningCostAnswer, RunningCostQuestion, running_cost
from reedmace.core.filter.ranking import RankFiltersAnswer, RankFiltersQuestion, deliver, rank_filters
from reedmace.core.filter.schools import FlowRequirementAnswer, FlowRequirementQuestion, flow_requirement

__all__ = [
    "CATALOGUE",
    "Filter",
    "FilterKind",
    "FlowRequirementAnswer",
    "FlowRequirementQuestion",
    "RankFiltersAnswer",
    "RankFiltersQuestion",
    "RunningCostAnswer",
    "RunningCostQuestion",
    "deliver",
    "flow_requirement",
    "rank_filters",
    "running_cost",
]
