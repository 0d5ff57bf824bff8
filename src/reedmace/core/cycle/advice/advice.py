"""Cycle advice: today's actions in order, each with its reason, and why a cycle has stalled."""

import math

from reedmace.core.chemistry.water_change import Solute
from reedmace.core.contract import Answer, Question, Working, computation
from reedmace.core.cycle.advice.action import WHEN, Action, change_for, cool_down, water_preparation
from reedmace.core.cycle.advice.first_aid import FINAL_MOST, first_aid, kit_test
from reedmace.core.cycle.advice.groups import first_group, next_group
from reedmace.core.cycle.advice.headline import headline
from reedmace.core.cycle.advice.routine import baseline, routine_actions
from reedmace.core.cycle.advice.water_alarm import emergency_today, in_danger_now
from reedmace.core.cycle.advice.water_note import condition_note, water_note
from reedmace.core.cycle.advice.with_animals import watch_after_chlorine, with_animals
from reedmace.core.cycle.judgement.readiness import CycleReadinessAnswer, CycleReadinessQuestion, cycle_readiness
from reedmace.core.cycle.judgement.stall_causes import Finding
from reedmace.core.cycle.judgement.stalls import diagnose
from reedmace.core.cycle.outlook.coming_stalls import ComingStall, coming_stalls
from reedmace.core.cycle.record.dose_to_prove import dose_to_prove_mg_n_l
from reedmace.core.cycle.record.kit_checks import kit_is_stuck
from reedmace.core.cycle.record.log import CycleLog
from reedmace.core.cycle.record.water_now import WaterNow, carried_forward, untreated_changes, water_now
from reedmace.core.quantity import formatting
from reedmace.core.quantity.units import NITROGEN_SHARE

FINAL_NITRATE_MG_N_L = 20 * NITROGEN_SHARE["NO3"]
FINAL_LEAST = 0.6
"""Smallest share of the final change; keepers do 60 to 90 %, towards 20 ppm of nitrate (common practice)."""
FINAL_HOLDS_DAYS = 5.0
"""Age in days after which a change no longer counts as the final one (memory)."""
DONE_WITHIN = 0.1
"""Distance to the final change within which it counts as done (memory)."""


class CycleAdviceQuestion(Question):
    """The log of a cycle."""

    log: CycleLog


class CycleAdviceAnswer(Answer):
    """The first action, the rest in order, the causes of a stall if there is one, and coming stalls."""

    first: Action
    then: list[Action]
    stalled: bool
    causes: list[Finding]
    ruled_out: list[Finding]
    coming_stalls: list[ComingStall]
    animals: str


@computation("cycle-advice", "What to do today and why")
def cycle_advice(question: CycleAdviceQuestion) -> CycleAdviceAnswer:
    """Today's actions, in order.

    question: the log in days, mg N/L, dKH and °C.
    Source: common practice for the thresholds; US EPA 1993 for alkalinity; Emerson et al. 1975 for the poison share.
    """
    log, w = question.log, Working()
    s = water_now(log)
    ready = cycle_readiness(CycleReadinessQuestion(log=log))
    d = diagnose(log, s, w)
    # Poison, heat or cold take precedence over any earlier proof.
    plan = emergency_today(log) if log.animals_are_in() else None
    note = water_note(log)
    if ready.ready and note is None and not (log.animals_are_in() and in_danger_now(log)):
        actions = _ready_actions(log, s, ready, w)
        verdict = "It holds: a week of zeros with the animals in." if log.animals_are_in() else _may_add(log, ready)
        stalled = False
    elif log.animals_are_in():
        aid = [a for a in first_aid(log, s, d, w) if a.do in ("start-filter", "treat-water")]
        doubt = [kit_test()] if kit_is_stuck(log) else []
        verdict, more = note or _with_conditions(log, *with_animals(log, s, plan, w))
        if untreated_changes(log) and (plan is None or not plan.in_danger):
            verdict = "Untreated water went in: its chlorine burns gills and kills the filter bacteria."
            more = watch_after_chlorine()
        actions, stalled = aid + more + doubt, d.stalled()
    else:
        actions = first_aid(log, s, d, w)
        if s.newest is None or s.ammonia is None or s.nitrite is None:
            actions = baseline(log, s, w) + actions
        else:
            actions = routine_actions(log, s, actions, w)
        stalled = d.stalled() or (s.low_kh and s.acid)
        verdict = headline(log, s, d, stalled)
    # What is to be done now comes before what is to be done tomorrow; the order among equals is that of urgency.
    actions = sorted(actions, key=lambda action: WHEN.index(action.when))
    return CycleAdviceAnswer(
        verdict=verdict,
        working=w.lines,
        first=actions[0],
        then=actions[1:],
        stalled=stalled,
        causes=d.causes if stalled or not log.filter_running or (d.stuck and d.unseen()) else [],
        ruled_out=d.ruled_out if stalled else [],
        coming_stalls=[] if ready.ready else [c for c in coming_stalls(log, s, w) if not d.has(c.kind)],
        animals="Add the first animals after the large change."
        if ready.ready
        else f"{formatting.opening(ready.missing[0])}.",
    )


