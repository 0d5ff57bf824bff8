"""A simulated tank for practice: water, film and animals drawn from a seed, run from what was done to it.

A run is a pure function of the set-up, the seed and the acts, so that the same decision gives the same tank to the
last figure. Figures are a memory, chosen so that unseeded tanks pass in the weeks keepers see and animals show distress
before they die.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from reedmace.core.quantity import CACO3_PER_DKH
from reedmace.core.stock import Animals, WasteLoadQuestion, waste_load
from reedmace.core.stock.species import Species, find_species
from reedmace.standins import practice_kernel as k
from reedmace.standins.practice_animals import (
    DIES_AT,
    DIES_SHARE,
    DISTRESS_AT,
    RECOVERS,
    ROTS_DAYS,
    SURVIVORS_AT,
    Group,
    Water,
    harms,
)
from reedmace.standins.practice_now import FILM_FLOW, Checkpoint, Now
from reedmace.standins.practice_run import HOUR, Act, Death, Run, Sample, Setup

BARE, MATURE, BOTTLE = 0.004, 2.7, 0.04
"""Capacity of a bare tank, of a whole mature filter on it, and of a bottle that lives, mg N/(L day)."""
OXYGEN_PER_N = 14.0
"""Oxygen animals breathe for each mg of nitrogen they give off, mg."""
KLA_STILL, KLA_FILTER, KLA_AIR = 1.6, 30.0, 25.0
"""Exchange of oxygen with the air: a still surface, a filter that runs, an air stone, per day."""
LEAST_KH_DKH = 0.3
"""KH from which the CO2 of a tank is taken, dKH, where its water holds less: pH without alkalinity tells none."""
ROOM_C, HEATED_H, COOLS_H = 19.0, 6.0, 22.0
CHLORINE_FILM, CHLORINE_HARM = 0.5, 0.9
"""Share of the film that a whole volume of untreated water kills, and the harm it does to animals."""


@dataclass(frozen=True)
class PracticeTank:
    """A tank of its own. setup: as given; seed: of everything in which tanks differ."""

    setup: Setup
    seed: int
    structure: int | None = None
    """One of the kernel's four; None for one drawn from the seed."""
    own_species: tuple[Species, ...] = ()
    """The keeper's, besides those of the table."""

    def parameters(self) -> Any:
        """Its own parameters, (PARAMETERS,)."""
        rng = np.random.default_rng((self.seed, 71))
        drawn = int(rng.integers(4))
        structure = drawn if self.structure is None else self.structure

        def around(median: float, spread: float) -> float:
            return float(median * np.exp(spread * rng.standard_normal()))

        p = np.zeros(k.PARAMETERS)
        p[k.STRUCTURE] = structure
        p[k.MU_A], p[k.MU_A2], p[k.MU_B] = around(0.6, 0.1), around(0.48, 0.1), around(0.6, 0.1)
        # Half saturations of Nitrospira in cultures: 9 to 27 µmol/L (Nowka, Daims and Spieck 2015, from memory).
        p[k.K_A], p[k.K_A2], p[k.K_B] = around(0.45, 0.3), around(0.08, 0.3), around(0.22, 0.25)
        p[k.HOLD_A], p[k.HOLD_B] = around(25.0, 0.3), around(16.0, 0.3)
        p[k.DECAY], p[k.MOST] = around(0.045, 0.2), around(12.0, 0.3)
        p[k.LAG] = around(4.0, 0.3)
        alkalinity = max(self.setup.kh_dkh, LEAST_KH_DKH) * CACO3_PER_DKH
        p[k.CO2] = alkalinity / 50.04 / 10.0 ** (self.setup.ph - 6.35) * around(1.0, 0.08)
        p[k.SALT] = float(self.setup.salt)
        return p

    def _start(self, p: Any) -> Any:
        rng = np.random.default_rng((self.seed, 72))
        s = np.zeros(k.STATES)
        bare = BARE * float(np.exp(0.5 * rng.standard_normal()))
        share = float(rng.uniform(0.3, 0.7)) if int(p[k.STRUCTURE]) == k.GUILDS else 1.0
        s[k.A1], s[k.A2] = bare * share, bare * (1 - share)
        s[k.B1] = 0.5 * bare * float(np.exp(0.4 * rng.standard_normal()))
        s[k.B2] = 0.3 * s[k.B1] if int(p[k.STRUCTURE]) == k.DORMANT else 0.0
        s[k.CELLS] = 0.12 * (s[k.A1] + s[k.B1]) if int(p[k.STRUCTURE]) == k.BIOMASS else 0.0
        s[k.NO3], s[k.ALK], s[k.O2] = self.setup.nitrate_mg_n_l, self.setup.kh_dkh * CACO3_PER_DKH, 8.0
        s[k.ACTIVE] = 0.02
        return s

    def dose_strength(self) -> float:
        """What a dose raises ammonia by, over what was reckoned from its label."""
        rng = np.random.default_rng((self.seed, 73))
        return float(np.exp(0.12 * rng.standard_normal()))

    def run(self, acts: Sequence[Act], until: float, steps_per_hour: int = k.STEPS_PER_HOUR) -> Run:
        """Run it from the start. acts: in any order; until: minutes; steps_per_hour: of the solution."""
        return self._go(self.begin(), acts, until, steps_per_hour)

    def checkpoints(self, acts: Sequence[Act], minutes: Sequence[float]) -> list[Checkpoint]:
        """The tank shortly before some moments, to go on from with other acts. acts: as in `run`; minutes: rising."""
        found, at = [], self.begin()
        for minute in minutes:
            if minute >= HOUR:
                # Before anything that is done at that hour.
                before = math.floor(minute / HOUR - 1e-9) * HOUR
                at = self.later(at, acts, before)
            found.append(at)
        return found

    def resume(self, at: Checkpoint, acts: Sequence[Act], until: float) -> Run:
        """Run it on, exactly as `run` would. at: where the acts before are the same; acts, until: as there."""
        return self._go(at.copied(), acts, until, k.STEPS_PER_HOUR)

    def later(self, at: Checkpoint, acts: Sequence[Act], minute: float) -> Checkpoint:
        """The tank at a full hour, before its acts and its sample. at: earlier; acts: as in `run`; minute: when."""
        if minute <= at.minute:
            return at
        later = at.copied()
        self._go(later, acts, minute, k.STEPS_PER_HOUR, halt=True)
        later.minute = minute
        return later

    def begin(self) -> Checkpoint:
        """The tank at its start."""
        own = self.parameters()
        run = Run(state=self._start(own))
        now = Now(
            self.setup.warmth_c,
            self.setup.warmth_c,
            float(self.setup.filter_runs),
            tap_ammonia=self.setup.tap_ammonia_mg_n_l,
        )
        return Checkpoint(0.0, run, now)

    def _go(self, at: Checkpoint, acts: Sequence[Act], until: float, steps_per_hour: int, *, halt: bool = False) -> Run:
        """Run on in place.

        at: from where, with nothing done at its minute yet; halt: whether to end before what is done at `until`.
        """
        own, run, now, minute, n = self.parameters(), at.run, at.now, at.minute, 0
        coming = sorted((a for a in acts if minute <= a.minute <= until), key=lambda a: a.minute)
        while not (halt and minute >= until - 1e-9):
            while n < len(coming) and coming[n].minute <= minute + 1e-9:
                self._apply(run, now, coming[n], own)
                n += 1
            if minute % HOUR < 1e-6 or HOUR - minute % HOUR < 1e-6:
                run.samples.append(_sample(minute, run, now, own))
            if minute >= until - 1e-9:
                if run.samples[-1].minute < minute:
                    # What a test at this very moment reads, an hour not being full.
                    run.samples.append(_sample(minute, run, now, own))
                return run
            stop = min((math.floor(minute / HOUR + 1e-9) + 1) * HOUR, until)
            if n < len(coming):
                stop = min(stop, max(coming[n].minute, minute))
            if stop > minute:
                self._live(run, now, own, minute, stop, steps_per_hour)
            minute = stop
        return run

    def _live(self, run: Run, now: Now, own: Any, minute: float, stop: float, steps: int) -> None:
        hours = (stop - minute) / HOUR
        to, over = (now.heater, HEATED_H) if now.run > 0 or now.heater > ROOM_C + 12 else (ROOM_C, COOLS_H)
        now.warmth += (to - now.warmth) * (1 - math.exp(-hours / over))
        load = sum(g.count * g.load for g in run.groups)
        f = np.zeros(k.FORCES)
        f[k.FEED] = now.food + 0.4 * load * now.feed
        # Unfed animals still give off a third.
        f[k.WASTE] = load * (0.25 + 0.35 * now.feed)
        f[k.BREATH] = OXYGEN_PER_N * load
        f[k.GROWING], f[k.WARMTH_C] = now.plants, now.warmth
        # A film lives on much less flow than moves the surface.
        f[k.RUNNING] = min(now.flow / FILM_FLOW, now.run)
        f[k.AIRLESS] = (1.0 - f[k.RUNNING]) * self.setup.airless
        f[k.KLA] = KLA_STILL + KLA_FILTER * now.flow + KLA_AIR * now.air
        if self.setup.clogs_days and load > 0:
            now.dirt += now.feed * hours / 24 / self.setup.clogs_days
        run.added_n += (f[k.FEED] + f[k.WASTE]) * hours / 24
        k.advance(run.state, f, own, hours, steps)
        _harm(run, now, own, stop, hours)

    def _apply(self, run: Run, now: Now, act: Act, own: Any) -> None:
        s, x = run.state, act.amount
        if act.what in _POURED:
            s[_POURED[act.what]] += x
            run.added_n += x
        elif act.what in _SET:
            setattr(now, _SET[act.what], x)
        elif act.what == "soda":
            s[k.ALK] += x * CACO3_PER_DKH
            run.added_alkalinity += x * CACO3_PER_DKH
        elif act.what in ("change", "untreated-change"):
            self._change(run, now, act)
        elif act.what == "clean":
            now.dirt *= 1 - x
        elif act.what == "film-loss":
            self._film(run, -min(x, 0.98))
        elif act.what == "film-gain":
            _gain(run, x, own)
        else:
            self._stock(run, act)

    def _film(self, run: Run, by: float) -> None:
        for which in (k.A1, k.A2, k.B1, k.B2):
            run.state[which] *= 1 + by
        # Bacteria that are rinsed away leave with the water.
        run.added_n += by * run.state[k.CELLS]
        run.state[k.CELLS] *= 1 + by

    def _change(self, run: Run, now: Now, act: Act) -> None:
        s, share = run.state, act.amount
        tap = {k.TAN: now.tap_ammonia, k.NO2: 0.0, k.NO3: self.setup.nitrate_mg_n_l, k.ORG: 0.0}
        for which, brings in tap.items():
            run.added_n += share * (brings - s[which])
            s[which] += share * (brings - s[which])
        fresh = self.setup.kh_dkh * CACO3_PER_DKH
        run.added_alkalinity += share * (fresh - s[k.ALK])
        s[k.ALK] += share * (fresh - s[k.ALK])
        run.changes.append((act.minute, share * self.setup.net_l))
        if act.what == "untreated-change":
            self._film(run, -CHLORINE_FILM * share)
            for g in run.groups:
                g.harm += CHLORINE_HARM * share

    def _stock(self, run: Run, act: Act) -> None:
        if act.amount < 0:
            left = -int(act.amount)
            for g in run.groups:
                gone = min(left, g.count) if g.species_id == act.name else 0
                g.count -= gone
                left -= gone
            return
        rng = np.random.default_rng((self.seed, 74, len(run.groups)))
        sensitivity = float(np.exp(0.15 * rng.standard_normal()))
        run.groups.append(replace(self._group(act.name), count=int(act.amount), sensitivity=sensitivity))

    def _group(self, species_id: str) -> Group:
        species = find_species(species_id, "species_id", self.own_species)
        one = waste_load(
            WasteLoadQuestion(
                net_l=self.setup.net_l,
                animals=[Animals(species_id=species_id, count=10)],
                own_species=list(self.own_species),
            )
        ).ammonia_mg_n_l_day / 10  # fmt: skip
        return Group(
            species_id,
            0,
            one,
            1.0,
            species.temperature_low_c,
            species.temperature_high_c,
            species.water_breathing_share,
        )


