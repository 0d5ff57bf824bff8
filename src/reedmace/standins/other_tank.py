"""One simulated tank whose film works by another structure than the forecast's.

`monod`: one population on ammonia and one on nitrite, Monod with decay, slow to grow, held back by its own substrate
(Haldane). `two-nitrite`: ammonia oxidisers, a fast nitrite oxidiser that needs much and one that is slow and lives on
little, both asleep while starved. What an event costs the film is drawn anew for each tank. Rates are a memory, chosen
so that unseeded tanks pass in the weeks keepers see; only what the keeper does and feeds is shared with the model.
"""

import math
from dataclasses import dataclass, field
from typing import Literal

import numpy as np

from reedmace.core.cycle.record.film_losses import film_losses
from reedmace.core.cycle.record.log import CycleLog, LoggedAlkalinity, LoggedChange, LoggedDose
from reedmace.core.quantity import CACO3_PER_DKH

OtherStructure = Literal["monod", "two-nitrite"]
STEPS = 24
"""Steps a day."""
BARE, MATURE, ROCK = 0.004, 2.7, 0.15
"""Capacity of a bare tank, a whole mature filter and mature rock, mg N/(L day)."""
FOOD_DAYS, PLANT_MG_N_L_DAY = 4.0, 0.6
NITRIFIED, MADE = 7.14, 3.57
"""Alkalinity that nitrification uses and that ammonia from food brings, mg CaCO3 per mg N (equivalent masses)."""


@dataclass
class _Water:
    """State: mg N/L, mg CaCO3/L, and capacities of three populations in mg N/(L day)."""

    day: float
    tan: float
    no2: float
    no3: float
    alkalinity: float
    a: float
    b: float
    c: float
    wakes: float = 0.05

    def copy(self) -> "_Water":
        return _Water(**vars(self))


