"""Advice once animals are in or about to come: the first group, the next, and days of harmful water."""

from reedmace.core.contract import Working
from reedmace.core.cycle.advice.action import Action, Do, water_preparation
from reedmace.core.cycle.advice.first_aid import other_kit_test
from reedmace.core.cycle.advice.groups import weekly_test
from reedmace.core.cycle.advice.tap_doubt import changes_do_not_help, other_water, tap_brings_poison, tap_test
from reedmace.core.cycle.advice.water_alarm import SETTLED_STALE_DAYS, STALE_DAYS, is_stable
from reedmace.core.cycle.animals.day_plan import Limit
from reedmace.core.cycle.animals.emergency import EmergencyPlanAnswer
from reedmace.core.cycle.animals.emergency_steps import DRIP_SHARE, StepKind
from reedmace.core.cycle.judgement.filter_stop import WATCH_DAYS
from reedmace.core.cycle.record.log import CycleLog
from reedmace.core.cycle.record.nitrite_doubt import nitrite_is_doubted, read_none_beside_another
from reedmace.core.cycle.record.proof import film_damage
from reedmace.core.cycle.record.water_now import WaterNow
from reedmace.core.quantity import formatting
from reedmace.core.quantity.units import as_nitrogen


def with_animals(log: CycleLog, s: WaterNow, plan: EmergencyPlanAnswer | None, w: Working) -> tuple[str, list[Action]]:
    """Verdict and actions with animals in; never an ammonia dose.

    log: the cycle's; s: the water now; plan: for it, None before a poison was tested; w: gets the lines.
    """
    missing = _missing(log, s)
    doubted = plan is not None and not plan.in_danger and nitrite_is_doubted(log)
    if plan is None or (missing and not plan.in_danger and not doubted):
        return _ask_for_tests(log, s, missing)
    w.lines.extend(plan.working)
    if is_stable(log) and not plan.in_danger and not any(one.over for one in plan.limits):
        return "Its cycle is long over; the water is within the limits.", [
            weekly_test().model_copy(update={"when": "later"})
        ]
    if plan.changes and _changed_since(log, s, plan):
        again = Action(
            do="test",
            title="Test again after the change",
            detail="Ammonia, nitrite, pH.",
            reason="The last test is from before the change.",
            when="now",
        )
        rest = [a for a in _steps(log, plan) if a.do in ("aerate", "cool", "warm")]
        return "Water was changed since the last test: test again, to see what is left.", [
            *rest,
            again,
            _feeding(plan),
            *_helped(plan),
        ]
    if doubted:
        return _nitrite_missed(log, s, plan)
    actions = _steps(log, plan)
    pours = bool(plan.changes) or any(step.do == "drip" for step in plan.steps)
    if pours and tap_brings_poison(log, s):
        actions.insert(0, other_water(log))
    elif changes_do_not_help(log, plan):
        actions.append(tap_test())
    actions.append(_feeding(plan))
    poisoned = any(one.over and one.what != "nitrate" for one in plan.limits)
    if log.settled() and not poisoned:
        # The film carries them; it is the water's warmth or acidity that must be seen to come right.
        look = plan.in_danger and not any(a.do == "test" for a in actions)
        return plan.stands, [*actions, *([_look_again()] if look else [])]
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
    # The change itself is the first action; its purpose and limits are in the verdict.
    return plan.stands, [*actions, *_helped(plan)]


def watch_after_chlorine() -> list[Action]:
    """What follows once untreated water has been treated."""
    return [
        Action(
            do="test",
            title="Test ammonia and nitrite tomorrow",
            detail="And every day for a week; half the food meanwhile.",
            reason="Film that chlorine killed shows as ammonia days later.",
            when="tomorrow",
        )
    ]


def _look_again() -> Action:
    return Action(
        do="test",
        title="Read the thermometer and pH again in an hour",
        detail="And morning and evening until both are where they were.",
        reason="What moves fast harms more than where it stands.",
        when="tonight",
    )


