"""Simulators with other model structures than the forecast's, to test it on tanks it does not know.

`guilds`: two ammonia oxidisers of unlike appetite, complete oxidisers, nitrite oxidisers, a lag before any of them
works, and substrate inhibition (Andrews' form). `biomass`: film as nitrogen bound in cells that it takes out of the
water, oxygen as a state of its own with heterotrophs beside it. Every figure is a memory, chosen so that unseeded tanks
pass in the weeks keepers see.

Many tanks run at once, one entry an array element. Nothing here knows what the forecast assumes.
"""

from dataclasses import dataclass, field
from typing import Literal

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]
Structure = Literal["guilds", "biomass"]
Start = Literal["unseeded", "squeezed", "bottled", "moved"]
STEPS = 24
"""Steps a day."""
_KA = 10.0**-9.24


@dataclass
class IndependentTanks:
    """A number of tanks of one structure and start. seed: of their own parameters. Water in mg N/L and mg CaCO3/L."""

    structure: Structure
    start: Start
    tanks: int
    seed: int = 1
    tan: Floats = field(init=False)
    no2: Floats = field(init=False)
    no3: Floats = field(init=False)
    alkalinity: Floats = field(init=False)
    _own: dict[str, Floats] = field(init=False)
    _day: float = field(init=False, default=0.0)

    def __post_init__(self) -> None:
        rng = np.random.default_rng((self.seed, 7))
        n = self.tanks

        def around(median: float, spread: float) -> Floats:
            found: Floats = median * np.exp(spread * rng.standard_normal(n))
            return found

        self.tan, self.no2, self.no3 = np.zeros(n), np.zeros(n), rng.uniform(0, 2, n)
        self.alkalinity = np.full(n, 8 * 17.85)
        # Initial bacteria of the start, as capacity in mg N/L a day, over those on glass and gravel.
        bare = around(0.004, 0.7)
        brought = {
            "unseeded": np.zeros(n),
            "squeezed": around(0.06, 0.7),
            # From nothing to a great deal.
            "bottled": around(0.025, 1.8),
            "moved": around(1.8, 0.4),
        }[self.start]
        film = bare + brought
        lag = around(4.0, 0.4) * np.where(brought > 3 * bare, 0.25, 1.0)
        self._own = {"lag": lag, "co2": around(0.12, 0.3), "most": around(12.0, 0.3)}
        if self.structure == "guilds":
            share = rng.uniform(0.2, 0.8, n)
            self._own |= {
                "a1": film * share,
                "a2": film * (1 - share) * 0.8,
                "c": film * 0.15,
                "b": film * around(0.5, 0.5),
                "mu1": around(0.58, 0.14),
                "mu2": around(0.44, 0.14),
                "muc": around(0.34, 0.14),
                "mub": around(0.62, 0.14),
                "k1": around(0.6, 0.3),
                "k2": around(0.06, 0.3),
                "kc": around(0.1, 0.3),
                "kb": around(0.25, 0.3),
                "hold_a": around(25.0, 0.3),
                "hold_b": around(18.0, 0.3),
                "decay": around(0.05, 0.2),
            }
        else:
            self._own |= {
                "xa": film / 2.2,
                "xb": film * around(0.5, 0.5) / 3.0,
                "o2": np.full(n, 7.5),
                "mua": around(0.58, 0.14),
                "mub": around(0.64, 0.14),
                "ka": around(0.35, 0.3),
                "kb": around(0.25, 0.3),
                "koa": around(0.5, 0.3),
                "kob": around(1.2, 0.3),
                "kla": around(45.0, 0.4),
                "decay": around(0.04, 0.2),
                "het": around(2.0, 0.5),
            }

    def run(self, days: float) -> None:
        """Simulate further. days: more."""
        steps = max(round(days * STEPS), 0)
        for _ in range(steps):
            (self._guilds if self.structure == "guilds" else self._biomass)(1.0 / STEPS)
            self._day += 1.0 / STEPS

    def dose(self, raise_mg_n_l: Floats) -> None:
        """Add ammonium chloride, by tank. raise_mg_n_l: (tanks,)."""
        self.tan = self.tan + raise_mg_n_l

    def hold_alkalinity(self, least: float) -> None:
        """Raise alkalinity to a level where it is below. least: mg CaCO3/L."""
        self.alkalinity = np.maximum(self.alkalinity, least)

    def _ph(self) -> Floats:
        found: Floats = 6.35 + np.log10(np.maximum(self.alkalinity, 0.3) / 50.04 / self._own["co2"])
        return found

    def _awake(self) -> Floats:
        found: Floats = 1.0 / (1.0 + np.exp(-(self._day - self._own["lag"]) / 0.7))
        return found

    def _burn(self, nitrified: Floats) -> None:
        self.alkalinity = np.maximum(self.alkalinity - 7.14 * nitrified, 0.0)

    def _guilds(self, dt: float) -> None:
        o, ph = self._own, self._ph()
        free = self.tan * _KA / (_KA + 10.0**-ph)
        comfort = 1.0 / (1.0 + (10.0 ** (6.2 - ph)) ** 2)
        awake = self._awake()
        eat1 = self.tan / (self.tan + o["k1"] + self.tan**2 / o["hold_a"]) * comfort * awake
        eat2 = self.tan / (self.tan + o["k2"] + self.tan**2 / 6.0) * comfort * awake
        eatc = self.tan / (self.tan + o["kc"]) * comfort * awake
        eatb = self.no2 / (self.no2 + o["kb"] + self.no2**2 / o["hold_b"]) / (1 + free / 0.25) * comfort * awake
        room = np.maximum(1 - (o["a1"] + o["a2"] + o["c"] + o["b"]) / (2 * o["most"]), 0)
        ammonia = np.minimum((o["a1"] * eat1 + o["a2"] * eat2 + o["c"] * eatc) * dt, self.tan)
        whole = np.minimum(o["c"] * eatc * dt, ammonia)
        nitrite = np.minimum(o["b"] * eatb * dt, self.no2)
        self.tan = self.tan - ammonia
        self.no2 = self.no2 + ammonia - whole - nitrite
        self.no3 = self.no3 + whole + nitrite
        self._burn(ammonia)
        for film, mu, eat in (("a1", "mu1", eat1), ("a2", "mu2", eat2), ("c", "muc", eatc), ("b", "mub", eatb)):
            o[film] = o[film] * np.exp((o[mu] * eat * room - o["decay"] * (1 - 0.5 * eat)) * dt)

    def _biomass(self, dt: float) -> None:
        o, ph = self._own, self._ph()
        free = self.tan * _KA / (_KA + 10.0**-ph)
        comfort = 1.0 / (1.0 + (10.0 ** (6.3 - ph)) ** 3)
        awake = self._awake()
        eat_a = self.tan / (self.tan + o["ka"]) * o["o2"] / (o["o2"] + o["koa"]) * comfort * awake
        eat_b = self.no2 / (self.no2 + o["kb"]) * o["o2"] / (o["o2"] + o["kob"]) / (1 + free / 0.5) * comfort * awake
        full_a, full_b = 2.2 * o["mua"] / 0.58, 3.0 * o["mub"] / 0.64
        ammonia = np.minimum(full_a * o["xa"] * eat_a * dt, self.tan)
        nitrite = np.minimum(full_b * o["xb"] * eat_b * dt, self.no2)
        room = np.maximum(1 - (2.2 * o["xa"] + 3.0 * o["xb"]) / (2 * o["most"]), 0)
        grown_a, grown_b = o["xa"] * o["mua"] * eat_a * room * dt, o["xb"] * o["mub"] * eat_b * room * dt
        dead = o["decay"] * (o["xa"] + o["xb"]) * dt
        # Cells take nitrogen from the water, and return a good part of it when they die.
        built = np.minimum(0.12 * (grown_a + grown_b), 0.2 * self.tan)
        self.tan = np.maximum(self.tan - ammonia - built + 0.08 * dead, 0.0)
        self.no2 = self.no2 + ammonia - nitrite
        self.no3 = self.no3 + nitrite
        self._burn(ammonia)
        breath = 3.43 * ammonia + 1.14 * nitrite + o["het"] * o["o2"] / (o["o2"] + 0.5) * dt
        o["o2"] = np.clip(o["o2"] + o["kla"] * (8.1 - o["o2"]) * dt - breath, 0.2, 8.3)
        o["xa"] = o["xa"] + grown_a - o["decay"] * o["xa"] * dt
        o["xb"] = o["xb"] + grown_b - o["decay"] * o["xb"] * dt
