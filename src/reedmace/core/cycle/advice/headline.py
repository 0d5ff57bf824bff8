"""The headline of a cycle in an empty tank: a decision table, the first matching row wins."""

from collections.abc import Callable
from dataclasses import dataclass

from reedmace.core.cycle.advice.action import MUCH_AMMONIA_MG_N_L
from reedmace.core.cycle.advice.first_aid import renewed_share
from reedmace.core.cycle.judgement.stalls import Diagnosis
from reedmace.core.cycle.record.kit_checks import kit_is_stuck, nitrite_never_showed
from reedmace.core.cycle.record.log import CycleLog
from reedmace.core.cycle.record.nitrification import film_at_work, nitrate_did_not_rise
from reedmace.core.cycle.record.proof import ammonia_never_seen, shows_poison
from reedmace.core.cycle.record.water_now import WaterNow
from reedmace.core.quantity import formatting


@dataclass(frozen=True)
class Seen:
    """Inputs of the decision table."""

    log: CycleLog
    s: WaterNow
    d: Diagnosis
    stalled: bool

    @property
    def nitrite(self) -> float:
        """Nitrite as last read, mg N/L; 0 where the kit shows none."""
        read = self.s.nitrite[1] if self.s.nitrite else 0.0
        return read if read > self.log.kit.zero_mg_n_l("nitrite") else 0.0


def _was_seen(log: CycleLog) -> bool:
    """Whether ammonia or nitrite was read since the first dose: only then do zeros prove nitrification."""
    fed = min((d.day for d in log.doses), default=0.0)
    return any(shows_poison(log, r) for r in log.readings if r.day > fed)


Row = tuple[Callable[[Seen], bool], str | Callable[[Seen], str]]


def _cause(n: Seen) -> str:
    title = n.d.causes[0].title
    return f"It has stalled: {formatting.inside(title)}"


def _hidden(n: Seen) -> str:
    why = (
        "nitrite is off the scale, where a fall would not show"
        if n.d.has("off-scale")
        else "the kit is past its date, and may not show a fall"
    )
    return f"It may not have stalled: {why}."


def _zero(n: Seen) -> bool:
    return n.s.ammonia_now <= n.log.kit.zero_mg_n_l("ammonia")


def _both_zero(n: Seen) -> bool:
    return _was_seen(n.log) and _zero(n)


ROWS: tuple[Row, ...] = (
    (
        lambda n: n.stalled and n.s.low_kh and n.s.acid,
        "It has stalled: the filter bacteria have used up the alkalinity and the water turned acid.",
    ),
    (lambda n: n.stalled and n.s.low_kh, "It is about to stall: the alkalinity is nearly used up."),
    (lambda n: n.stalled, _cause),
    (
        lambda n: renewed_share(n.log, n.s) > 0,
        "The bacteria have eaten up this soft water's little bicarbonate and stand nearly still: renew some of it.",
    ),
    (lambda n: n.d.stuck and n.d.unseen(), _hidden),
    (lambda n: not n.log.readings, "Nothing is known yet: begin with a test of the bare water."),
    (lambda n: n.s.low_kh, "KH is low: put it right before it stops the filter bacteria."),
    (
        lambda n: n.log.doses_ammonia() and not n.log.doses and not film_at_work(n.log) and not _was_seen(n.log),
        "First meal: the filter bacteria have had nothing to eat yet.",
    ),
    (
        lambda n: kit_is_stuck(n.log),
        lambda n: f"Ammonia reads {n.log.ppm(n.s.ammonia_now)} in every test, whatever is done: test the kit.",
    ),
    (
        lambda n: ammonia_never_seen(n.log),
        "None of the ammonia dosed has ever shown in a test: the bottle is dead, or the kit is.",
    ),
    (
        lambda n: nitrite_never_showed(n.log),
        "The ammonia has gone, and neither nitrite nor nitrate ever showed what became of it: test the nitrite kit.",
    ),
    (
        lambda n: n.log.method == "planted" and n.log.plants_growing_day is not None,
        "Quiet: the plants are at work, and the weeks are counting.",
    ),
    (
        lambda n: n.log.method == "planted",
        "Waiting for new growth: until it shows, the plants take little.",
    ),
    (
        lambda n: n.nitrite > 0 and (n.s.ammonia_now < MUCH_AMMONIA_MG_N_L or n.nitrite > 0.3),
        "On its way: ammonia is being turned into nitrite, and the bacteria that eat nitrite are growing.",
    ),
    (lambda n: n.nitrite > 0, "It has begun: the first nitrite shows."),
    (
        lambda n: _both_zero(n) and nitrate_did_not_rise(n.log),
        "The doses are gone, but nitrate did not rise: no filter bacteria show. Shake the nitrate kit and test again.",
    ),
    (
        lambda n: _both_zero(n) and n.log.doses_ammonia(),
        "Nearly there: both read zero. Now prove it with a dose.",
    ),
    (_both_zero, "Nearly there: both read zero."),
    (
        lambda n: _zero(n) and n.log.doses_ammonia(),
        "Both read zero, but no test has seen a dose in the water yet: look an hour after one goes in.",
    ),
    (
        lambda n: n.s.nitrite is None and bool(n.log.doses),
        "Ammonia alone tells half: test nitrite too, it shows how far the bacteria are.",
    ),
    (
        lambda n: film_at_work(n.log),
        "Filter bacteria have been at work here: a test a day after the dose shows whether they clear it.",
    ),
    (
        lambda n: True,
        "Waiting for the first bacteria: nothing has used the ammonia yet, usual in the first one to three weeks.",
    ),
)


def headline(log: CycleLog, s: WaterNow, d: Diagnosis, stalled: bool) -> str:
    """The headline for the current state.

    log: the cycle's; s: the water now; d: the causes found; stalled: whether it stands still.
    """
    seen = Seen(log, s, d, stalled)
    says = next(says for holds, says in ROWS if holds(seen))
    return says if isinstance(says, str) else says(seen)