_POURED = {"dose": k.TAN, "nitrite": k.NO2}
"""Acts that add nitrogen, and the state it is added to."""
_SET = {"feed": "feed", "air-stone": "air", "heater": "heater", "run": "run", "plants": "plants", "food": "food",
        "tap-ammonia": "tap_ammonia"}  # fmt: skip
"""Acts that set what acts on a tank from then on."""


def _gain(run: Run, capacity: float, own: Any) -> None:
    """Put film in that works. capacity: mg N/(L day)."""
    s = run.state
    s[k.A1] += capacity
    s[k.B1] += 0.8 * capacity
    s[k.ACTIVE] = max(s[k.ACTIVE], 0.6)
    if int(own[k.STRUCTURE]) == k.BIOMASS:
        s[k.CELLS] += 0.12 * 1.8 * capacity
        run.added_n += 0.12 * 1.8 * capacity


def _sample(minute: float, run: Run, now: Now, own: Any) -> Sample:
    s = run.state
    ph = k.ph_of(s[k.ALK], own[k.CO2])
    return Sample(
        minute=minute,
        tan=max(float(s[k.TAN]), 0.0),
        no2=max(float(s[k.NO2]), 0.0),
        no3=max(float(s[k.NO3]), 0.0),
        free=float(k.free_ammonia(s[k.TAN], ph, now.warmth)),
        kh_dkh=float(s[k.ALK]) / CACO3_PER_DKH,
        ph=float(ph),
        oxygen=float(s[k.O2]),
        warmth_c=now.warmth,
        clears=float(s[k.A1] + s[k.A2]),
        clears_nitrite=float(s[k.B1] + s[k.B2]),
        alive=sum(g.count for g in run.groups),
        harm=max((g.harm for g in run.groups if g.count), default=0.0),
        flow=now.flow,
    )


