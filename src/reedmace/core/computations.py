"""The named computations, once: what the HTTP door, the command line and the working panel are all fed from."""

import json
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, Generic, TypeVar

from pydantic import ValidationError

from reedmace.core import chemistry, cycle, filter, fit, flow, quantity, stock, tank, upkeep
from reedmace.core.working import Answer, CannotAnswer, Question

Q = TypeVar("Q", bound=Question)
A = TypeVar("A", bound=Answer)


@dataclass(frozen=True)
class Computation(Generic[Q, A]):
    """One named computation: what it answers, its input and output, and the pure function between."""

    name: str
    answers: str
    question: type[Q]
    answer: type[A]
    function: Callable[[Q], A]

    def schema(self) -> dict[str, Any]:
        """Both JSON schemas, with units and ranges."""
        return {
            "name": self.name,
            "answers": self.answers,
            "input": self.question.model_json_schema(),
            "output": self.answer.model_json_schema(mode="serialization"),
        }


@dataclass(frozen=True)
class Complaint:
    """One thing wrong with an input: where, what, and the remedy."""

    where: str
    what: str
    remedy: str

    def __str__(self) -> str:
        return f"{self.where}: {self.what} {self.remedy}".strip()


_ALL: tuple[Computation[Any, Any], ...] = (
    Computation(
        "tank-volume",
        "How much water the tank really holds, how deep, how heavy",
        tank.TankVolumeQuestion,
        tank.TankVolumeAnswer,
        tank.tank_volume,
    ),
    Computation(
        "waste-load",
        "How much ammonia the animals make in a day",
        stock.WasteLoadQuestion,
        stock.WasteLoadAnswer,
        stock.waste_load,
    ),
    Computation(
        "flow-requirement",
        "What each school of sizing asks for",
        filter.FlowRequirementQuestion,
        filter.FlowRequirementAnswer,
        filter.flow_requirement,
    ),
    Computation(
        "operating-point",
        "The flow a pump really delivers through this plumbing",
        flow.OperatingPointQuestion,
        flow.OperatingPointAnswer,
        flow.operating_point,
    ),
    Computation(
        "airlift-flow", "The water an air lift moves", flow.AirliftQuestion, flow.AirliftAnswer, flow.airlift_flow
    ),
    Computation(
        "air-supply",
        "Whether one air pump carries its outlets, and how many more",
        flow.AirSupplyQuestion,
        flow.AirSupplyAnswer,
        flow.air_supply,
    ),
    Computation(
        "overflow-check",
        "Whether a sump's drain and room take the flow and the run-back",
        flow.OverflowCheckQuestion,
        flow.OverflowCheckAnswer,
        flow.overflow_check,
    ),
    Computation(
        "jet-speed",
        "The speed an animal meets at mid-tank",
        flow.JetSpeedQuestion,
        flow.JetSpeedAnswer,
        flow.jet_speed,
    ),
    Computation(
        "filter-flow",
        "What one filter really does on one tank, and the current it makes",
        filter.FilterFlowQuestion,
        filter.FilterFlowAnswer,
        filter.filter_flow,
    ),
    Computation(
        "media-stack",
        "Whether the media lie right, and what they do to the flow",
        filter.MediaStackQuestion,
        filter.MediaStackAnswer,
        filter.media_stack,
    ),
    Computation(
        "label-check",
        "Whether a box agrees with itself",
        filter.LabelCheckQuestion,
        filter.LabelCheckAnswer,
        filter.label_check,
    ),
    Computation(
        "rank-filters",
        "Which filter, for this tank and these priorities, and why",
        filter.RankFiltersQuestion,
        filter.RankFiltersAnswer,
        filter.rank_filters,
    ),
    Computation(
        "running-cost",
        "What a device costs to run",
        filter.RunningCostQuestion,
        filter.RunningCostAnswer,
        filter.running_cost,
    ),
    Computation(
        "fitting-steps", "How to fit it, in order", fit.FittingStepsQuestion, fit.FittingStepsAnswer, fit.fitting_steps
    ),
    Computation(
        "fitting-plan",
        "Where everything goes, what to cut, what is wrong with the plan",
        fit.FittingPlanQuestion,
        fit.FittingPlanAnswer,
        fit.fitting_plan,
    ),
    Computation(
        "drain-down",
        "How many litres reach the floor if something gives way",
        fit.DrainDownQuestion,
        fit.DrainDownAnswer,
        fit.drain_down,
    ),
    Computation(
        "filter-move",
        "How much film comes across when a filter is replaced or a tank moved",
        fit.FilterMoveQuestion,
        fit.FilterMoveAnswer,
        fit.filter_move,
    ),
    Computation(
        "sponge-seed",
        "What a spare sponge is worth, and on the way",
        fit.SpongeSeedQuestion,
        fit.SpongeSeedAnswer,
        fit.sponge_seed,
    ),
    Computation(
        "flow-transit",
        "Flow from a float over a marked way",
        flow.FlowTransitQuestion,
        flow.TimedFlowAnswer,
        flow.flow_transit,
    ),
    Computation(
        "level-drop",
        "Flow of a hang-on from the rise in its box",
        flow.LevelDropQuestion,
        flow.TimedFlowAnswer,
        flow.level_drop,
    ),
    Computation(
        "shopping-list",
        "What to buy, with quantities",
        fit.ShoppingListQuestion,
        fit.ShoppingListAnswer,
        fit.shopping_list,
    ),
    Computation(
        "bucket-test",
        "The flow measured with a container and a clock",
        flow.BucketTestQuestion,
        flow.BucketTestAnswer,
        flow.bucket_test,
    ),
    Computation(
        "flow-fade",
        "When the flow will have faded to the service limit",
        upkeep.FlowFadeQuestion,
        upkeep.FlowFadeAnswer,
        upkeep.flow_fade,
    ),
    Computation(
        "un-ionised-ammonia",
        "How much of the ammonia is poison",
        chemistry.UnIonisedQuestion,
        chemistry.UnIonisedAnswer,
        chemistry.un_ionised_ammonia,
    ),
    Computation(
        "oxygen-saturation",
        "Oxygen the water holds, and what is taken out of it",
        chemistry.OxygenSaturationQuestion,
        chemistry.OxygenSaturationAnswer,
        chemistry.oxygen_saturation,
    ),
    Computation(
        "ammonia-dose",
        "Grams, millilitres or drops for a target",
        chemistry.AmmoniaDoseQuestion,
        chemistry.AmmoniaDoseAnswer,
        chemistry.ammonia_dose,
    ),
    Computation(
        "alkalinity-dose",
        "Baking soda to hold KH, and what the doses burn",
        chemistry.AlkalinityDoseQuestion,
        chemistry.AlkalinityDoseAnswer,
        chemistry.alkalinity_dose,
    ),
    Computation(
        "water-change",
        "How much to change for every target at once",
        chemistry.WaterChangeQuestion,
        chemistry.WaterChangeAnswer,
        chemistry.water_change,
    ),
    Computation(
        "cycle-forecast",
        "When the tank will be ready",
        cycle.CycleForecastQuestion,
        cycle.CycleForecastAnswer,
        cycle.cycle_forecast,
    ),
    Computation(
        "cycle-advice",
        "What to do today and why",
        cycle.CycleAdviceQuestion,
        cycle.CycleAdviceAnswer,
        cycle.cycle_advice,
    ),
    Computation(
        "cycle-readiness",
        "May animals be added, by which standard",
        cycle.CycleReadinessQuestion,
        cycle.CycleReadinessAnswer,
        cycle.cycle_readiness,
    ),
    Computation(
        "cycle-what-if",
        "What each change would do to the date",
        cycle.CycleWhatIfQuestion,
        cycle.CycleWhatIfAnswer,
        cycle.cycle_what_if,
    ),
    Computation(
        "cycle-history",
        "How the forecast has moved",
        cycle.CycleHistoryQuestion,
        cycle.CycleHistoryAnswer,
        cycle.cycle_history,
    ),
    Computation(
        "cycle-methods",
        "Which way to cycle, from what you have",
        cycle.CycleMethodsQuestion,
        cycle.CycleMethodsAnswer,
        cycle.cycle_methods,
    ),
    Computation(
        "cycle-plan",
        "The plan judged: conditions, heat, alkalinity",
        cycle.CyclePlanQuestion,
        cycle.CyclePlanAnswer,
        cycle.cycle_plan,
    ),
    Computation(
        "nitrogen-balance",
        "Nitrogen put in against nitrogen found",
        cycle.NitrogenBalanceQuestion,
        cycle.NitrogenBalanceAnswer,
        cycle.nitrogen_balance,
    ),
    Computation(
        "stocking-ramp",
        "How many of which animals, and when",
        cycle.StockingRampQuestion,
        cycle.StockingRampAnswer,
        cycle.stocking_ramp,
    ),
    Computation(
        "emergency-plan",
        "What to do when animals are in already",
        cycle.EmergencyPlanQuestion,
        cycle.EmergencyPlanAnswer,
        cycle.emergency_plan,
    ),
    Computation(
        "filter-stop",
        "What a stop of the filter cost, and what to do about it",
        cycle.FilterStopQuestion,
        cycle.FilterStopAnswer,
        cycle.filter_stop,
    ),
    Computation(
        "cloudy-water",
        "Bloom or dirt, and what to do",
        cycle.CloudyWaterQuestion,
        cycle.CloudyWaterAnswer,
        cycle.cloudy_water,
    ),
    Computation(
        "read-quantity",
        "What a typed figure means",
        quantity.ReadQuantityQuestion,
        quantity.ReadQuantityAnswer,
        quantity.read_quantity,
    ),
    Computation(
        "read-test-line",
        "What a jotted test line means",
        cycle.ReadTestLineQuestion,
        cycle.ReadTestLineAnswer,
        cycle.read_test_line,
    ),
)

