"""What to do once animals are in or about to come: the first group, the next, and the days when the water harms them."""

from reedmace.core.contract import Working
from reedmace.core.cycle.action import Action, raise_kh
from reedmace.core.cycle.emergency import EmergencyPlanAnswer, EmergencyPlanQuestion, emergency_plan
from reedmace.core.cycle.log import CycleLog
from reedmace.core.cycle.proof import proven_capacity
from reedmace.core.cycle.ramp import RampStep, StockingRampAnswer, StockingRampQuestion, stocking_ramp
from reedmace.core.cycle.readiness import CycleReadinessAnswer
from reedmace.core.cycle.water import State, state_of
from reedmace.core.errors import CannotAnswer


def first_group(log: CycleLog, ready: CycleReadinessAnswer, *, changed: bool = False) -> Action:
    """The animals to begin with, and when the next may come.

    log: the cycle's; ready: what has been proven; changed: whether the large change has been made.
    """
    who, when_more = "the first animals", "a part of the stock at a time"
    steps = _ramp(log, ready)
    if steps:
        who = steps[0].words()
        when_more = "that is all of them" if len(steps) == 1 else f"no more until day {steps[1].day:.0f} after them"
    return Action(
        do="add-animals",
        title=f"Add {who}",
        detail=f"Within a few days of the change; {when_more}; test daily for a week.",
        reason="The film starves without them, and outgrown it lets ammonia stand.",
        when="now" if changed else "tomorrow",
    )


def next_group(log: CycleLog, ready: CycleReadinessAnswer) -> list[Action]:
    """A week of zeros with animals in: the next group, or nothing but the usual care.

    log: the cycle's; ready: what has been proven.
    """
    weekly = Action(
        do="wait",
        title="Weekly care",
        detail="Test, and change a part of the water, once a week; food back to normal over a week.",
        reason="A week of zeros with the animals in: the film carries them.",
        when="later",
    )
    steps = _ramp(log, ready)
    if not steps:
        return [weekly.model_copy(update={"when": "now"})]
    return [
        Action(
            do="add-animals",
            title=f"You may add {steps[0].words()}",
            detail=f"Write down the day; test on days 1, 3 and 7 after. {steps[0].before}",
            reason="Each group is a new load: the film grows to it in a week or two.",
            when="now",
        ),
        weekly,
    ]


def emergency_today(log: CycleLog) -> EmergencyPlanAnswer | None:
    """The emergency plan for the water as the log leaves it; None before ammonia and nitrite were tested.

    log: the cycle's, with animals in.
    """
    s = state_of(log)
    return emergency_plan(_emergency_question(log, s, s.nitrite[1])) if s.ammonia and s.nitrite else None


def _emergency_question(log: CycleLog, s: State, nitrite_mg_n_l: float) -> EmergencyPlanQuestion:
    return EmergencyPlanQuestion(
        net_l=log.net_l,
        ammonia_mg_n_l=s.ammonia_now,
        nitrite_mg_n_l=nitrite_mg_n_l,
        nitrate_mg_n_l=s.nitrate[1] if s.nitrate else None,
        ph=s.ph if s.ph is not None else log.start_ph,
        kh_dkh=min(s.kh_now if s.kh_now is not None else log.start_kh_dkh, 40),
        temperature_c=s.temperature,
        salinity_g_kg=log.salinity_g_kg,
        # What the film has been seen to clear is not left standing in the water.
        load_mg_n_l_day=max(log.animals_in_mg_n_l_day - proven_capacity(log), 0.0),
        tap=log.tap,
        basis=log.kit.basis,
    )


