"""Pumps, hoses, media, air lift, the operating point and the flow test."""

from reedmace.core.flow.airlift import AirliftAnswer, AirliftQuestion, airlift_flow
from reedmace.core.flow.bucket import BucketTestAnswer, BucketTestQuestion, bucket_test
from reedmace.core.flow.operating import (
    OperatingPointAnswer,
    OperatingPointQuestion,
    operating_point,
)

__all__ = [
    "AirliftAnswer",
    "AirliftQuestion",
    "BucketTestAnswer",
    "BucketTestQuestion",
    "OperatingPointAnswer",
    "OperatingPointQuestion",
    "airlift_flow",
    "bucket_test",
    "operating_point",
]
