"""What the log says about the water now, why a cycle has stalled, and what will stall it next."""

from dataclasses import dataclass, field
from typing import Annotated, Literal

import numpy as np

from reedmace.core.chemistry import un_ionised_share
from reedmace.core.cycle.log import HIGH_AMMONIA_MG_N_L, CycleLog, LoggedReading
from reedmace.core.quantity import CACO3_PER_DKH
from reedmace.core.working import Part, Working, number

LOW_KH_DKH, GONE_KH_DKH = 2.0, 1.0
LOW_PH, STOPPED_PH = 6.8, 6.5
COOL_C, HOT_C = 22.0, 33.0
NH3_HOLDS_NITRITE_MG_N_L = 0.3
"""Free ammonia that holds nitrite oxidisers well back, inside the 0.1 to 1 mg/L of Anthonisen et al. 1976."""
FORESEE_DAYS = 10.0
STALL_AFTER_DAYS, HIGH_MG_N_L = 10.0, 0.6
"""Before that a film that does nothing is young, not stalled; under that a poison does not stand high (memory)."""

CauseKind = Literal[
    "alkalinity", "acid", "cold", "hot", "overdosed", "free-ammonia", "phosphate", "chlorine", "filter-off", "off-scale",
    "skimmer", "sterile-filter", "media", "kit",
]  # fmt: skip
UNSEEN: frozenset[CauseKind] = frozenset({"off-scale", "kit"})
"""Reasons why a fall would not show, which is not the same as a stall."""


class Finding(Part):
    """One thing looked at: a cause of a stall with its evidence, or ruled out."""

    title: str
    detail: str
    kind: CauseKind | None = None


class Foreseen(Part):
    """What will stall the cycle if nothing is done, and about when."""

    kind: CauseKind
    what: str
    day: Annotated[float, number("days", 0, 500, "Since the start")]
    detail: str


@dataclass
class State:
    """The water now, as far as the log tells: mg N/L, dKH, °C; None where never tested."""

    ammonia: tuple[float, float] | None
    nitrite: tuple[float, float] | None
    nitrate: tuple[float, float] | None
    ammonia_now: float
    kh_now: float | None
    ph: float | None
    temperature: float
    newest: LoggedReading | None
    acid: bool
    low_kh: bool


@dataclass
class Diagnosis:
    """Causes with evidence, what is ruled out, what is foreseen, and whether the readings stand still."""

    stuck: bool
    causes: list[Finding] = field(default_factory=list)
    ruled_out: list[Finding] = field(default_factory=list)
    foreseen: list[Foreseen] = field(default_factory=list)

    def stalled(self) -> bool:
        """Whether the readings stand still, for a reason other than that a fall would not show."""
        return self.stuck and bool(self.causes) and not self.unseen()

    def unseen(self) -> bool:
        """Whether nothing was found but why a fall would not show."""
        return bool(self.causes) and all(c.kind in UNSEEN for c in self.causes)

    def has(self, kind: CauseKind) -> bool:
        """Whether that cause was found. kind: which."""
        return any(c.kind == kind for c in self.causes)


def state_of(log: CycleLog) -> State:
    """The water now: the newest readings with what was added since. log: the cycle's."""
    ammonia, kh, ph = log.latest("ammonia_mg_n_l"), log.latest("kh_dkh"), log.latest("ph")
    doses = [(d.day, d.raise_mg_n_l) for d in log.doses]
    now = carried(ammonia or (-1.0, 0.0), doses, log, log.tap.ammonia_mg_n_l)
    kh_now = carried(kh, [(a.day, a.raise_dkh) for a in log.alkalinity], log, log.tap_kh_dkh()) if kh else None
    # Water put right since the pH was read: the old figure says nothing any more.
    treated = ph is not None and any(a.day >= ph[0] for a in log.alkalinity)
    return State(
        ammonia=ammonia,
        nitrite=log.latest("nitrite_mg_n_l"),
        nitrate=log.latest("nitrate_mg_n_l"),
        ammonia_now=now,
        kh_now=kh_now,
        ph=ph[1] if ph else None,
        temperature=log.temperature_now_c(),
        newest=max(log.readings, key=lambda r: r.day, default=None),
        acid=ph is not None and ph[1] < LOW_PH and not treated,
        low_kh=kh_now is not None and kh_now < LOW_KH_DKH,
    )


