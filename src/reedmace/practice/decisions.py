"""Decisions of a keeper at a practice tank: each visit, what was advised, and what following it would have become."""

import math
from collections.abc import Sequence
from datetime import timedelta
from itertools import pairwise
from typing import Annotated, Any, NamedTuple

from pydantic import Field

from reedmace.core.chemistry.salinity import SEA_G_KG
from reedmace.core.contract import Part, number, whole
from reedmace.core.cycle import CycleAdviceAnswer, CycleAdviceQuestion, CycleLog, cycle_advice
from reedmace.core.cycle.advice.action import Action
from reedmace.core.quantity import formatting
from reedmace.core.upkeep.year_cost import KWH_PRICE, SALT_PRICE_KG, WATER_PRICE_M3
from reedmace.logbook.replay.cycle_log import care_log, cycle_log, kit_of
from reedmace.logbook.replay.entries import Entry, MediaWork
from reedmace.logbook.replay.state import replay
from reedmace.practice.kit import read_kit
from reedmace.practice.lesson import DAY
from reedmace.practice.record import Days, Practice
from reedmace.practice.truth import shown_by
from reedmace.standins.practice_now import Checkpoint
from reedmace.standins.practice_run import Act, Run
from reedmace.standins.practice_tank import PracticeTank

UNWRITTEN_ID = 2**52
"""Id of an entry that is in no logbook."""
FOLLOWED_DAYS = 90.0
"""Days after a visit for which what else would have become of the tank is followed, and nothing later counted."""
MOST_DECISIONS = 40
"""Decisions looked at, the newest first; more are not told."""
_DONE_BY = {"dose-ammonia": "dose", "change-water": "water-change", "raise-kh": "alkalinity", "add-animals": "stocking"}
_ENTRY_WORDS = {"dose": "ammonia was dosed", "water-change": "water was changed", "alkalinity": "soda was given",
         "stocking": "animals were put in", "media-work": "media were worked on"}  # fmt: skip
TESTS = ("test", "test-other-kit")
NOTHING = "Nothing was done"
TOLD_MONEY = 0.5
"""Amount of money below which none is told (a stated judgement)."""
KEEPER_ACTS = ("dose", "soda", "change", "untreated-change", "animals", "film-loss")
"""Acts of a keeper that following the advice replaces."""
CLEARS = 0.8
"""Capacity of both halves of the film at which a cycle is as good as done, mg N/(L day) (a stated judgement)."""
LITTLE_FOOD = 0.25
"""Share of the ration that is little food, as the advice has it."""
ANIMAL_PRICE, RUNNING_W = 4.0, 40.0
"""Price of an animal, and what filter and heater draw on average, where a practice tank is paid for (memory)."""
KILLS_FILM = ("rinsed-tap", "replaced", "dried")


class Decision(Part):
    """One visit to the tank: what was advised, what was done, and what following the advice would have made of it."""

    day: Days
    believed: str = Field(description="What the logbook let one believe")
    advised: str
    done: str
    followed: bool
    lost_more_count: Annotated[int, whole(-(10**6), 10**6)] = Field(description="Animals lost for it: here less there")
    days_longer: Annotated[float, number("days", -1e4, 1e4, "Until the film clears the load")]
    litres_more: Annotated[float, number("L", -1e6, 1e6, "Of water changed")]
    money_more: Annotated[
        float, number("money", -1e7, 1e7, "At usual prices: animals lost, water changed, current until it is ready")
    ]


def log_at(practice: Practice, entries: Sequence[Entry], minute: float) -> CycleLog | None:
    """A logbook as the rules read it; None where it has nothing to go by. minute: on the clock."""
    now = practice.model_copy(update={"minutes": minute}).now()
    state = replay(list(entries))
    return cycle_log(state, now) or care_log(state, now)


def advice_at(practice: Practice, entries: Sequence[Entry], minute: float) -> CycleAdviceAnswer | None:
    """The ordinary advice on a logbook; None where it has nothing to go by. minute: on the clock."""
    log = log_at(practice, entries, minute)
    return None if log is None else cycle_advice(CycleAdviceQuestion(log=log))


