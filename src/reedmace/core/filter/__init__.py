"""Filters: kinds, typical boxes, sizing rules, media, labels, running cost and the ranking."""

from reedmace.core.filter.choice.candidates import RankFiltersAnswer, RankFiltersQuestion
from reedmace.core.filter.choice.fish_room_year import RoomYearAnswer, RoomYearQuestion, room_year
from reedmace.core.filter.choice.kind_map import TypeAndSizeAnswer
from reedmace.core.filter.choice.ranking import rank_filters
from reedmace.core.filter.choice.type_and_size import type_and_size
from reedmace.core.filter.filter_box import Filter
from reedmace.core.filter.filter_flow import FilterFlowAnswer, FilterFlowQuestion, filter_flow
from reedmace.core.filter.filter_table import table_of
from reedmace.core.filter.kind_parts.traits import KindName
from reedmace.core.filter.label_check import LabelCheckAnswer, LabelCheckQuestion, label_check
from reedmace.core.filter.media.basket import Basket
from reedmace.core.filter.media.stack import MediaStackAnswer, MediaStackQuestion, media_stack
from reedmace.core.filter.read_label import ReadLabelAnswer, ReadLabelQuestion, read_label
from reedmace.core.filter.running_cost import RunningCostAnswer, RunningCostQuestion, running_cost
from reedmace.core.filter.site.noise import NoiseHeardAnswer, NoiseHeardQuestion, NoiseSource, noise_heard
from reedmace.core.filter.sizing_demand import FlowRequirementQuestion
from reedmace.core.filter.sizing_rules import FlowRequirementAnswer, flow_requirement, flow_requirement_here
from reedmace.core.filter.water_path import deliver

__all__ = [
    "Basket",
    "Filter",
    "FilterFlowAnswer",
    "FilterFlowQuestion",
    "FlowRequirementAnswer",
    "FlowRequirementQuestion",
    "KindName",
    "LabelCheckAnswer",
    "LabelCheckQuestion",
    "MediaStackAnswer",
    "MediaStackQuestion",
    "NoiseHeardAnswer",
    "NoiseHeardQuestion",
    "NoiseSource",
    "RankFiltersAnswer",
    "RankFiltersQuestion",
    "ReadLabelAnswer",
    "ReadLabelQuestion",
    "RoomYearAnswer",
    "RoomYearQuestion",
    "RunningCostAnswer",
    "RunningCostQuestion",
    "TypeAndSizeAnswer",
    "deliver",
    "filter_flow",
    "flow_requirement",
    "flow_requirement_here",
    "label_check",
    "media_stack",
    "noise_heard",
    "rank_filters",
    "read_label",
    "room_year",
    "running_cost",
    "table_of",
    "type_and_size",
]