def _missing(log: CycleLog, s: WaterNow) -> list[str]:
    """Poisons whose newest test is missing or too old."""
    stale = SETTLED_STALE_DAYS if is_stable(log) else STALE_DAYS
    tests = {"ammonia": s.ammonia, "nitrite": s.nitrite}
    return [what for what, read in tests.items() if read is None or log.day_now - read[0] > stale]


def _changed_since(log: CycleLog, s: WaterNow, plan: EmergencyPlanAnswer) -> bool:
    """Whether water was changed after the oldest test that is over its limit, within the day."""
    tests = {"ammonia": s.ammonia, "nitrite": s.nitrite, "nitrate": s.nitrate}
    over = [read[0] for one in plan.limits if one.over and (read := tests[one.what])]
    # Days later nobody knows again where it stands, changed or not.
    return bool(over) and log.day_now - min(over) <= STALE_DAYS and any(c.day > min(over) for c in log.changes)


def _ask_for_tests(log: CycleLog, s: WaterNow, missing: list[str]) -> tuple[str, list[Action]]:
    """Verdict and actions where a test is due before anything else can be said."""
    if is_stable(log):
        if len(missing) == 1:
            return f"What was tested is within the limits; {missing[0]} was not read.", [
                weekly_test().model_copy(update={"when": "later"})
            ]
        return "The weekly test is due.", [weekly_test()]
    test = Action(
        do="test",
        title=f"Test {missing[0]} too" if len(missing) == 1 else "Test ammonia, nitrite and pH",
        detail="Now, and every day until both have read zero for a week.",
        reason="With animals in and no film yet, both can turn harmful within a day.",
        when="now",
    )
    feed = Action(
        do="feed-little",
        title="Feed a quarter",
        detail="Once a day; take out what is left.",
        reason="Food is where the ammonia comes from.",
        when="now",
    )
    hurt = film_damage(log, log.day_now - WATCH_DAYS)
    stands = f"The film was hurt: {hurt.what}. " if hurt is not None else "Animals are in: "
    rest = "what the water is today decides what to do."
    return f"{stands}{formatting.opening(rest) if hurt else rest}", [test, feed, *_precautionary_change(log, s)]


def _nitrite_missed(log: CycleLog, s: WaterNow, plan: EmergencyPlanAnswer) -> tuple[str, list[Action]]:
    """Verdict and actions where ammonia went and no test shows its nitrite."""
    water: list[Action] = []
    if not _changed_today(log):
        water = [_blind_change(log, s, "Every day until nitrite shows, or another kit reads none.")]
        if tap_brings_poison(log, s):
            water.insert(0, other_water(log))
    sign = "Ammonia has gone, and neither nitrite nor nitrate shows what it became"
    if read_none_beside_another(log):
        sign = "Another kit read nitrite where this one read none"
    return (
        f"{sign}: do not trust the nitrite test yet.",
        [*water, other_kit_test(), _feeding(plan), *_helped(plan)],
    )


def _changed_today(log: CycleLog) -> bool:
    """Whether a third of the water was changed today."""
    return sum(c.share for c in log.changes if log.day_now - c.day < SAME_DAY_DAYS) >= BLIND_SHARE - 0.05


BLIND_SHARE = 1 / 3
"""Share of water changed where nothing can be tested (common practice)."""


SAME_DAY_DAYS = 0.75
"""Days within which a change counts as today's: one made last evening is not this evening's."""
UNREAD_DAYS = 3.0
"""Days in a new tank after which a poison nobody reads may stand at any height (memory)."""


def _precautionary_change(log: CycleLog, s: WaterNow) -> list[Action]:
    """A change of a third where a poison is not known, once a day: unread, it may stand at any height."""
    tests = {"ammonia": s.ammonia, "nitrite": s.nitrite}
    unread = [what for what, read in tests.items() if read is None or log.day_now - read[0] > UNREAD_DAYS]
    if not unread or _changed_today(log):
        return []
    if len(unread) < len(tests):
        return [_blind_change(log, s, f"Every day until {unread[0]} is read too.")]
    change = _blind_change(log, s, "Then get a kit.")
    return [change.model_copy(update={"title": "No kit in the house? Change a third of the water"})]