def advised_acts(
    advice: CycleAdviceAnswer, tank: PracticeTank, span: tuple[float, float], feed: float = 1.0
) -> list[Act]:
    """What following the advice of now does to a tank.

    span: when it is followed and when its keeper comes again, minutes; feed: share of the ration given otherwise.
    """
    minute, until = span
    litres = tank.setup.net_l
    acts = []
    for action in _now(advice):
        share = action.share or (action.amount / litres if action.amount_unit == "L" and action.amount else None)
        if action.do == "dose-ammonia" and action.raise_mg_n_l:
            acts.append(Act(minute, "dose", action.raise_mg_n_l * tank.dose_strength()))
        elif action.do == "raise-kh" and action.raise_dkh:
            acts.append(Act(minute, "soda", action.raise_dkh))
        elif action.do == "change-water" and share:
            acts += [Act(minute + 120 * n, "change", min(share, 0.95)) for n in range(action.times_count)]
        elif action.do == "feed-little":
            acts += [Act(minute, "feed", LITTLE_FOOD), Act(until, "feed", feed)]
        elif action.do == "aerate":
            acts.append(Act(minute, "air-stone", 1.0))
        elif action.do in ("warm", "cool") and action.to_c:
            acts.append(Act(minute, "heater", action.to_c))
    return acts


def _now(advice: CycleAdviceAnswer) -> list[Action]:
    return [a for a in (advice.first, *advice.then) if a.when in ("now", "tonight")]


def decisions(
    practice: Practice, tank: PracticeTank, entries: Sequence[Entry], acts: list[Act], run: Run
) -> list[Decision]:
    """The newest decisions, oldest first.

    tank, acts, run: the true tank, everything done to it and what became of it; entries: of the logbook.
    """
    visits = sorted({at for at in practice.visits if at < practice.minutes})[-MOST_DECISIONS:]
    before_each = tank.checkpoints(acts, visits)
    found = []
    for (visit, until), at_visit in zip(pairwise([*visits, practice.minutes]), before_each, strict=True):
        inside = [e for e in entries if visit <= practice.minute_of(e.written_at) < until]
        before = [e for e in entries if practice.minute_of(e.written_at) < visit]
        tested = [e for e in inside if e.body.kind == "reading"]
        at = visit + 15
        advice = advice_at(practice, [*before, *tested], at)
        if advice is None:
            continue
        then = advice
        if not tested and any(a.do in TESTS for a in _now(advice)):
            # The test that was advised would have been made, and what it says been done.
            read = read_kit(
                shown_by(practice, run.at(visit)), kit_of(replay(before), practice.now()), practice.seed, visit
            )
            then = advice_at(practice, [*before, _test_made(practice, visit, read)], at) or advice
        true = AtVisit(tank, at_visit, acts, run)
        found.append(_decision(practice, true, (visit, until, at), inside, (advice, then)))
    return found


def _test_made(practice: Practice, minute: float, read: dict[str, Any]) -> Entry:
    """A test that nobody made, as an entry. read: its figures."""
    at = practice.began_at + timedelta(minutes=minute)
    return Entry.model_validate(
        {"id": UNWRITTEN_ID, "key": "not-made", "at": at, "written_at": at, "body": {"kind": "reading", **read}}
    )


class AtVisit(NamedTuple):
    """The true tank at a visit: shortly before it, with everything done to it, and what became of it."""

    tank: PracticeTank
    before: Checkpoint
    acts: list[Act]
    run: Run