@dataclass
class OtherTank:
    """A tank that responds to what is done to it, as `SimulatedTank` does.

    log: method, water and litres it starts from, with its events; seed: of its own rates; structure: of its film.
    """

    log: CycleLog
    seed: int = 1
    structure: OtherStructure = "monod"
    doses: list[LoggedDose] = field(default_factory=list)
    changes: list[LoggedChange] = field(default_factory=list)
    added: list[LoggedAlkalinity] = field(default_factory=list)
    _seen: list[tuple[_Water, tuple[object, ...]]] = field(default_factory=list, repr=False)

    def __post_init__(self) -> None:
        rng = np.random.default_rng((self.seed, 11))

        def around(median: float, spread: float) -> float:
            return float(median * np.exp(spread * rng.standard_normal()))

        log = self.log
        film = around(BARE, 0.6)
        if log.method in ("seeded-filter", "side-by-side"):
            film += around(MATURE, 0.4) * log.seed_share
        if log.method == "mature-rock":
            film += around(ROCK, 0.4)
        if log.plants == "many":
            film *= 3
        self._film = film, film * around(0.6, 0.5)
        slow = self.structure == "monod"
        self._growth = around(0.46 if slow else 0.55, 0.12), around(0.5 if slow else 0.62, 0.12)
        self._half = around(0.5 if slow else 0.25, 0.3), around(0.4 if slow else 0.7, 0.3)
        self._decay = around(0.05, 0.25)
        self._most = around(12.0, 0.3)
        self._kill = around(1.0, 0.4)
        self._co2 = log.start_kh_dkh * CACO3_PER_DKH / 50.04 / 10.0 ** (log.start_ph - 6.35)

    def dose(self, day: float, raise_mg_n_l: float) -> None:
        """Add ammonia. day: since the start; raise_mg_n_l: mg N/L."""
        self.doses.append(LoggedDose(day=day, raise_mg_n_l=raise_mg_n_l))

    def alkalinity(self, day: float, raise_dkh: float) -> None:
        """Add baking soda. day: since the start; raise_dkh: dKH."""
        self.added.append(LoggedAlkalinity(day=day, raise_dkh=raise_dkh))

    def water(self, day: float) -> dict[str, float]:
        """The true water: mg N/L, dKH, pH, °C. day: since the start."""
        events = self._events()
        past = next(
            (state for state, done in reversed(self._seen) if state.day <= day and done == _until(events, state.day)),
            None,
        )
        state = past.copy() if past else self._start()
        self._run(state, day, events)
        self._seen = [*self._seen[-6:], (state.copy(), _until(events, state.day))]
        return {
            "ammonia_mg_n_l": state.tan,
            "nitrite_mg_n_l": state.no2,
            "nitrate_mg_n_l": state.no3,
            "kh_dkh": state.alkalinity / CACO3_PER_DKH,
            "ph": min(max(self._ph(state), 4.0), 10.0),
            "temperature_c": self._warmth(day),
        }

    def _start(self) -> _Water:
        a, b = self._film
        log = self.log
        return _Water(0.0, 0.0, 0.0, log.tap.nitrate_mg_n_l, log.start_kh_dkh * CACO3_PER_DKH, a, b, b / 2)

    def _ph(self, s: _Water) -> float:
        return 6.35 + math.log10(max(s.alkalinity, 0.2) / 50.04 / self._co2)

    def _warmth(self, day: float) -> float:
        read = [(r.day, r.temperature_c) for r in self.log.readings if r.temperature_c is not None and r.day <= day]
        return max(read)[1] if read else self.log.temperature_c

    def _events(self) -> list[tuple[float, str, float]]:
        tap = self.log.tap
        found = [(d.day, "dose", d.raise_mg_n_l) for d in self.doses]
        found += [(c.day, "change", c.share) for c in self.changes]
        found += [(a.day, "soda", a.raise_dkh) for a in self.added]
        whole = self.log.model_copy(update={"changes": self.changes, "tap": tap})
        found += [(loss.day, "loss", min(loss.share, 0.98)) for loss in film_losses(whole)]
        return sorted(found)

    def _run(self, s: _Water, until: float, events: list[tuple[float, str, float]]) -> None:
        coming = [e for e in events if s.day < e[0] <= until]
        while s.day < until - 1e-9:
            stop = min(s.day + 1.0 / STEPS, until)
            if coming and coming[0][0] <= stop:
                self._step(s, max(coming[0][0] - s.day, 0.0))
                self._apply(s, coming.pop(0))
            else:
                self._step(s, stop - s.day)

    def _apply(self, s: _Water, event: tuple[float, str, float]) -> None:
        _, what, amount = event
        tap = self.log.tap
        if what == "dose":
            s.tan += amount
        elif what == "soda":
            s.alkalinity += amount * CACO3_PER_DKH
        elif what == "loss":
            left = (1 - amount) ** self._kill
            s.a, s.b, s.c = s.a * left, s.b * left, s.c * left
        else:
            s.tan += amount * (tap.released_mg_n_l() - s.tan)
            s.no2 += amount * (tap.nitrite_mg_n_l - s.no2)
            s.no3 += amount * (tap.nitrate_mg_n_l - s.no3)
            s.alkalinity += amount * (self.log.tap_kh_dkh() * CACO3_PER_DKH - s.alkalinity)

    def _fed(self, day: float) -> float:
        log = self.log
        food = log.food_mg_n_l_day() * (1 - math.exp(-day / FOOD_DAYS))
        since = 0.0 if log.method == "animals-in" or log.stocked_day is None else log.stocked_day
        return food + (log.animals_in_mg_n_l_day if day >= since else 0.0)

    def _still(self, day: float) -> bool:
        return any(o.day <= day < o.day + o.hours / 24 for o in self.log.outages)

    def _step(self, s: _Water, dt: float) -> None:
        ph, warm = self._ph(s), self._warmth(s.day)
        pace = 1.08 ** (min(warm, 33.0) - 25.0) / (1.0 + (10.0 ** (6.3 - ph)) ** 2)
        pace *= 0.05 if self._still(s.day) else 1.0
        free = s.tan * 10.0**-9.24 / (10.0**-9.24 + 10.0**-ph)
        # Asleep while starved, awake within a day or two of food.
        eats = s.tan / (s.tan + 0.1)
        s.wakes += (eats - s.wakes) * min(dt * (1.0 if eats > s.wakes else 0.05), 1.0)
        awake = 1.0 if self.structure == "monod" else 0.3 + 0.7 * s.wakes
        ka, kb = self._half
        on_a = s.tan / (s.tan + ka + s.tan * s.tan / 20.0) * pace * awake
        on_b = s.no2 / (s.no2 + kb + s.no2 * s.no2 / 15.0) / (1 + free / 0.4) * pace
        on_c = 0.0 if self.structure == "monod" else s.no2 / (s.no2 + 0.05 + s.no2 * s.no2 / 3.0) * pace
        turned = min(s.a * on_a * dt, s.tan)
        eaten = min((s.b * on_b + s.c * on_c) * dt, s.no2)
        taken = self._plants(s.day) * s.tan / (s.tan + 0.1) * dt
        fed = self._fed(s.day) * dt
        s.tan = max(s.tan + fed - turned - taken, 0.0)
        s.no2 += turned - eaten
        s.no3 += eaten
        s.alkalinity = max(s.alkalinity + MADE * (fed - taken) - NITRIFIED * turned, 0.0)
        ga, gb = self._growth
        room_a = max(1 - s.a / self._most, 0.0)
        room_b = max(1 - (s.b + s.c) / self._most, 0.0)
        s.a *= math.exp((ga * on_a * room_a - self._decay * pace) * dt)
        s.b *= math.exp((gb * on_b * room_b - self._decay * pace) * dt)
        s.c *= math.exp((0.6 * gb * on_c * room_b - 0.6 * self._decay * pace) * dt)
        s.day += dt

    def _plants(self, day: float) -> float:
        growing = self.log.plants_growing_day
        return PLANT_MG_N_L_DAY if self.log.plants == "many" and growing is not None and day >= growing else 0.0


def _until(events: list[tuple[float, str, float]], day: float) -> tuple[object, ...]:
    return tuple(e for e in events if e[0] <= day)
