"""What to do today, in order, each with its reason; and why a cycle has stalled."""

import math

from reedmace.core.chemistry.change import Solute
from reedmace.core.contract import Answer, Question, Working, computation
from reedmace.core.cycle.action import Action, change_of, cool_down, dose_of, made_ready
from reedmace.core.cycle.animals import emergency_today, first_group, next_group, with_animals
from reedmace.core.cycle.causes import Finding
from reedmace.core.cycle.foreseen import Foreseen
from reedmace.core.cycle.log import HIGH_AMMONIA_MG_N_L, HIGH_NITRITE_MG_N_L, CycleLog
from reedmace.core.cycle.proof import SEEN_WITHIN_H, TEST_FROM_H, TEST_UNTIL_H, is_seen, is_zero
from reedmace.core.cycle.readiness import CycleReadinessAnswer, CycleReadinessQuestion, cycle_readiness
from reedmace.core.cycle.stalls import Diagnosis, diagnose
from reedmace.core.cycle.urgent import FINAL_MOST, first_aid
from reedmace.core.cycle.water import State, carried, state_of
from reedmace.core.film import FOOD_MG_N_PER_G
from reedmace.core.quantity.units import NITROGEN_SHARE

TOP_UP_UNDER_MG_N_L = 1.0 * NITROGEN_SHARE["NH4"]
FINAL_NITRATE_MG_N_L = 20 * NITROGEN_SHARE["NO3"]
FINAL_LEAST = 0.6
"""Topped up under 1 ppm; the final change is 60 to 90 %, towards 20 ppm of nitrate (common practice)."""
FINAL_HOLDS_DAYS = 5.0
"""Longer ago a change is no final one (memory)."""
DONE_WITHIN = 0.1
"""So near to the final change wanted, it has been made (memory)."""


class CycleAdviceQuestion(Question):
    """The log as it stands."""

    log: CycleLog


class CycleAdviceAnswer(Answer):
    """The first action, the rest in order, the stall if there is one, and what would be the next."""

    first: Action
    then: list[Action]
    stalled: bool
    causes: list[Finding]
    ruled_out: list[Finding]
    foreseen: list[Foreseen]
    animals: str


@computation("cycle-advice", "What to do today and why")
def cycle_advice(question: CycleAdviceQuestion) -> CycleAdviceAnswer:
    """What to do today, in order.

    question: the log in days, mg N/L, dKH and °C.
    Source: common practice for the thresholds; US EPA 1993 for alkalinity; Emerson et al. 1975 for the poison share.
    """
    log, w = question.log, Working()
    s = state_of(log)
    ready = cycle_readiness(CycleReadinessQuestion(log=log))
    d = diagnose(log, s, w)
    # Poison, heat or cold go before whatever was proved.
    plan = emergency_today(log) if log.animals_are_in() else None
    if ready.ready and not (plan is not None and plan.in_danger):
        actions = _ready_actions(log, s, ready, w)
        verdict = (
            "It holds: a week of zeros with the animals in."
            if log.animals_are_in()
            else "You may add fish: the filter clears what they will make."
        )
        stalled = False
    elif log.animals_are_in():
        aid = [a for a in first_aid(log, s, d, w) if a.do in ("start-filter", "treat-water")]
        verdict, more = with_animals(log, s, plan, w)
        actions, stalled = aid + more, d.stalled()
    else:
        actions = first_aid(log, s, d, w)
        if s.newest is None or s.ammonia is None or s.nitrite is None:
            actions = _baseline(log, s, w) + actions
        else:
            actions = _onwards(log, s, actions, w)
        stalled = d.stalled() or (s.low_kh and s.acid)
        verdict = _verdict(log, s, d, stalled)
    return CycleAdviceAnswer(
        verdict=verdict,
        working=w.lines,
        first=actions[0],
        then=actions[1:],
        stalled=stalled,
        causes=d.causes if stalled or not log.filter_running or (d.stuck and d.unseen()) else [],
        ruled_out=d.ruled_out if stalled else [],
        foreseen=[] if ready.ready else d.foreseen,
        animals="Add the first animals after the large change."
        if ready.ready
        else f"{ready.missing[0][0].upper()}{ready.missing[0][1:]}.",
    )