COMPUTATIONS: dict[str, Computation[Any, Any]] = {computation.name: computation for computation in _ALL}


def complaints(error: ValidationError | CannotAnswer) -> list[Complaint]:
    """What is wrong with an input, each with where, what and the remedy, fit to show. error: as raised."""
    if isinstance(error, CannotAnswer):
        return [Complaint(error.where, error.what, error.remedy)]
    found = []
    for item in error.errors(include_url=False):
        where = ".".join(str(piece) for piece in item["loc"]) or "input"
        context = item.get("ctx") or {}
        limits = {"greater_than_equal": ("ge", "at least"), "less_than_equal": ("le", "at most")}
        if item["type"] in limits:
            key, words = limits[item["type"]]
            found.append(
                Complaint(
                    where,
                    f"is {_brief(item['input'])}; it must be {words} {context[key]:g}.",
                    "Give a figure in that range.",
                )
            )
        elif item["type"] == "missing":
            found.append(Complaint(where, "is missing.", "Give it."))
        elif item["type"] == "extra_forbidden":
            found.append(
                Complaint(
                    where,
                    "is not a field of this computation.",
                    "Take it out; --schema or GET /api/compute lists the fields.",
                )
            )
        else:
            found.append(
                Complaint(
                    where, f"{item['msg'][0].lower()}{item['msg'][1:]} (got {_brief(item['input'])}).", "Correct it."
                )
            )
    return found


def _brief(value: object) -> str:
    try:
        text = json.dumps(value, ensure_ascii=False, default=str)
    except (TypeError, ValueError):
        text = str(type(value).__name__)
    return text if len(text) <= 40 else text[:37] + "…"


def compute(name: str, data: object) -> Answer:
    """Answer a named computation from plain data.

    name: one of COMPUTATIONS; data: what its schema describes.
    Raises KeyError for an unknown name, pydantic.ValidationError or CannotAnswer for bad input.
    """
    computation = COMPUTATIONS[name]
    answer: Answer = computation.function(computation.question.model_validate(data))
    return answer
