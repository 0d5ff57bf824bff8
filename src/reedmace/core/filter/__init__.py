"""Kinds, the catalogue, sizing schools, media, labels, running cost and the ranking."""

from reedmace.core.filter.basket import Basket
from reedmace.core.filter.candidates import RankFiltersAnswer, RankFiltersQuestion
from reedmace.core.filter.catalogue import CATALOGUE, Filter
from reedmace.core.filter.cost import RunningCostAnswer, RunningCostQuestion, running_cost
from reedmace.core.filter.flow import FilterFlowAnswer, FilterFlowQuestion, filter_flow
from reedmace.core.filter.kinds import FilterKind
from reedmace.core.filter.label import LabelCheckAnswer, LabelCheckQuestion, label_check
from reedmace.core.filter.media import MediaStackAnswer, MediaStackQuestion, media_stack
from reedmace.core.filter.noise import NoiseHeardAnswer, NoiseHeardQuestion, NoiseSource, noise_heard
from reedmace.core.filter.ranking import rank_filters
from reedmace.core.filter.room_year import RoomYearAnswer, RoomYearQuestion, room_year
from reedmace.core.filter.sizing_rules import (
    FlowRequirementAnswer,
    FlowRequirementQuestion,
    asked_here,
    flow_requirement,
)
from reedmace.core.filter.table import table_of
from reedmace.core.filter.water_path import deliver

__all__ = [
    "CATALOGUE",
    "Basket",
    "Filter",
    "FilterFlowAnswer",
    "FilterFlowQuestion",
    "FilterKind",
    "FlowRequirementAnswer",
    "FlowRequirementQuestion",
    "LabelCheckAnswer",
    "LabelCheckQuestion",
    "MediaStackAnswer",
    "MediaStackQuestion",
    "NoiseHeardAnswer",
    "NoiseHeardQuestion",
    "NoiseSource",
    "RankFiltersAnswer",
    "RankFiltersQuestion",
    "RoomYearAnswer",
    "RoomYearQuestion",
    "RunningCostAnswer",
    "RunningCostQuestion",
    "asked_here",
    "deliver",
    "filter_flow",
    "flow_requirement",
    "label_check",
    "media_stack",
    "noise_heard",
    "rank_filters",
    "room_year",
    "running_cost",
    "table_of",
]