def _with_conditions(log: CycleLog, verdict: str, actions: list[Action]) -> tuple[str, list[Action]]:
    """Verdict and actions of a tank that is watched, with warmth, pH and CO2 spoken of first where they are amiss."""
    note = condition_note(log)
    return (verdict, actions) if note is None else (f"{note.words} {verdict}", [*note.actions, *actions])


def _may_add(log: CycleLog, ready: CycleReadinessAnswer) -> str:
    if not log.animals or ready.proven_mg_n_l_day >= log.planned_load_mg_n_l_day > 0:
        return "You may add fish: the filter clears what they will make."
    return (
        f"You may add the first fish: the filter is proven for {log.ppm(ready.proven_mg_n_l_day)} of ammonia a day, not"
        " for all you plan."
    )


def _ready_actions(log: CycleLog, s: WaterNow, ready: CycleReadinessAnswer, w: Working) -> list[Action]:
    before = carried_forward(s.nitrate, [], log, log.tap.nitrate_mg_n_l) if s.nitrate else 0.0
    target = max(FINAL_NITRATE_MG_N_L, 1.2 * log.tap.nitrate_mg_n_l)
    solute = Solute(
        what="nitrate", now_ppm=min(before, 1e4), tap_ppm=min(log.tap.nitrate_mg_n_l, before), target_ppm=target
    )
    if log.animals_are_in():
        return next_group(log, ready)
    # Changes since the last dose count towards the final change; only the rest is left to do.
    since = max([log.day_now - FINAL_HOLDS_DAYS, *(d.day for d in log.doses)])
    left = math.prod(1 - c.share for c in log.changes if c.day >= since)
    least = max(1 - (1 - FINAL_LEAST) / max(left, 0.05), 0.0)
    cool = cool_down(log, s)
    if least < DONE_WITHIN and before <= target * (1 + DONE_WITHIN):
        return [*([cool] if cool else []), first_group(log, ready, changed=True), _keep_feeding(log)]
    litres, parts, shift = change_for(log, s, solute, least, FINAL_MOST, w)
    times = f", {parts} times some hours apart" if parts > 1 else ""
    actions = [
        Action(
            do="change-water",
            title=f"Change {formatting.litres(litres)}{times}",
            detail=water_preparation(log, s),
            reason="One large change takes out the nitrate the doses made."
            if parts == 1
            else "It takes out the nitrate the doses made; in portions, so that pH does not jump.",
            when="now",
            amount=litres,
            amount_unit="L",
            times_count=parts,
            ph_shift=shift,
            caution="Unplug heater and filter first; plug them back in after.",
        )
    ]
    return [*actions, *([cool] if cool else []), first_group(log, ready), _keep_feeding(log)]


def _keep_feeding(log: CycleLog) -> Action:
    return Action(
        do="feed-film",
        title="If they come later, keep dosing",
        detail=f"{log.ppm(dose_to_prove_mg_n_l(log))} every two or three days, and change again the day before.",
        reason="An unfed film fades.",
        when="later",
    )
