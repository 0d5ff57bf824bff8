"""Upkeep of a running tank: flow fade, cleaning intervals, and the care plan."""

from reedmace.core.upkeep.care_plan import care_plan
from reedmace.core.upkeep.care_schemas import Away, CaredFilter, CarePlanAnswer, CarePlanQuestion, CareTask
from reedmace.core.upkeep.flow_fade import FlowFadeAnswer, FlowFadeQuestion, flow_fade
from reedmace.core.upkeep.holiday_page import HolidayAnswer, HolidayQuestion, holiday_page
from reedmace.core.upkeep.hospital_filter import HospitalAnswer, HospitalQuestion, hospital_filter
from reedmace.core.upkeep.nitrate_rhythm import NitrateRhythmAnswer, NitrateRhythmQuestion, nitrate_rhythm
from reedmace.core.upkeep.quarantine import QuarantineAnswer, QuarantineQuestion, quarantine
from reedmace.core.upkeep.room_round import RoomRoundAnswer, RoomRoundQuestion, RoundTask, room_round
from reedmace.core.upkeep.water_tasks import CaredKh, CaredTopUp
from reedmace.core.upkeep.year_cost import Consumable, Device, YearCostAnswer, YearCostQuestion, year_cost

__all__ = [
    "Away",
    "CarePlanAnswer",
    "CarePlanQuestion",
    "CareTask",
    "CaredFilter",
    "CaredKh",
    "CaredTopUp",
    "Consumable",
    "Device",
    "FlowFadeAnswer",
    "FlowFadeQuestion",
    "HolidayAnswer",
    "HolidayQuestion",
    "HospitalAnswer",
    "HospitalQuestion",
    "NitrateRhythmAnswer",
    "NitrateRhythmQuestion",
    "QuarantineAnswer",
    "QuarantineQuestion",
    "RoomRoundAnswer",
    "RoomRoundQuestion",
    "RoundTask",
    "YearCostAnswer",
    "YearCostQuestion",
    "care_plan",
    "flow_fade",
    "holiday_page",
    "hospital_filter",
    "nitrate_rhythm",
    "quarantine",
    "room_round",
    "year_cost",
]