def with_animals(log: CycleLog, s: State, w: Working) -> tuple[str, list[Action]]:
    """Verdict and actions with animals in: no dose is ever among them.

    log: the cycle's; s: the water now; w: gets the lines.
    """
    stale = 8.0 if log.settled() else 1.2
    if s.ammonia is None or s.nitrite is None or log.day_now - min(s.ammonia[0], s.nitrite[0]) > stale:
        if log.settled():
            return "The weekly test is due.", [_weekly_test()]
        return (
            "Animals are in: what the water is today decides what to do.",
            [
                Action(
                    do="test",
                    title="Test ammonia, nitrite and pH",
                    detail="Now, and every day until both have read zero for a week.",
                    reason="With animals in and no film yet, both can turn harmful within a day.",
                    when="now",
                ),
                Action(
                    do="feed-little",
                    title="Feed a quarter",
                    detail="Once a day; take out what is left.",
                    reason="Food is where the ammonia comes from.",
                    when="now",
                ),
            ],
        )
    plan = emergency_plan(_emergency_question(log, s, s.nitrite[1]))
    w.lines.extend(plan.working)
    if log.settled() and not any(one.over for one in plan.limits):
        return "Its cycle is long over; the water is within the limits.", [
            _weekly_test().model_copy(update={"when": "later"})
        ]
    actions = []
    changed_since = any(c.day > min(s.ammonia[0], s.nitrite[0]) for c in log.changes)
    if plan.changes and not changed_since:
        first = plan.changes[0]
        actions.append(
            Action(
                do="change-water",
                title=f"Change {first.litres:.0f} L now",
                detail=(
                    f"Then {' and '.join(f'{c.litres:.0f} L after {c.after_hours:.0f} h' for c in plan.changes[1:])}. "
                    if len(plan.changes) > 1
                    else ""
                )
                + "Treated, at tank temperature.",
                reason=_over(log, plan),
                when="now",
                amount=first.litres,
                amount_unit="L",
                ph_shift=abs(first.after_ph - (s.ph if s.ph is not None else log.start_ph)),
                caution=plan.cautions[0],
            )
        )
    elif not plan.changes and any(one.over for one in plan.limits):
        actions.append(
            Action(
                do="change-water",
                title="Let new water drip in",
                detail="Over hours, treated, testing pH as it goes; no bucket at once.",
                reason=_over(log, plan),
                when="now",
                caution=plan.cautions[0],
            )
        )
    elif plan.changes:
        actions.append(
            Action(
                do="test",
                title="Test again after the change",
                detail="Ammonia, nitrite, pH.",
                reason="The last test is from before the change.",
                when="now",
            )
        )
    actions.append(
        Action(
            do="feed-little",
            title="No food today"
            if plan.feed_share == 0
            else f"Feed {'a quarter' if plan.feed_share < 0.5 else 'half'}",
            detail=plan.feeding,
            reason="Food is where the ammonia comes from.",
            when="now",
        )
    )
    if s.low_kh:
        actions.append(raise_kh(log, s, w))
    if not any(a.do == "test" for a in actions):
        actions.append(
            Action(
                do="test",
                title="Test twice a day" if plan.tests_per_day > 1 else "Test tomorrow",
                detail="Ammonia, nitrite, pH; until both have read zero for a week.",
                reason="A day is long for them.",
                when="tonight" if plan.tests_per_day > 1 else "tomorrow",
            )
        )
    actions.append(
        Action(
            do="add-seed",
            title="Get seeded media",
            detail="From a healthy tank, wet and aired on the way.",
            reason="It is the only thing that shortens this.",
            when="later",
            caution=plan.vet,
        )
    )
    if plan.changes and changed_since:
        return "Water was changed since the last test: test again, to see what is left.", actions
    # The change itself is the first action; what it is for, and what it cannot do, is the verdict.
    return plan.stands, actions


def _over(log: CycleLog, plan: EmergencyPlanAnswer) -> str:
    """What stands over its limit, and where that lies, in the kit's own ppm."""
    found = [
        f"{one.what} reads {log.ppm(one.now_mg_n_l, one.what)} where {log.ppm(one.limit_mg_n_l, one.what)} is the most"
        for one in plan.limits
        if one.over
    ]
    words = "; ".join(found) or "so that it is still under its limits tomorrow"
    return f"{words[0].upper()}{words[1:]}."


def _ramp(log: CycleLog, ready: CycleReadinessAnswer) -> list[RampStep]:
    """Steps still to come, none where nothing is planned or proven, or a species is not listed."""
    ramp = _ramp_from(log, ready.proven_mg_n_l_day)
    return ramp.steps if ramp else []


def ramp_ahead(log: CycleLog, ready: CycleReadinessAnswer) -> StockingRampAnswer | None:
    """From what is proven, or until then from the challenge as if it were, to the planned stock; None where it cannot be said.

    log: the cycle's; ready: what has been proven.
    """
    if log.animals_are_in() and not log.present:
        return None
    return _ramp_from(log, ready.proven_mg_n_l_day or (0.0 if log.present else log.challenge_mg_n_l()))


def _ramp_from(log: CycleLog, proven_mg_n_l_day: float) -> StockingRampAnswer | None:
    if not log.animals:
        return None
    try:
        return stocking_ramp(
            StockingRampQuestion(
                net_l=log.net_l,
                proven_mg_n_l_day=min(proven_mg_n_l_day, 1000),
                animals=log.animals,
                own_species=log.own_species,
                present=log.present,
                basis=log.kit.basis,
            )
        )
    except CannotAnswer:
        return None


def _weekly_test() -> Action:
    return Action(
        do="test",
        title="Test once a week",
        detail="Ammonia, nitrite, nitrate, pH; after new animals, cleaning or a power cut more often.",
        reason="A running filter can still fade or be upset.",
        when="now",
    )
