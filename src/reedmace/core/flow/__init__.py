"""Hydraulics: pumps, hoses, media, the operating point, overflows, jets and flow tests."""

from reedmace.core.flow.airlift import AirliftAnswer, AirliftQuestion, airlift_flow
from reedmace.core.flow.bucket_test import BucketTestAnswer, BucketTestQuestion, bucket_test
from reedmace.core.flow.currents import CurrentsAnswer, CurrentsQuestion, currents
from reedmace.core.flow.filter_socks import SockDaysAnswer, SockDaysQuestion, sock_days
from reedmace.core.flow.operating_point import operating_point
from reedmace.core.flow.operating_point_schemas import OperatingPointAnswer, OperatingPointQuestion
from reedmace.core.flow.overflow import OverflowCheckAnswer, OverflowCheckQuestion, overflow_check
from reedmace.core.flow.oxygen_balance import OxygenBalanceAnswer, OxygenBalanceQuestion, oxygen_balance
from reedmace.core.flow.plumbing_heads import PlumbingHeadsAnswer, plumbing_heads
from reedmace.core.flow.shared_sump import SharedSumpAnswer, SharedSumpQuestion, shared_sump
from reedmace.core.flow.throttle_marks import ThrottleMarksAnswer, ThrottleMarksQuestion, throttle_marks
from reedmace.core.flow.timed_flow import (
    FlowTransitQuestion,
    LevelDropQuestion,
    TimedFlowAnswer,
    flow_transit,
    level_drop,
)

__all__ = [
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
    "PlumbingHeadsAnswer",
    "SharedSumpAnswer",
    "SharedSumpQuestion",
    "SockDaysAnswer",
    "SockDaysQuestion",
    "ThrottleMarksAnswer",
    "ThrottleMarksQuestion",
    "TimedFlowAnswer",
    "airlift_flow",
    "bucket_test",
    "currents",
    "flow_transit",
    "level_drop",
    "operating_point",
    "overflow_check",
    "oxygen_balance",
    "plumbing_heads",
    "shared_sump",
    "sock_days",
    "throttle_marks",
]
