"""Routine actions in an empty tank: baseline, testing, dosing, feeding, waiting. A decision table, in order."""

from collections.abc import Callable
from dataclasses import dataclass

from reedmace.core.contract import Working
from reedmace.core.cycle.advice.action import MUCH_AMMONIA_MG_N_L, Action, next_dose
from reedmace.core.cycle.advice.first_aid import alkalinity_asked
from reedmace.core.cycle.record.dose_to_prove import may_be_fed
from reedmace.core.cycle.record.log import HIGH_AMMONIA_MG_N_L, HIGH_NITRITE_MG_N_L, CycleLog
from reedmace.core.cycle.record.proof import (
    SEEN_WITHIN_H,
    TEST_FROM_H,
    TEST_UNTIL_H,
    ammonia_never_seen,
    is_believed,
    is_zero,
)
from reedmace.core.cycle.record.water_now import WaterNow
from reedmace.core.film import FOOD_MG_N_PER_G
from reedmace.core.quantity.units import NITROGEN_SHARE

TOP_UP_UNDER_MG_N_L = 1.0 * NITROGEN_SHARE["NH4"]
"""Ammonia below which a dose tops up: 1 ppm (common practice)."""
NOTHING_BY_DAY = 24.0
"""Day after which, with no ammonia used, seed from elsewhere is suggested (common practice)."""
DUE_FROM = 0.95
"""Share of its interval after which a test is due: a little early is the same day."""


def days_between_tests(log: CycleLog, s: WaterNow) -> int:
    """Days between tests while a tank cycles (common practice). log: the record; s: the water now.

    Much ammonia is tested every other day: it cannot be gone tomorrow.
    """
    if log.method == "planted":
        return 7
    return 1 if s.ammonia_now <= MUCH_AMMONIA_MG_N_L else 2


def baseline(log: CycleLog, s: WaterNow, w: Working) -> list[Action]:
    """The baseline test that later readings are compared with, and the first dose.

    log: the cycle's; s: the water now; w: gets the lines.
    """
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
        dose = next_dose(log, s, w)
        if dose:
            actions.append(dose)
    return actions


@dataclass(frozen=True)
class RoutineContext:
    """Inputs of the rules below, computed once."""

    log: CycleLog
    s: WaterNow
    since_days: float
    """Days since the newest test."""
    dosed_h: float
    """Hours since the newest dose."""
    unseen: bool
    """Whether a dose given within the day could count as proof once a test shows it in the water."""
    high_nitrite: bool
    blocked: bool
    """Whether more ammonia would do no good."""

    @property
    def due(self) -> bool:
        """Whether a test is due."""
        often = days_between_tests(self.log, self.s) * DUE_FROM
        if self.since_days >= often:
            return True
        # The test that counts is made a day after a dose, whatever was tested in between to see it in the water.
        counts = TEST_FROM_H <= self.dosed_h <= TEST_UNTIL_H
        return self.log.doses_ammonia() and counts and self.since_days * 24 > self.dosed_h - TEST_FROM_H

    @property
    def asks_test(self) -> bool:
        """Whether a test is to be made now, apart from confirming the dose itself."""
        return self.due and self.since_days > 0.3 and not self.unseen


def _now(log: CycleLog, s: WaterNow) -> RoutineContext:
    high_nitrite = s.nitrite is not None and s.nitrite[1] >= 0.98 * HIGH_NITRITE_MG_N_L
    high_ammonia = s.ammonia_now > HIGH_AMMONIA_MG_N_L
    return RoutineContext(
        log=log,
        s=s,
        since_days=log.day_now - s.newest.day if s.newest else 99.0,
        dosed_h=(log.day_now - max((d.day for d in log.doses), default=-99.0)) * 24,
        unseen=log.doses_ammonia() and _unseen_dose(log),
        high_nitrite=high_nitrite,
        blocked=alkalinity_asked(log, s) != "nothing" or high_nitrite or not log.filter_running or high_ammonia,
    )


def _unseen_dose(log: CycleLog) -> bool:
    """Whether a dose given within the day lacks only a test that shows it, or another of its bottle, in the water."""
    newest = max(log.doses, key=lambda d: d.day, default=None)
    if newest is None or (log.day_now - newest.day) * 24 > SEEN_WITHIN_H:
        return False
    before = max((r for r in log.readings if r.day <= newest.day), key=lambda r: r.day, default=None)
    provable = before is not None and (is_zero(log, before) or len(log.doses) == 1)
    return provable and not is_believed(log, newest)


def _see_the_dose(n: RoutineContext, w: Working) -> Action | None:
    if not n.unseen:
        return None
    return Action(
        do="test",
        title="Test ammonia: is the dose in the water?",
        detail="An hour after it was stirred in, and before half a day has gone.",
        reason="A dose that was never seen proves nothing when it is gone: a dud bottle reads zero too.",
        when="now",
    )


def _no_dose(n: RoutineContext, w: Working) -> Action | None:
    if not n.blocked or not n.log.doses_ammonia():
        return None
    if n.high_nitrite and not n.s.low_kh:
        return Action(
            do="stop-dosing",
            title="No ammonia for now",
            detail=f"Until nitrite reads under {n.log.ppm(HIGH_NITRITE_MG_N_L, 'nitrite')}.",
            reason="More ammonia only becomes more nitrite.",
            when="now",
        )
    return Action(
        do="wait",
        title="No ammonia until then",
        detail=f"No dose until it reads under {n.log.ppm(TOP_UP_UNDER_MG_N_L)} and the water is put right.",
        reason="A stopped film cannot use it.",
        when="now",
    )


