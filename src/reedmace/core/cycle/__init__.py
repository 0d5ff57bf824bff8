"""The nitrogen cycle of a new tank: kinetics, forecast, advice, readiness, and the first animals."""

from reedmace.core.cycle.advice import CycleAdviceAnswer, CycleAdviceQuestion, cycle_advice
from reedmace.core.cycle.animals import emergency_today, ramp_ahead
from reedmace.core.cycle.balance import NitrogenBalanceAnswer, NitrogenBalanceQuestion, nitrogen_balance
from reedmace.core.cycle.cloudy import CloudyWaterAnswer, CloudyWaterQuestion, cloudy_water
from reedmace.core.cycle.day_plan import EmergencyPlanQuestion
from reedmace.core.cycle.emergency import EmergencyPlanAnswer, emergency_plan
from reedmace.core.cycle.forecast import CycleForecastAnswer, CycleForecastQuestion, cycle_forecast
from reedmace.core.cycle.history import CycleHistoryAnswer, CycleHistoryQuestion, cycle_history
from reedmace.core.cycle.illness import IllnessAnswer, IllnessQuestion, Sign, illness_check
from reedmace.core.cycle.log import CycleLog, LoggedReading
from reedmace.core.cycle.methods import CycleMethodsAnswer, CycleMethodsQuestion, cycle_methods
from reedmace.core.cycle.plan import CyclePlanAnswer, CyclePlanQuestion, cycle_plan
from reedmace.core.cycle.ramp import StockingRampAnswer, StockingRampQuestion, stocking_ramp
from reedmace.core.cycle.readiness import CycleReadinessAnswer, CycleReadinessQuestion, cycle_readiness
from reedmace.core.cycle.stay_off import StayOffAnswer, StayOffQuestion, Trial, stay_off_trial
from reedmace.core.cycle.stops import FilterStopAnswer, FilterStopQuestion, filter_stop
from reedmace.core.cycle.test_line import ReadTestLineAnswer, ReadTestLineQuestion, read_test_line
from reedmace.core.cycle.what_if import CycleWhatIfAnswer, CycleWhatIfQuestion, cycle_what_if

__all__ = [
    "CloudyWaterAnswer",
    "CloudyWaterQuestion",
    "CycleAdviceAnswer",
    "CycleAdviceQuestion",
    "CycleForecastAnswer",
    "CycleForecastQuestion",
    "CycleHistoryAnswer",
    "CycleHistoryQuestion",
    "CycleLog",
    "CycleMethodsAnswer",
    "CycleMethodsQuestion",
    "CyclePlanAnswer",
    "CyclePlanQuestion",
    "CycleReadinessAnswer",
    "CycleReadinessQuestion",
    "CycleWhatIfAnswer",
    "CycleWhatIfQuestion",
    "EmergencyPlanAnswer",
    "EmergencyPlanQuestion",
    "FilterStopAnswer",
    "FilterStopQuestion",
    "IllnessAnswer",
    "IllnessQuestion",
    "LoggedReading",
    "NitrogenBalanceAnswer",
    "NitrogenBalanceQuestion",
    "ReadTestLineAnswer",
    "ReadTestLineQuestion",
    "Sign",
    "StayOffAnswer",
    "StayOffQuestion",
    "StockingRampAnswer",
    "StockingRampQuestion",
    "Trial",
    "cloudy_water",
    "cycle_advice",
    "cycle_forecast",
    "cycle_history",
    "cycle_methods",
    "cycle_plan",
    "cycle_readiness",
    "cycle_what_if",
    "emergency_plan",
    "emergency_today",
    "filter_stop",
    "illness_check",
    "nitrogen_balance",
    "ramp_ahead",
    "read_test_line",
    "stay_off_trial",
    "stocking_ramp",
]