def _harm(run: Run, now: Now, own: Any, minute: float, hours: float) -> None:
    """Harm animals by their water, let them recover, and die. minute: now; hours: lived since."""
    s = run.state
    ph = float(k.ph_of(s[k.ALK], own[k.CO2]))
    water = Water(float(k.free_ammonia(s[k.TAN], ph, now.warmth)), float(s[k.NO2]), float(s[k.O2]), now.warmth, ph)
    for g in run.groups:
        if not g.count:
            continue
        each = harms(water, g, salt=bool(own[k.SALT]))
        total, before = sum(each.values()), g.harm
        cause = max(each, key=lambda c: each[c])
        g.harm = max(g.harm + (total * g.sensitivity - (RECOVERS if total < 0.05 else 0.0)) * hours / 24, 0.0)
        if before < DISTRESS_AT <= g.harm:
            run.distress.append((minute, cause))
        if g.harm >= DIES_AT:
            gone = max(math.ceil(DIES_SHARE * g.count), 1)
            g.count, g.harm = g.count - gone, SURVIVORS_AT
            run.deaths.append(Death(minute, g.species_id, gone, cause))
            # What died is broken down in the water: as much as these would have given off in three days.
            rots = ROTS_DAYS * gone * g.load
            run.state[k.ORG] += rots
            run.added_n += rots