def _blind_change(log: CycleLog, s: WaterNow, until: str) -> Action:
    """A change of a third of water that nobody can read. until: for how long, in a sentence."""
    return Action(
        do="change-water",
        title="Change a third of the water",
        detail=f"{water_preparation(log, s)} Air first, if they gasp; no food today. {until}",
        reason="What cannot be tested is thinned out: a third does good whatever it holds.",
        when="now",
        share=BLIND_SHARE,
        caution="Unplug heater and filter first; plug them back in after.",
    )


def _feeding(plan: EmergencyPlanAnswer) -> Action:
    return Action(
        do="feed-little",
        title="No food today" if plan.feed_share == 0 else f"Feed {'a quarter' if plan.feed_share < 0.5 else 'half'}",
        detail=plan.feeding,
        reason="Food is where the ammonia comes from.",
        when="now",
    )


def _helped(plan: EmergencyPlanAnswer) -> list[Action]:
    return [
        Action(
            do="add-seed",
            title="Get seeded media",
            detail=" ".join(plan.help[:2]),
            reason="It is the only thing that shortens this.",
            when="later",
            caution=plan.vet,
        )
    ]


_DO: dict[StepKind, Do] = {
    "aerate": "aerate",
    "bind": "bind-ammonia",
    "change": "change-water",
    "drip": "change-water",
    "soda": "raise-kh",
    "warm": "warm",
    "cool": "cool",
    "test": "test",
}


def _steps(log: CycleLog, plan: EmergencyPlanAnswer) -> list[Action]:
    """The plan's steps as actions, in order; cautions go with the first action that concerns water."""
    found: list[Action] = []
    poured = False
    for step in plan.steps:
        hours = f", {formatting.hours(step.after_hours)} from now" if step.after_hours else ""
        change = next((c for c in plan.changes if step.do == "change" and c.after_hours == step.after_hours), None)
        share = change.share if change else DRIP_SHARE if step.do == "drip" else None
        in_litres = share is not None and log.litres_known
        wet = step.do in ("change", "drip", "soda", "bind")
        found.append(
            Action(
                do=_DO[step.do],
                title=f"{step.title}{hours or (' now' if step.do == 'change' else '')}",
                detail=step.how,
                reason=_over(log, plan) if wet and not poured else _WHY[step.do],
                when="now" if step.after_hours < 2 else "tonight",
                amount=step.litres if in_litres else step.grams or None,
                amount_unit="L" if in_litres else "g" if step.grams else None,
                share=share,
                raise_dkh=step.raise_dkh or None,
                ph_shift=abs(step.after_ph - step.before_ph) if wet else None,
                caution=" ".join(plan.cautions[:MOST_CAUTIONS]) if wet and not poured else None,
            )
        )
        poured = poured or wet
    return found


MOST_CAUTIONS = 2
"""Most cautions shown with one action, the worst first; the plan lists all of them."""


_WHY: dict[StepKind, str] = {
    "bind": "It buys a day.",
    "change": "So that it is still under its limits tomorrow.",
    "drip": "Tank and tap are too far apart to be mixed at once.",
    "soda": "Film and pH both live on it.",
    "test": "What was done must be seen to have worked.",
    "aerate": "Warm or foul water holds little oxygen, and they need more of it.",
    "warm": "Cold slows them and the film, and lays them open to disease.",
    "cool": "Warm water holds less oxygen while they need more.",
}


def _fine(log: CycleLog, limit: Limit) -> str:
    """A limit to three figures: rounding to the kit's step could hide by how much it is exceeded."""
    share = 1.0 if log.kit.basis == "N" else as_nitrogen(1.0, limit.what, "ion")
    return f"{limit.limit_mg_n_l / share:.3g} ppm"


def _over(log: CycleLog, plan: EmergencyPlanAnswer) -> str:
    """Poisons over their limit and the limit, in the kit's own ppm."""
    found = [
        f"{one.what} reads {log.ppm(one.now_mg_n_l, one.what)} where {_fine(log, one)} is the most"
        for one in plan.limits
        if one.over
    ]
    words = "; ".join(found) or "so that it is still under its limits tomorrow"
    return f"{formatting.opening(words)}."