def _decision(
    practice: Practice,
    true: AtVisit,
    when: tuple[float, float, float],
    inside: Sequence[Entry],
    advised: tuple[CycleAdviceAnswer, CycleAdviceAnswer],
) -> Decision:
    """One visit to the tank.

    when: its begin and end, and when advice is followed, minutes; advised: at first, and after the test it asked for.
    """
    tank, _, acts, run = true
    visit, until, at = when
    advice, then = advised
    # Squeezing media in tank water is ordinary care; what kills film is a decision.
    done = {
        e.body.kind
        for e in inside
        if e.body.kind in _ENTRY_WORDS and not (isinstance(e.body, MediaWork) and e.body.what not in KILLS_FILM)
    }
    wanted = {_DONE_BY[a.do] for a in _now(then) if a.do in _DONE_BY}
    # Animals that may come need not come at once.
    followed = then is advice and done == wanted - ({"stocking"} - done)
    lost, longer, litres = 0, 0.0, 0.0
    if not followed:
        hands = [a for a in acts if visit <= a.minute < until and a.what in KEEPER_ACTS]
        fed = next((s.value for s in reversed(practice.settings) if s.name == "feed" and s.minute <= until), 1.0)
        other = [a for a in acts if a not in hands] + advised_acts(then, tank, (at, until), fed)
        end = min(practice.minutes, until + FOLLOWED_DAYS * DAY)
        instead = tank.resume(true.before, other, end)
        lost, litres = run.lost_by(end) - instead.lost, run.changed_l(end) - instead.changed_l(end)
        longer = _days_to_clear(run, end) - _days_to_clear(instead, end)
    title = formatting.opening(advice.first.title)
    if then is not advice:
        # The test comes first, whatever else was asked for beside it.
        test = next(a for a in _now(advice) if a.do in TESTS)
        title = f"{formatting.opening(test.title)}. Then, by what it reads: {formatting.inside(then.first.title)}"
    said = ", ".join(words for kind, words in _ENTRY_WORDS.items() if kind in done)
    return Decision(
        day=visit / DAY,
        believed=advice.verdict,
        advised=title,
        done=formatting.opening(said) if said else NOTHING,
        followed=followed,
        lost_more_count=lost,
        days_longer=longer,
        litres_more=litres,
        money_more=_money(lost, longer, litres, salt=tank.setup.salt),
    )


def _money(lost_count: int, days: float, litres: float, *, salt: bool) -> float:
    """What animals, days and litres come to at usual prices. salt: whether the water is the sea's."""
    water = WATER_PRICE_M3 / 1000 + (SALT_PRICE_KG * SEA_G_KG / 1000 if salt else 0.0)
    money = lost_count * ANIMAL_PRICE + litres * water + days * 24 * RUNNING_W / 1000 * KWH_PRICE
    return money if abs(money) >= TOLD_MONEY else 0.0


def _days_to_clear(run: Run, end: float) -> float:
    at = next((s.minute for s in run.samples if s.minute <= end and min(s.clears, s.clears_nitrite) >= CLEARS), None)
    return (end if at is None else at) / DAY


def done_well(decisions: Sequence[Decision]) -> list[str]:
    """Up to three visits that followed the advice when something was to be done, the last of each kind."""
    found: dict[str, str] = {}
    for one in decisions:
        if one.followed and one.done != NOTHING:
            found[one.done] = f"Day {one.day:.0f}: {formatting.inside(one.done)}, as the tank asked for."
    waited = next((d for d in decisions if d.followed and d.done == NOTHING), None)
    if waited is not None:
        found.setdefault(NOTHING, f"Day {waited.day:.0f}: nothing was to be done, and nothing was.")
    return list(found.values())[:3]


def cost_most(decisions: Sequence[Decision]) -> str | None:
    """The decision that cost most: in animals, else in days."""
    deviating = [d for d in decisions if not d.followed]
    worst = max(deviating, key=lambda d: (d.lost_more_count, d.days_longer), default=None)
    if worst is None or (worst.lost_more_count <= 0 and worst.days_longer < 1):
        return None
    cost = (
        f"{worst.lost_more_count} animal{'s' if worst.lost_more_count > 1 else ''}"
        if worst.lost_more_count > 0
        else f"{math.ceil(worst.days_longer)} days"
    )
    if worst.money_more > 0:
        cost += f" and about {formatting.money(worst.money_more)} in money"
    return (
        f"Day {worst.day:.0f} cost {cost}: {formatting.inside(worst.done)}, where the advice was"
        f" “{formatting.inside(worst.advised)}”."
    )