def carried(read: tuple[float, float], added: list[tuple[float, float]], log: CycleLog, tap: float) -> float:
    """A figure carried on from the day it was read through what was added and changed since, in the order it happened.

    read: (day, value), any unit; added: (day, amount) in that unit; log: whose changes count; tap: what a change brings.
    A dose before a change is diluted by it, one after is not.
    """
    day_read, value = read
    happened = [(day, 0.0, 0.0, amount) for day, amount in added] + [(c.day, 1.0, c.share, 0.0) for c in log.changes]
    for day, _, share, amount in sorted(happened):
        if day > day_read:
            value = (value + amount) * (1 - share) + tap * share
    return value


def standing_still(log: CycleLog) -> bool:
    """Whether nitrite or ammonia stands high and has not moved over the last three readings spanning two days or more.

    log: the cycle's. Rising nitrite is no stall, it is ammonia at work; ammonia topped up between the readings must have
    been used to read the same.
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
        untouched = carried((begun, first), doses, until, tap)
        most = first + sum(amount for day, amount in doses if day > begun)
        if max(HIGH_MG_N_L, 0.95 * untouched) <= last <= 1.1 * most:
            return True
    return False


def kh_fall_dkh_day(log: CycleLog) -> tuple[float, str] | None:
    """(dKH a day, how found) by which KH falls: from its tests, else from the doses; None when neither tells.

    log: the cycle's. Bicarbonate added between tests is taken out again first.
    """
    # A change brings the tap's own KH: only the tests since the last one tell what the film takes.
    since = max([log.day_now - 14, *(c.day for c in log.changes if c.share > 0.05)])
    rows = sorted((r.day, r.kh_dkh) for r in log.readings if r.kh_dkh is not None and r.day >= since)[-5:]
    if len(rows) >= 3 and rows[-1][0] - rows[0][0] >= 2:
        days = np.array([d for d, _ in rows])
        bare = np.array([kh - sum(a.raise_dkh for a in log.alkalinity if a.day <= d) for d, kh in rows])
        slope = float(np.polyfit(days - days[0], bare, 1)[0])
        return (-slope, f"{len(rows)} KH tests over {days[-1] - days[0]:.0f} days") if slope < -0.02 else None
    recent = [d.raise_mg_n_l for d in log.doses if log.day_now - d.day <= 7]
    if recent and log.day_now >= 5:
        fall = log.alkalinity_eaten_per_n() * sum(recent) / CACO3_PER_DKH / min(7.0, log.day_now)
        return fall, f"{len(recent)} doses in the last week"
    return None


def _foresee(log: CycleLog, s: State, w: Working) -> list[Foreseen]:
    found: list[Foreseen] = []
    fall = kh_fall_dkh_day(log)
    kh = log.latest("kh_dkh")
    if fall and kh and s.kh_now is not None and s.kh_now >= GONE_KH_DKH:
        gone = kh[0] + (s.kh_now - GONE_KH_DKH) / fall[0]
        if log.day_now - 0.5 <= gone <= log.day_now + FORESEE_DAYS:
            w.line(
                "KH gone", "day of test + (KH − 1) / fall a day", f"{kh[0]:.1f} + ({s.kh_now:.1f} − 1) / {fall[0]:.2f}",
                gone, "days", "arithmetic",
            )  # fmt: skip
            found.append(
                Foreseen(
                    kind="alkalinity",
                    what="KH runs out",
                    day=max(gone, log.day_now),
                    detail=f"It falls by {fall[0]:.2f} dKH a day, by {fall[1]}.",
                )
            )
    nitrite = sorted(
        (r.day, r.nitrite_mg_n_l)
        for r in log.readings
        if r.nitrite_mg_n_l is not None and log.day_now - r.day <= 7 and "nitrite" not in r.off_scale
    )[-3:]
    top = log.kit.steps_mg_n_l("nitrite")[-1]
    if len(nitrite) >= 2 and nitrite[-1][0] - nitrite[0][0] >= 1 and s.newest and "nitrite" not in s.newest.off_scale:
        rise = (nitrite[-1][1] - nitrite[0][1]) / (nitrite[-1][0] - nitrite[0][0])
        if rise > 0.05 and nitrite[-1][1] < top:
            at = nitrite[-1][0] + (top - nitrite[-1][1]) / rise
            if log.day_now <= at <= log.day_now + 7:
                found.append(
                    Foreseen(
                        kind="off-scale", what="Nitrite leaves the kit's scale", day=at,
                        detail=f"It rises by {log.ppm(rise, 'nitrite')} a day; dose less, and read it diluted.",
                    )
                )  # fmt: skip
    warmth = sorted((r.day, r.temperature_c) for r in log.readings if r.temperature_c is not None)[-2:]
    if len(warmth) == 2 and warmth[1][0] - warmth[0][0] >= 0.5 and log.day_now - warmth[1][0] <= 3:
        fall_c = (warmth[0][1] - warmth[1][1]) / (warmth[1][0] - warmth[0][0])
        if fall_c >= 0.5 and warmth[1][1] >= COOL_C:
            at = warmth[1][0] + (warmth[1][1] - COOL_C) / fall_c
            if log.day_now - 0.5 <= at <= log.day_now + 5:
                found.append(
                    Foreseen(
                        kind="cold", what="The water turns cold", day=max(at, log.day_now),
                        detail=f"It has lost {fall_c:.1f} °C a day: look at the heater.",
                    )
                )  # fmt: skip
    return sorted(found, key=lambda f: f.day)


def diagnose(log: CycleLog, s: State, w: Working) -> Diagnosis:
    """Every usual cause looked at, with the evidence in the log.

    log: the cycle's; s: the water now; w: gets the lines. Source: common practice; US EPA 1993; Emerson et al. 1975.
    """
    d = Diagnosis(stuck=standing_still(log))

    def cause(kind: CauseKind, title: str, detail: str) -> None:
        d.causes.append(Finding(title=title, detail=detail, kind=kind))

    def ruled(title: str, detail: str) -> None:
        d.ruled_out.append(Finding(title=title, detail=detail))

    if not log.filter_running:
        hours = log.outages[-1].hours if log.outages else 0.0
        cause(
            "filter-off",
            "The filter is off.",
            f"No water reaches the film{f', for {hours:.0f} hours now' if hours >= 1 else ''}.",
        )
    else:
        lately = [o for o in log.outages if log.day_now - o.day <= 14 and o.hours >= 4]
        if lately:
            longest = max(lately, key=lambda o: o.hours)
            cause(
                "filter-off",
                "The filter stood still.",
                f"{longest.hours:.0f} hours on day {longest.day:.0f}{': a closed canister turns airless within hours' if log.filter_closed else ''}.",
            )
        else:
            ruled("The filter.", "No stop is logged.")
    dosed = sum(x.raise_mg_n_l for x in log.doses)
    if s.low_kh and s.kh_now is not None:
        burned = w.line(
            "ΔKH",
            "(7.14 − what comes with it) × N dosed / 17.85",
            f"{log.alkalinity_eaten_per_n():.2f} × {dosed:.2f} / 17.85",
            log.alkalinity_eaten_per_n() * dosed / CACO3_PER_DKH,
            "dKH",
            "epa1993",
        )
        cause(
            "alkalinity",
            "Alkalinity is nearly spent.",
            f"KH reads {s.kh_now:.1f} dKH. The {log.ppm(dosed)} of ammonia dosed so far can burn {burned:.1f} dKH of the {log.start_kh_dkh:.1f} you began with.",
        )
        if s.acid and s.ph is not None:
            cause("acid", f"So pH fell to {s.ph:.1f}.", f"Below about {STOPPED_PH} the film all but stops.")
    elif s.acid and s.ph is not None:
        cause("acid", f"pH is {s.ph:.1f}.", "Below about 6.8 the film slows, below 6.5 it all but stops.")
    elif s.kh_now is not None:
        ruled("Alkalinity.", f"KH {s.kh_now:.1f} dKH is enough for now.")
    if s.temperature < COOL_C:
        cause("cold", "It is cold.", f"{s.temperature:g} °C.")
    elif s.temperature > HOT_C:
        cause("hot", "It is too warm.", f"{s.temperature:g} °C; above 33 the film slows, above 36 it dies.")
    else:
        ruled("Warmth.", f"{s.temperature:g} °C is warm enough.")
    if s.ammonia and s.ammonia_now > HIGH_AMMONIA_MG_N_L:
        cause(
            "overdosed",
            "Too much ammonia.",
            f"{log.ppm(s.ammonia_now)}; above about {log.ppm(HIGH_AMMONIA_MG_N_L)} it holds the film back.",
        )
    if s.ammonia and s.ph is not None:
        free = s.ammonia_now * un_ionised_share(s.ph, s.temperature, log.salinity_g_kg)
        if free >= NH3_HOLDS_NITRITE_MG_N_L and s.nitrite and s.nitrite[1] > 0.6:
            w.line("NH3", "TAN × f", f"{s.ammonia_now:.2f} mg N/L at pH {s.ph:g}", free, "mg N/L", "emerson1975")
            cause(
                "free-ammonia",
                "Free ammonia holds the nitrite step.",
                f"{free:.2f} mg/L at pH {s.ph:g}; from 0.1 to 1 it is held back.",
            )
    phosphate = log.latest("phosphate_ppm")
    if phosphate and phosphate[1] < 0.02:
        cause("phosphate", "No phosphate.", "The film cannot grow without it; a bare new tank may have none.")
    elif phosphate:
        ruled("Phosphate.", f"{phosphate[1]:g} ppm is enough.")
    raw = [c for c in log.changes if not c.treated and log.day_now - c.day <= 14]
    rinsed = [m for m in log.media if m.what == "rinsed-tap" and log.day_now - m.day <= 21]
    if log.tap.chlorine != "none" and (raw or rinsed):
        at = max([c.day for c in raw] + [m.day for m in rinsed])
        cause(
            "chlorine",
            "Chlorine reached the film.",
            f"{'Untreated water went in' if raw else 'Media were rinsed at the tap'} on day {at:.0f}.",
        )
    lost = [m for m in log.media if m.what in ("replaced", "dried") and log.day_now - m.day <= 21]
    if lost:
        cause(
            "media",
            "Film went out with the media.",
            f"Media {lost[-1].what} on day {lost[-1].day:.0f}, {100 * lost[-1].share:.0f} % of them.",
        )
    fresh = [m for m in log.media if m.what == "new-filter" and log.day_now - m.day <= 21]
    if fresh:
        cause(
            "sterile-filter",
            "The added filter is sterile.",
            f"Put in on day {fresh[-1].day:.0f}; it carries no film yet and does nothing for a spike.",
        )
    if log.skimmer_running and log.salinity_g_kg > 10:
        cause("skimmer", "The skimmer strips the food.", "Off until there are animals.")
    if s.newest and "nitrite" in s.newest.off_scale:
        cause("off-scale", "Nitrite is off the kit.", "It reads its top step or more; dilute to see it move.")
    if log.kit.expired:
        cause("kit", "The kit is past its date.", "What it reads may not be so.")
    d.foreseen = [f for f in _foresee(log, s, w) if not d.has(f.kind)]
    return d
