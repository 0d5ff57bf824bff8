"""Pumps, hoses, media, air, the operating point, overflows, jets and the flow test."""

from reedmace.core.flow.air import AirSupplyAnswer, AirSupplyQuestion, air_supply
from reedmace.core.flow.air_plan import RoomAirQuestion
from reedmace.core.flow.airlift import AirliftAnswer, AirliftQuestion, airlift_flow
from reedmace.core.flow.breathing import OxygenBalanceAnswer, OxygenBalanceQuestion, oxygen_balance
from reedmace.core.flow.bucket import BucketTestAnswer, BucketTestQuestion, bucket_test
from reedmace.core.flow.currents import CurrentsAnswer, CurrentsQuestion, currents
from reedmace.core.flow.operating import (
    OperatingPointAnswer,
    OperatingPointQuestion,
    operating_point,
)
from reedmace.core.flow.overflow import OverflowCheckAnswer, OverflowCheckQuestion, overflow_check
from reedmace.core.flow.room_air import RoomAirAnswer, room_air
from reedmace.core.flow.shared_sump import SharedSumpAnswer, SharedSumpQuestion, shared_sump
from reedmace.core.flow.socks import SockDaysAnswer, SockDaysQuestion, sock_days
from reedmace.core.flow.throttle import ThrottleMarksAnswer, ThrottleMarksQuestion, throttle_marks
from reedmace.core.flow.transit import (
    FlowTransitQuestion,
    LevelDropQuestion,
    TimedFlowAnswer,
    flow_transit,
    level_drop,
)

__all__ = [
    "AirSupplyAnswer",
    "AirSupplyQuestion",
    "AirliftAnswer",
    "AirliftQuestion",
    "BucketTestAnswer",
    "BucketTestQuestion",
    "CurrentsAnswer",
    "CurrentsQuestion",
    "FlowTransitQuestion",
    "LevelDropQuestion",
    "OperatingPointAnswer",
    "OperatingPointQuestion",
    "OverflowCheckAnswer",
    "OverflowCheckQuestion",
    "OxygenBalanceAnswer",
    "OxygenBalanceQuestion",
    "RoomAirAnswer",
    "RoomAirQuestion",
    "SharedSumpAnswer",
    "SharedSumpQuestion",
    "SockDaysAnswer",
    "SockDaysQuestion",
    "ThrottleMarksAnswer",
    "ThrottleMarksQuestion",
    "TimedFlowAnswer",
    "air_supply",
    "airlift_flow",
    "bucket_test",
    "currents",
    "flow_transit",
    "level_drop",
    "operating_point",
    "overflow_check",
    "oxygen_balance",
    "room_air",
    "shared_sump",
    "sock_days",
    "throttle_marks",
]
