"""Keep stage: each filter's flow over time, the care plan, and costs."""

from datetime import datetime
from typing import Annotated

from pydantic import AwareDatetime, Field

from reedmace.core.chemistry import DissolvedCo2Answer
from reedmace.core.contract import Lph, Part, number, whole
from reedmace.core.cycle import (
    CycleAdviceAnswer,
    CycleAdviceQuestion,
    FilterStopAnswer,
    IllnessAnswer,
    WaterNote,
    cycle_advice,
    in_danger_now,
    water_note,
)
from reedmace.core.filter import RunningCostAnswer
from reedmace.core.filter.kinds import kind_of
from reedmace.core.fit import CareStepsAnswer
from reedmace.core.tank import TankVolumeAnswer
from reedmace.core.upkeep import CarePlanAnswer, FlowFadeAnswer, HolidayAnswer
from reedmace.core.upkeep.care_plan import FLOW_TEST_DAYS
from reedmace.core.upkeep.flow_drop import not_brought_back, sudden_fall
from reedmace.logbook.care.care_rows import CareRow, care_row
from reedmace.logbook.care.change_reviews import ChangeReview, reviews
from reedmace.logbook.care.costs import TankCosts, tank_costs
from reedmace.logbook.care.filter_stops import stops
from reedmace.logbook.care.in_quarantine import InQuarantine, in_quarantine, usual_quarantine_days
from reedmace.logbook.care.last_done import cleaned_at, cleanings
from reedmace.logbook.care.later_years import YearsAhead, years_ahead
from reedmace.logbook.care.plug_checks import PlugCheck, plug_check
from reedmace.logbook.care.sick_animals import illness
from reedmace.logbook.care.supplies import Supplies, supplies
from reedmace.logbook.care.takeover import Takeover, takeover
from reedmace.logbook.care.upkeep_log import care, cleaning, flow_faded, holiday
from reedmace.logbook.care.water_use import co2_now
from reedmace.logbook.replay.animals import animals_in, load_in
from reedmace.logbook.replay.cycle_log import care_log, cycle_log
from reedmace.logbook.replay.entries import Entry
from reedmace.logbook.replay.equipment import installed_filters, stock_load
from reedmace.logbook.replay.measured_flows import all_flows
from reedmace.logbook.replay.salinity_drift import salinity_drift
from reedmace.logbook.replay.state import LogbookState
from reedmace.logbook.replay.water import volume
from reedmace.logbook.stages.filter_set import together


class FlowSeen(Part):
    """One flow measured."""

    at: AwareDatetime
    flow_lph: Lph


class KeptFilter(Part):
    """One filter over time."""

    key: str
    name: str
    runs: bool
    air: bool = Field(description="Driven by air: looked at, not timed")
    flows: list[FlowSeen]
    fade: FlowFadeAnswer | None
    since: AwareDatetime | None
    cleaned_at: AwareDatetime | None
    cleanings: list[AwareDatetime]
    cleaning: CareStepsAnswer
    cleaning_done: dict[str, Entry] = Field(description="Cleaning steps ticked since the last cleaning, by id")
    fell: str | None = Field(
        description="Of a flow that fell faster than dirt makes it fall, or that a cleaning did not bring back"
    )
    look_for: list[str] = Field(description="What may be behind it, by its kind")
    usual_days: Annotated[float, number("days", 0, 4000, "Between cleanings, by its kind and this food")]


class KeepView(Part):
    """Everything Keep shows besides the logbook itself."""

    verdict: str
    volume: TankVolumeAnswer
    filters: list[KeptFilter]
    care: CarePlanAnswer | None = Field(description="What is to be done, soonest first; none while nothing lives in it")
    holiday: HolidayAnswer | None
    years: YearsAhead | None
    rows: list[CareRow] = Field(description="The care plan's tasks, each with its day")
    cost: RunningCostAnswer | None
    costs: TankCosts | None = Field(description="A year, device by device")
    illness: IllnessAnswer | None = Field(description="What to look at first where animals are unwell or were lost")
    quarantine: InQuarantine | None
    quarantine_days: Annotated[int, whole(1, 365, "Usual length in this water")]
    plugs: PlugCheck | None = Field(description="Work after which nobody has yet seen the filters run")
    co2: DissolvedCo2Answer | None = Field(description="By the newest test of KH and pH, where CO2 is given")
    salinity: str | None = Field(description="Where salinity has drifted, and what brings it back")
    reviews: list[ChangeReview] = Field(description="Changes a month old, and those already judged")
    supplies: Supplies
    stops: list[FilterStopAnswer]
    takeover: Takeover | None
    danger: CycleAdviceAnswer | None = Field(description="What to do where animals stand over a limit")


def _days(count: int) -> str:
    return "today" if count <= 0 else "yesterday" if count == 1 else f"{count} days ago"


def in_danger(state: LogbookState, now: datetime) -> CycleAdviceAnswer | None:
    """Emergency plan where the newest tests exceed a limit of the animals that are in; otherwise None.

    state: the tank's, with a cycle plan or without; now: aware time.
    """
    log = care_log(state, now)
    if log is None or not in_danger_now(log):
        return None
    return cycle_advice(CycleAdviceQuestion(log=log))