def _test(n: RoutineContext, w: Working) -> Action | None:
    if not n.asks_test:
        return None
    days = n.since_days
    return Action(
        do="test",
        title="Test ammonia and nitrite",
        detail="And pH and KH if it is three days since.",
        reason=f"The last test is {days:.0f} day{'s' if round(days) != 1 else ''} old.",
        when="now",
    )


def _dose(n: RoutineContext, w: Working) -> Action | None:
    if n.asks_test or n.blocked or not n.log.doses_ammonia() or n.dosed_h < TEST_FROM_H:
        return None
    topped_up = n.log.method in ("measured-ammonia", "mature-rock")
    under = TOP_UP_UNDER_MG_N_L if topped_up else n.log.kit.zero_mg_n_l("ammonia")
    fed = n.s.ammonia_now <= under or may_be_fed(n.log, n.s.ammonia_now)
    dose = next_dose(n.log, n.s, w) if fed else None
    if dose is None or not ammonia_never_seen(n.log):
        return dose
    if sum(d.raise_mg_n_l for d in n.log.doses) >= HIGH_AMMONIA_MG_N_L:
        # With a faulty kit all of it would still be in the water.
        return Action(
            do="test",
            title="Try another kit before more ammonia",
            detail=(
                "A second kit, or a shop's test of this water. If it reads nothing either, the bottle is dead: dose"
                " once from a fresh one and test an hour later."
            ),
            reason=(
                f"{n.log.ppm(HIGH_AMMONIA_MG_N_L)} and more have been dosed and no test has found any: if the kit is"
                " dead, all of it is in the water."
            ),
            when="now",
        )
    return dose.model_copy(
        update={
            "title": f"{dose.title}, from a fresh bottle",
            "reason": (
                "No test has found any of the ammonia so far: an hour after this one, look whether it is there. If not,"
                " take the kit to be dead."
            ),
        }
    )


def _feed(n: RoutineContext, w: Working) -> Action | None:
    if n.log.method != "fish-food":
        return None
    grams = n.log.food_g_day or max(n.log.planned_load_mg_n_l_day * n.log.net_l / FOOD_MG_N_PER_G, 0.05)
    return Action(
        do="feed-tank",
        title=f"Feed {grams:.2g} g",
        detail="Ground fine, once a day, as if the animals were in.",
        reason="Rotting food is what feeds this film.",
        when="now",
        amount=grams,
        amount_unit="g",
    )


def _watch_growth(n: RoutineContext, w: Working) -> Action | None:
    if n.log.method != "planted":
        return None
    seen = n.log.plants_growing_day is not None
    return Action(
        do="watch-growth",
        title="Leave it to the plants" if seen else "Watch for new growth",
        detail=(
            "Light as long as always, dead leaves out; test once a week."
            if seen
            else "New leaves and runners, not old ones turning; write down the day they show."
        ),
        reason="Growing plants take the ammonia; the four weeks count from new growth.",
        when="now",
    )


def _seed(n: RoutineContext, w: Working) -> Action | None:
    begun = n.s.nitrite is not None and n.s.nitrite[1] > n.log.kit.zero_mg_n_l("nitrite")
    late = n.log.doses_ammonia() and n.log.day_now > NOTHING_BY_DAY
    if not late or begun or n.s.ammonia_now <= 1 or n.blocked:
        return None
    return Action(
        do="add-seed",
        title="Get a handful of seeded media",
        detail="From a healthy tank, wet on the way.",
        reason="After more than three weeks nothing has begun to use the ammonia.",
        when="later",
    )


_RULES: tuple[Callable[[RoutineContext, Working], Action | None], ...] = (
    _see_the_dose, _no_dose, _test, _dose, _feed, _watch_growth,
)  # fmt: skip
"""In the order they are carried out."""


def _test_again(n: RoutineContext) -> Action:
    low = n.s.low_kh or n.s.acid
    wait = 1 if n.s.low_kh and n.log.method != "planted" else days_between_tests(n.log, n.s)
    when = f"in { ({1: 'a day', 2: 'two days', 7: 'a week'}[wait]) }"
    if n.log.doses_ammonia() and n.dosed_h < TEST_FROM_H:
        wait, when = 1, "20 to 28 hours after the dose: that is the test that counts"
    return Action(
        do="test",
        title="Test tomorrow" if wait == 1 else "Test again",
        detail=f"Ammonia and nitrite{', pH and KH' if low else ''}, {when}.",
        reason="A dose gone in a day is the measure." if n.log.doses_ammonia() else "Only tests tell.",
        when="tomorrow" if wait == 1 else "later",
    )


def routine_actions(log: CycleLog, s: WaterNow, aid: list[Action], w: Working) -> list[Action]:
    """First aid and the routine actions after it, in order; always includes a next test.

    log: the cycle's; s: the water now; aid: what must be put right first; w: gets the lines.
    """
    n = _now(log, s)
    found = aid + [action for rule in _RULES if (action := rule(n, w))]
    if not any(a.do == "test" for a in found):
        found.append(_test_again(n))
    seed = _seed(n, w)
    return [*found, seed] if seed else found