def _ready_actions(log: CycleLog, s: State, ready: CycleReadinessAnswer, w: Working) -> list[Action]:
    before = carried(s.nitrate, [], log, log.tap.nitrate_mg_n_l) if s.nitrate else 0.0
    target = max(FINAL_NITRATE_MG_N_L, 1.2 * log.tap.nitrate_mg_n_l)
    solute = Solute(
        what="nitrate", now_ppm=min(before, 1e4), tap_ppm=min(log.tap.nitrate_mg_n_l, before), target_ppm=target
    )
    if log.animals_are_in():
        return next_group(log, ready)
    # What has been changed since the last dose counts: the rest of it, or nothing, is left to do.
    since = max([log.day_now - FINAL_HOLDS_DAYS, *(d.day for d in log.doses)])
    left = math.prod(1 - c.share for c in log.changes if c.day >= since)
    least = max(1 - (1 - FINAL_LEAST) / max(left, 0.05), 0.0)
    cool = cool_down(log, s)
    if least < DONE_WITHIN and before <= target * (1 + DONE_WITHIN):
        return [*([cool] if cool else []), first_group(log, ready, changed=True), _keep_feeding(log)]
    litres, parts, shift = change_of(log, s, solute, least, FINAL_MOST, w)
    times = f", {parts} times some hours apart" if parts > 1 else ""
    actions = [
        Action(
            do="change-water",
            title=f"Change {litres:.0f} L{times}",
            detail=made_ready(log, s),
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
        detail=f"{log.ppm(log.challenge_mg_n_l())} every two or three days, and change again the day before.",
        reason="An unfed film fades.",
        when="later",
    )


def _baseline(log: CycleLog, s: State, w: Working) -> list[Action]:
    what = "ammonia, nitrite, nitrate, pH and KH" if s.newest is None else "ammonia and nitrite"
    actions = [
        Action(
            do="test",
            title=f"Test {what}",
            detail="Before anything is dosed: this is the baseline everything later is read against.",
            reason="Tap water can bring ammonia, nitrate or no alkalinity at all.",
            when="now",
        )
    ]
    calm = s.nitrite is None or s.nitrite[1] < 0.98 * HIGH_NITRITE_MG_N_L
    if not log.doses and log.method == "measured-ammonia" and calm:
        dose = dose_of(log, s, w)
        if dose:
            actions.append(dose)
    return actions


def _unseen_dose(log: CycleLog) -> bool:
    """Whether a dose given within the day could prove something, if only a test showed that it is in the water."""
    newest = max(log.doses, key=lambda d: d.day, default=None)
    if newest is None or (log.day_now - newest.day) * 24 > SEEN_WITHIN_H:
        return False
    before = max((r for r in log.readings if r.day <= newest.day), key=lambda r: r.day, default=None)
    provable = before is not None and (is_zero(log, before) or len(log.doses) == 1)
    return provable and not is_seen(log, newest)


def _see_the_dose() -> Action:
    return Action(
        do="test",
        title="Test ammonia: is the dose in the water?",
        detail="An hour after it was stirred in, and before half a day has gone.",
        reason="A dose that was never seen proves nothing when it is gone: a dud bottle reads zero too.",
        when="now",
    )


def _no_dose(log: CycleLog, for_nitrite: bool) -> Action:
    if for_nitrite:
        return Action(
            do="stop-dosing",
            title="No ammonia for now",
            detail=f"Until nitrite reads under {log.ppm(HIGH_NITRITE_MG_N_L, 'nitrite')}.",
            reason="More ammonia only becomes more nitrite.",
            when="now",
        )
    return Action(
        do="wait",
        title="Then wait with ammonia",
        detail=f"No dose until it reads under {log.ppm(TOP_UP_UNDER_MG_N_L)} and the water is put right.",
        reason="A stopped film cannot use it.",
        when="later",
    )


def _feed(log: CycleLog) -> Action:
    grams = max(log.planned_load_mg_n_l_day * log.net_l / FOOD_MG_N_PER_G, 0.05)
    return Action(
        do="feed-tank",
        title=f"Feed {log.food_g_day or grams:.2g} g",
        detail="Ground fine, once a day, as if the animals were in.",
        reason="Rotting food is what feeds this film.",
        when="now",
        amount=log.food_g_day or grams,
        amount_unit="g",
    )


def _watch_growth(log: CycleLog) -> Action:
    seen = log.plants_growing_day is not None
    return Action(
        do="watch-growth",
        title="Leave it to the plants" if seen else "Watch for new growth",
        detail="Light as long as always, dead leaves out; test once a week."
        if seen
        else "New leaves and runners, not old ones turning; write down the day they show.",
        reason="Growing plants take the ammonia; the four weeks count from new growth.",
        when="now",
    )


def _test_due(log: CycleLog, s: State, since: float, dosed_h: float) -> bool:
    """Whether a test is due. since: days since the newest test; dosed_h: hours since the newest dose."""
    if since >= (6.5 if log.method == "planted" else 0.95 if s.ammonia_now <= 1.5 else 1.95):
        return True
    # A day after a dose is when its test counts, whatever was tested in between to see that it is there.
    return log.doses_ammonia() and TEST_FROM_H <= dosed_h <= TEST_UNTIL_H and since * 24 > dosed_h - TEST_FROM_H


def _next_dose(log: CycleLog, s: State, w: Working) -> list[Action]:
    topped_up = log.method in ("measured-ammonia", "mature-rock")
    under = TOP_UP_UNDER_MG_N_L if topped_up else log.kit.zero_mg_n_l("ammonia")
    dose = dose_of(log, s, w) if s.ammonia_now <= under else None
    return [dose] if dose else []


def _onwards(log: CycleLog, s: State, actions: list[Action], w: Working) -> list[Action]:
    """What comes after first aid: testing, dosing, feeding, waiting."""
    found = list(actions)
    dosed_h = (log.day_now - max((d.day for d in log.doses), default=-99.0)) * 24
    unseen = log.doses_ammonia() and _unseen_dose(log)
    if unseen:
        found.append(_see_the_dose())
    since = log.day_now - s.newest.day if s.newest else 99.0
    quiet = log.method == "planted"
    due = _test_due(log, s, since, dosed_h)
    high_nitrite = s.nitrite is not None and s.nitrite[1] >= 0.98 * HIGH_NITRITE_MG_N_L
    high_ammonia = s.ammonia_now > HIGH_AMMONIA_MG_N_L
    blocked = s.low_kh or s.acid or high_nitrite or not log.filter_running or high_ammonia
    if blocked and log.doses_ammonia():
        found.append(_no_dose(log, high_nitrite and not s.low_kh))
    if due and since > 0.3 and not unseen:
        found.append(
            Action(
                do="test",
                title="Test ammonia and nitrite",
                detail="And pH and KH if it is three days since.",
                reason=f"The last test is {since:.0f} day{'s' if round(since) != 1 else ''} old.",
                when="now",
            )
        )
    elif log.doses_ammonia() and not blocked and dosed_h >= TEST_FROM_H:
        found += _next_dose(log, s, w)
    if log.method == "fish-food":
        found.append(_feed(log))
    if quiet:
        found.append(_watch_growth(log))
    if not any(a.do == "test" for a in found):
        wait = 7 if quiet else 1 if s.ammonia_now <= 1.5 or s.low_kh else 2
        when = f"in { ({1: 'a day', 2: 'two days', 7: 'a week'}[wait]) }"
        if log.doses_ammonia() and dosed_h < TEST_FROM_H:
            wait, when = 1, "20 to 28 hours after the dose: that is the test that counts"
        found.append(
            Action(
                do="test",
                title="Test tomorrow" if wait == 1 else "Test again",
                detail=f"Ammonia and nitrite{', pH and KH' if s.low_kh or s.acid else ''}, {when}.",
                reason="A dose gone in a day is the measure." if log.doses_ammonia() else "Only tests tell.",
                when="tomorrow" if wait == 1 else "later",
            )
        )
    if (
        log.doses_ammonia()
        and log.day_now > 24
        and (s.nitrite is None or s.nitrite[1] <= log.kit.zero_mg_n_l("nitrite"))
        and s.ammonia_now > 1
        and not blocked
    ):
        found.append(
            Action(
                do="add-seed",
                title="Get a handful of seeded media",
                detail="From a healthy tank, wet on the way.",
                reason="After more than three weeks nothing has begun to use the ammonia.",
                when="later",
            )
        )
    return found


def _was_seen(log: CycleLog) -> bool:
    """Whether a poison was ever read since the first food: only then do zeros mean that something eats it."""
    fed = min((d.day for d in log.doses), default=0.0)
    return any(
        (r.ammonia_mg_n_l or 0.0) > log.kit.zero_mg_n_l("ammonia")
        or (r.nitrite_mg_n_l or 0.0) > log.kit.zero_mg_n_l("nitrite")
        for r in log.readings
        if r.day > fed
    )


def _verdict(log: CycleLog, s: State, d: Diagnosis, stalled: bool) -> str:
    if stalled and s.low_kh:
        return (
            "It has stalled: the film has used up the alkalinity and the water turned acid."
            if s.acid
            else "It is about to stall: the alkalinity is nearly used up."
        )
    if stalled:
        return f"It has stalled: {d.causes[0].title[0].lower()}{d.causes[0].title[1:]}"
    if d.stuck and d.unseen():
        why = (
            "nitrite is off the scale, where a fall would not show"
            if d.has("off-scale")
            else "the kit is past its date, and may not show a fall"
        )
        return f"It may not have stalled: {why}."
    if not log.readings:
        return "Nothing is known yet: begin with a test of the bare water."
    if s.low_kh:
        return "KH is low: put it right before it stops the film."
    if log.doses_ammonia() and not log.doses:
        return "First meal: the film has had nothing to eat yet."
    if log.method == "planted":
        return (
            "Quiet: the plants are at work, and the weeks are counting."
            if log.plants_growing_day is not None
            else "Waiting for new growth: until it shows, the plants take little."
        )
    if s.nitrite and s.nitrite[1] > log.kit.zero_mg_n_l("nitrite"):
        return (
            "On its way: ammonia is being turned into nitrite, and the second half of the film is growing."
            if s.ammonia_now < 1.5 or s.nitrite[1] > 0.3
            else "It has begun: the first nitrite shows."
        )
    if _was_seen(log) and s.ammonia_now <= log.kit.zero_mg_n_l("ammonia"):
        return (
            "Nearly there: both read zero. Now prove it with a dose."
            if log.doses_ammonia()
            else "Nearly there: both read zero."
        )
    return (
        "Waiting for the first film: nothing has used the ammonia yet, which is usual in the first one to three weeks."
    )