def _spoken_first(
    stopped: list[FilterStopAnswer],
    danger: CycleAdviceAnswer | None,
    ill: IllnessAnswer | None,
    note: WaterNote | None,
    drift: str | None,
) -> str | None:
    """What comes before any routine: poison, a stop, sick animals, what tests show; None where all is well."""
    if danger is not None:
        return f"{danger.verdict} {danger.first.title}."
    if stopped:
        return f"{stopped[0].verdict} {stopped[0].first}."
    if ill is not None:
        return ill.verdict
    return f"{note.words} {note.actions[0].title}." if note is not None else drift


def _stalled(state: LogbookState, now: datetime) -> str | None:
    """What Today says of a cycle without animals that stands still; None where none does."""
    log = None if animals_in(state) else cycle_log(state, now)
    advice = cycle_advice(CycleAdviceQuestion(log=log)) if log is not None else None
    return f"{advice.verdict} {advice.first.title}." if advice is not None and advice.stalled else None


def _routine_verdict(filters: list[KeptFilter], plan: CarePlanAnswer | None, now: datetime) -> str:
    """The first sentence of a tank that is well: a faded flow, the care plan's next task, the next flow test."""
    for f in filters:
        if f.fade is not None and f.flows[-1].flow_lph < f.fade.limit_lph:
            share = f.flows[-1].flow_lph / f.fade.clean_lph
            return f"{f.name} has fallen to {share:.0%} of its clean flow: clean it, then time it again."
    if plan is not None:
        return plan.verdict
    if filters and all(f.air for f in filters):
        return "Look at the bubbles in passing, and write down what you do."
    timed = [f.flows[-1].at for f in filters if f.flows]
    if not timed:
        return "Time the flow once a month, and write down what you do."
    oldest = (now - min(timed)).days
    if oldest > FLOW_TEST_DAYS:
        return f"The flow was last timed {_days(oldest)}: time it again."
    return f"The flow was timed {_days(oldest)}."


def _dropped(flows: list[tuple[datetime, float]], cleaned: list[datetime]) -> str | None:
    """A fall of the flow that dirt does not explain, in words; None where there is none."""
    if not flows:
        return None
    begun = flows[0][0]

    def day(at: datetime) -> float:
        return (at - begun).total_seconds() / 86400

    timed = [(day(at), flow) for at, flow in flows]
    return sudden_fall(timed) or not_brought_back(timed, day(cleaned[-1]) if cleaned else None)


def _ticked(state: LogbookState, key: str, ids: set[str]) -> dict[str, Entry]:
    """Cleaning steps ticked since the filter was last cleaned, by their id."""
    last = cleaned_at(state, key)
    return {i: e for i, e in state.ticked(key).items() if i in ids and (last is None or e.at > last)}


def keep_view(state: LogbookState, now: datetime) -> KeepView:
    """The Keep stage of a tank. state: the tank's; now: aware time."""
    installed, load = installed_filters(state), load_in(state, now)
    found = []
    for one in installed:
        fade, since = flow_faded(state, one.key)
        flows = all_flows(state, one.key)
        found.append(
            KeptFilter(
                key=one.key,
                name=one.filter.name,
                runs=one.runs,
                air=one.filter.air,
                flows=[FlowSeen(at=at, flow_lph=flow) for at, flow in flows],
                fade=fade,
                since=since,
                cleaned_at=cleaned_at(state, one.key),
                cleanings=cleanings(state, one.key),
                cleaning=(steps := cleaning(state, one, load, now)),
                cleaning_done=_ticked(state, one.key, {s.id for s in steps.steps}),
                fell=(fell := _dropped(flows, cleanings(state, one.key))),
                look_for=list(kind_of(one.filter.kind).causes) if fell else [],
                usual_days=one.flow.service_days,
            )
        )
    stopped, danger, plan = stops(state, now), in_danger(state, now), care(state, now)
    ill, needs, log = illness(state, now), supplies(state, installed), care_log(state, now)
    drift = salinity_drift(state, now)
    return KeepView(
        verdict=_spoken_first(stopped, danger, ill, water_note(log) if log is not None else None, drift)
        or _stalled(state, now)
        or _routine_verdict(found, plan, now),
        illness=ill,
        quarantine=in_quarantine(state, now),
        quarantine_days=usual_quarantine_days(state),
        plugs=plug_check(state, now),
        co2=co2_now(state, now),
        salinity=drift,
        reviews=reviews(state, now),
        costs=tank_costs(state, installed, needs.heater, now),
        care=plan,
        years=years_ahead(state, now),
        holiday=holiday(state, plan, stock_load(state).feed_today_g_day, now) if plan else None,
        rows=[care_row(state, task, {f.key: f.cleaning.touched_share for f in found}, now) for task in plan.tasks]
        if plan
        else [],
        stops=stopped,
        danger=danger,
        takeover=takeover(state, now),
        volume=volume(state),
        filters=found,
        supplies=needs,
        cost=together(state, installed, chosen=True).cost if installed else None,
    )
