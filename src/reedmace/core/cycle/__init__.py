"""The nitrogen cycle of a new tank: kinetics, forecast, advice, readiness."""

from reedmace.core.cycle.advice import CycleAdviceAnswer, CycleAdviceQuestion, cycle_advice
from reedmace.core.cycle.forecast import CycleForecastAnswer, CycleForecastQuestion, cycle_forecast
from reedmace.core.cycle.line import ReadTestLineAnswer, ReadTestLineQuestion, read_test_line
from reedmace.core.cycle.log import CycleLog, LoggedReading
from reedmace.core.cycle.readiness import CycleReadinessAnswer, CycleReadinessQuestion, cycle_readiness

__all__ = [
    "CycleAdviceAnswer",
    "CycleAdviceQuestion",
    "CycleForecastAnswer",
    "CycleForecastQuestion",
    "CycleLog",
    "CycleReadinessAnswer",
    "CycleReadinessQuestion",
    "LoggedReading",
    "ReadTestLineAnswer",
    "ReadTestLineQuestion",
    "cycle_advice",
    "cycle_forecast",
    "cycle_readiness",
    "read_test_line",
]
