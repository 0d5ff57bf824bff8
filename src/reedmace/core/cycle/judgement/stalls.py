"""Why a cycle has stalled: every usual cause checked, with the ones ruled out."""

from dataclasses import dataclass, field

from reedmace.core.contract import Working
from reedmace.core.cycle.judgement.stall_causes import CAUSES, UNSEEN, CauseKind, Finding
from reedmace.core.cycle.record.log import CycleLog
from reedmace.core.cycle.record.water_now import WaterNow, carried_forward

STALL_AFTER_DAYS, HIGH_MG_N_L = 10.0, 0.6
"""Day before which a slow cycle is young rather than stalled, and the concentration above which a poison counts as high
(memory).
"""


@dataclass
class Diagnosis:
    """Causes with evidence, causes ruled out, and whether the readings stand still."""

    stuck: bool
    causes: list[Finding] = field(default_factory=list)
    ruled_out: list[Finding] = field(default_factory=list)

    def stalled(self) -> bool:
        """Whether the readings stand still for a reason other than a fall that would not be visible."""
        return self.stuck and bool(self.causes) and not self.unseen()

    def unseen(self) -> bool:
        """Whether the only findings are reasons why a fall would not be visible."""
        return bool(self.causes) and all(c.kind in UNSEEN for c in self.causes)

    def has(self, kind: CauseKind) -> bool:
        """Whether that cause was found. kind: which."""
        return any(c.kind == kind for c in self.causes)


def readings_stalled(log: CycleLog) -> bool:
    """Whether nitrite or ammonia is high and unchanged over the last three readings spanning two days or more.

    log: the cycle's. Rising nitrite is no stall, it is ammonia at work; ammonia topped up between the readings must
    have been used to read the same.
    """
    if log.day_now <= STALL_AFTER_DAYS:
        return False
    for column in ("nitrite_mg_n_l", "ammonia_mg_n_l"):
        rows = [
            (r.day, getattr(r, column))
            for r in sorted(log.readings, key=lambda r: r.day)
            if getattr(r, column) is not None
        ][-3:]
        if len(rows) < 3 or rows[-1][0] - rows[0][0] < 2:
            continue
        (begun, first), (ended, last) = rows[0], rows[-1]
        ammonia = column == "ammonia_mg_n_l"
        doses = [(d.day, d.raise_mg_n_l) for d in log.doses if ammonia and d.day <= ended]
        until = log.model_copy(update={"changes": [c for c in log.changes if c.day <= ended]})
        tap = log.tap.ammonia_mg_n_l if ammonia else log.tap.nitrite_mg_n_l
        untouched = carried_forward((begun, first), doses, until, tap)
        most = first + sum(amount for day, amount in doses if day > begun)
        if max(HIGH_MG_N_L, 0.95 * untouched) <= last <= 1.1 * most:
            return True
    return False


def diagnose(log: CycleLog, s: WaterNow, w: Working) -> Diagnosis:
    """Every usual cause checked against the log.

    log: the cycle's; s: the water now; w: gets the lines. Source: common practice; US EPA 1993; Emerson et al. 1975.
    """
    found = [finding for look in CAUSES for finding in look(log, s, w)]
    return Diagnosis(
        stuck=readings_stalled(log),
        causes=[f for f in found if f.kind is not None],
        ruled_out=[f for f in found if f.kind is None],
    )
