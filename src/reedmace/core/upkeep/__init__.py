"""Keeping a filter running: how its flow fades, when it wants service, and the care of a tank over the weeks."""

from reedmace.core.upkeep.care import Away, CaredFilter, CarePlanAnswer, CarePlanQuestion, CareTask, care_plan
from reedmace.core.upkeep.fade import FlowFadeAnswer, FlowFadeQuestion, flow_fade
from reedmace.core.upkeep.holiday import HolidayAnswer, HolidayQuestion, holiday_page
from reedmace.core.upkeep.nitrate import NitrateRhythmAnswer, NitrateRhythmQuestion, nitrate_rhythm

__all__ = [
    "Away",
    "CarePlanAnswer",
    "CarePlanQuestion",
    "CareTask",
    "CaredFilter",
    "FlowFadeAnswer",
    "FlowFadeQuestion",
    "HolidayAnswer",
    "HolidayQuestion",
    "NitrateRhythmAnswer",
    "NitrateRhythmQuestion",
    "care_plan",
    "flow_fade",
    "holiday_page",
    "nitrate_rhythm",
]
