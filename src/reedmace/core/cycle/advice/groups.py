"""The first group of animals, and the next."""

from reedmace.core.cycle.advice.action import Action
from reedmace.core.cycle.animals.stocking_ramp import RampStep, StockingRampAnswer, StockingRampQuestion, stocking_ramp
from reedmace.core.cycle.judgement.readiness import CycleReadinessAnswer
from reedmace.core.cycle.record.dose_to_prove import dose_to_prove_mg_n_l
from reedmace.core.cycle.record.log import CycleLog
from reedmace.core.errors import CannotAnswer


def first_group(log: CycleLog, ready: CycleReadinessAnswer, *, changed: bool = False) -> Action:
    """The first animals, and when the next may come.

    log: the cycle's; ready: what has been proven; changed: whether the large change has been made.
    """
    who, when_more = "the first animals", "a part of the stock at a time"
    steps = ramp(log, ready)
    if steps:
        who = steps[0].words()
        when_more = "that is all of them" if len(steps) == 1 else f"no more until day {steps[1].day:.0f} after them"
    elif ready.clears:
        when_more = f"no more than is proven. {ready.clears.rstrip('.')}"
    return Action(
        do="add-animals",
        title=f"Add {who}",
        detail=f"Within a few days of the change; {when_more}; test daily for a week.",
        reason="The film starves without them, and outgrown it lets ammonia stand.",
        when="now" if changed else "tomorrow",
    )


def next_group(log: CycleLog, ready: CycleReadinessAnswer) -> list[Action]:
    """After a week of zeros with animals in: the next group, or only the usual care.

    log: the cycle's; ready: what has been proven.
    """
    weekly = Action(
        do="wait",
        title="Weekly care",
        detail="Test, and change a part of the water, once a week; food back to normal over a week.",
        reason="A week of zeros with the animals in: the film carries them.",
        when="later",
    )
    steps = ramp(log, ready)
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


def ramp(log: CycleLog, ready: CycleReadinessAnswer) -> list[RampStep]:
    """Steps still to come; none where nothing is planned or proven, or a species is not listed.

    log, ready: as for `first_group`.
    """
    ramp = _ramp_from(log, ready.proven_mg_n_l_day)
    return ramp.steps if ramp else []


def ramp_ahead(log: CycleLog, ready: CycleReadinessAnswer) -> StockingRampAnswer | None:
    """Stocking ramp from the proven capacity, or else from the challenge dose, to the planned stock.

    None where undefined.

    log: the cycle's; ready: what has been proven.
    """
    if log.animals_are_in() and not log.present:
        return None
    return _ramp_from(log, ready.proven_mg_n_l_day or (0.0 if log.present else dose_to_prove_mg_n_l(log)))


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


def weekly_test() -> Action:
    """The weekly test of a tank that is settled."""
    return Action(
        do="test",
        title="Test once a week",
        detail="Ammonia, nitrite, nitrate, pH; after new animals, cleaning or a power cut more often.",
        reason="A running filter can still fade or be upset.",
        when="now",
    )
