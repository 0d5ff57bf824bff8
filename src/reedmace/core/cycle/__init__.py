"""The nitrogen cycle of a new tank: kinetics, forecast, advice, readiness, and the first animals."""

from reedmace.core.cycle.advice.advice import CycleAdviceAnswer, CycleAdviceQuestion, cycle_advice
from reedmace.core.cycle.advice.groups import ramp_ahead
from reedmace.core.cycle.advice.water_alarm import emergency_today, in_danger_now, needs_watching
from reedmace.core.cycle.advice.water_note import WaterNote, water_note
from reedmace.core.cycle.animals.day_plan import EmergencyPlanQuestion
from reedmace.core.cycle.animals.emergency import EmergencyPlanAnswer, emergency_plan
from reedmace.core.cycle.animals.illness import IllnessAnswer, illness_check
from reedmace.core.cycle.animals.illness_causes import IllnessQuestion, Sign
from reedmace.core.cycle.animals.stocking_ramp import StockingRampAnswer, StockingRampQuestion, stocking_ramp
from reedmace.core.cycle.judgement.cloudy_water import CloudyWaterAnswer, CloudyWaterQuestion, cloudy_water
from reedmace.core.cycle.judgement.filter_stop import FilterStopAnswer, FilterStopQuestion, filter_stop
from reedmace.core.cycle.judgement.methods import CycleMethodsAnswer, CycleMethodsQuestion, cycle_methods
from reedmace.core.cycle.judgement.plan import CyclePlanAnswer, CyclePlanQuestion, cycle_plan
from reedmace.core.cycle.judgement.readiness import CycleReadinessAnswer, CycleReadinessQuestion, cycle_readiness
from reedmace.core.cycle.judgement.standby_trial import StandbyTrialAnswer, StandbyTrialQuestion, Trial, standby_trial
from reedmace.core.cycle.outlook.forecast import CycleForecastAnswer, CycleForecastQuestion, cycle_forecast
from reedmace.core.cycle.outlook.history import CycleHistoryAnswer, CycleHistoryQuestion, cycle_history
from reedmace.core.cycle.outlook.what_if import CycleWhatIfAnswer, CycleWhatIfQuestion, cycle_what_if
from reedmace.core.cycle.record.log import CycleLog, LoggedReading
from reedmace.core.cycle.record.nitrogen_balance import NitrogenBalanceAnswer, NitrogenBalanceQuestion, nitrogen_balance
from reedmace.core.cycle.record.test_line import ReadTestLineAnswer, ReadTestLineQuestion, read_test_line

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
    "StandbyTrialAnswer",
    "StandbyTrialQuestion",
    "StockingRampAnswer",
    "StockingRampQuestion",
    "Trial",
    "WaterNote",
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
    "in_danger_now",
    "needs_watching",
    "nitrogen_balance",
    "ramp_ahead",
    "read_test_line",
    "standby_trial",
    "stocking_ramp",
    "water_note",
]
