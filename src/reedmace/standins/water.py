"""A simulated tank with its instruments: a colour kit with steps, a thermometer, a pH probe.

The tank runs the cycle model on parameters of its own, so that what it says is not what the forecast assumes.
Everything is deterministic for a seed and knows no clock: time is in days since the start.
"""

import math
from dataclasses import dataclass, field
from datetime import datetime, timedelta
from typing import Any, Protocol

import numpy as np

from reedmace.core.cycle.model.inputs import Scenario, aim_of, model_input_of
from reedmace.core.cycle.model.nitrogen_kernel import CO2, PARAMETERS
from reedmace.core.cycle.model.prior import prior_median, spread_out
from reedmace.core.cycle.model.simulation_kernel import simulate
from reedmace.core.cycle.record.log import CycleLog, KitSteps, LoggedAlkalinity, LoggedChange, LoggedDose
from reedmace.core.quantity import CACO3_PER_DKH
from reedmace.core.quantity.units import NITROGEN_SHARE

TANKS_DIFFER = (0.8, 0.8, 0.12, 0.12, 0.25, 0.25, 0.2, 0.35, 0.3, 0.4, 0.3, 0.3, 0.1)
"""Log spread of the parameters between tanks that look alike (memory).

The forecast's own spread is wider: it leaves room for what its model does not hold.
"""


@dataclass
class SimulatedTank:
    """A tank that responds to what is done to it.

    log: method, water and litres it starts from; seed: of its own parameters; spread: by which such tanks differ, as
    logarithms; slow_tail: whether growth lies further below its median than above, as in the prior.
    `done` gathers what is done: `dose`, `change`, `alkalinity`.
    """

    log: CycleLog
    seed: int = 1
    spread: tuple[float, ...] = TANKS_DIFFER
    slow_tail: bool = False
    doses: list[LoggedDose] = field(default_factory=list)
    changes: list[LoggedChange] = field(default_factory=list)
    added: list[LoggedAlkalinity] = field(default_factory=list)

    def parameters(self) -> Any:
        """Its own parameters (13,), drawn from the prior of its method."""
        rng = np.random.default_rng(self.seed)
        normals, spread = rng.standard_normal(PARAMETERS), np.array(self.spread)
        off = spread_out(normals, spread) if self.slow_tail else spread * normals
        own = np.exp(np.log(prior_median(self.log)) + off)
        own[CO2] = prior_median(self.log)[CO2]
        return own

    def dose(self, day: float, raise_mg_n_l: float) -> None:
        """Add ammonia. day: since the start; raise_mg_n_l: mg N/L."""
        self.doses.append(LoggedDose(day=day, raise_mg_n_l=raise_mg_n_l))

    def change(self, day: float, share: float) -> None:
        """Change water. day: since the start; share: 0 to 1."""
        self.changes.append(LoggedChange(day=day, share=share))

    def alkalinity(self, day: float, raise_dkh: float) -> None:
        """Add baking soda. day: since the start; raise_dkh: dKH."""
        self.added.append(LoggedAlkalinity(day=day, raise_dkh=raise_dkh))

    def water(self, day: float) -> dict[str, float]:
        """The true water: mg N/L, dKH, pH, °C. day: since the start."""
        log = self.log.model_copy(
            update={
                "day_now": day,
                "doses": self.doses,
                "changes": self.changes,
                "alkalinity": self.added,
                "readings": [],
            }
        )
        days = int(day) + 1
        model_input, own = model_input_of(log, days), self.parameters()
        _, kept, _, _ = simulate(
            own[None, :],
            model_input.start,
            model_input.conditions,
            model_input.steps,
            model_input.kinds,
            model_input.values,
            model_input.tap,
            10**6,
            days,
            aim_of(log, Scenario()),
            model_input.sample_steps([day]),
        )
        tan, no2, no3, alkalinity = (max(float(v), 0.0) for v in kept[0, 0])
        return {
            "ammonia_mg_n_l": tan,
            "nitrite_mg_n_l": no2,
            "nitrate_mg_n_l": no3,
            "kh_dkh": alkalinity / CACO3_PER_DKH,
            "ph": min(max(6.35 + math.log10(max(alkalinity, 0.2) / 50.04 / own[CO2]), 4.0), 10.0),
            "temperature_c": log.temperature_c,
        }


class Watered(Protocol):
    """Anything whose true water can be read."""

    def water(self, day: float) -> dict[str, float]:
        """The true water: mg N/L, dKH, pH, °C. day: since the start."""
        ...


@dataclass(frozen=True)
class ColourKit:
    """A kit that reads in steps. steps: printed on it; noise_share: scatter of the eye; seed: of that scatter."""

    steps: KitSteps = field(default_factory=KitSteps)
    noise_share: float = 0.1
    seed: int = 1

    def reading(self, tank: Watered, day: float, start: datetime) -> dict[str, Any]:
        """One full test as a device sends it. tank: which; day: since the start; start: aware time of day 0."""
        rng = np.random.default_rng((self.seed, round(day * 1440)))
        water = tank.water(day)
        found: dict[str, Any] = {"basis": "ion", "off_scale": []}
        for what, ion, printed in (
            ("ammonia", "NH4", self.steps.ammonia_ppm),
            ("nitrite", "NO2", self.steps.nitrite_ppm),
            ("nitrate", "NO3", self.steps.nitrate_ppm),
        ):
            true = water[f"{what}_mg_n_l"] / NITROGEN_SHARE[ion]
            seen = max(true * (1 + self.noise_share * float(rng.standard_normal())), 0.0)
            step = min(printed, key=lambda p: abs(p - seen))
            found[f"{what}_ppm"] = step
            if seen > printed[-1]:
                found["off_scale"].append(what)
        # A titration counts drops: the first that turns the colour.
        found["kh_dkh"] = min(math.ceil(water["kh_dkh"] / self.steps.kh_step_dkh) * self.steps.kh_step_dkh, 40)
        found["ph"] = round(water["ph"] * 5) / 5
        return {"key": f"kit-{self.seed}-{round(day * 1440):07d}", "at": _at(start, day), **found}


@dataclass(frozen=True)
class Thermometer:
    """A thermometer. noise_c: its own scatter, °C; seed: of that scatter."""

    noise_c: float = 0.1
    seed: int = 1

    def reading(self, tank: Watered, day: float, start: datetime) -> dict[str, Any]:
        """One reading as a device sends it. tank: which; day: since the start; start: aware time of day 0."""
        rng = np.random.default_rng((self.seed, round(day * 1440)))
        swing = 0.3 * math.sin(2 * math.pi * day)
        value = tank.water(day)["temperature_c"] + swing + self.noise_c * float(rng.standard_normal())
        return {
            "key": f"thermo-{self.seed}-{round(day * 1440):07d}",
            "at": _at(start, day),
            "temperature_c": round(value, 1),
        }


@dataclass(frozen=True)
class PhProbe:
    """A pH probe that drifts.

    noise_ph: its scatter; drift_ph_day: lost a day since it was calibrated; seed: of the scatter.
    """

    noise_ph: float = 0.02
    drift_ph_day: float = -0.002
    seed: int = 1

    def reading(self, tank: Watered, day: float, start: datetime) -> dict[str, Any]:
        """One reading as a device sends it. tank: which; day: since the start; start: aware time of day 0."""
        rng = np.random.default_rng((self.seed, round(day * 1440)))
        value = tank.water(day)["ph"] + self.drift_ph_day * day + self.noise_ph * float(rng.standard_normal())
        return {
            "key": f"probe-{self.seed}-{round(day * 1440):07d}",
            "at": _at(start, day),
            "ph": round(min(max(value, 4), 10), 2),
        }


def usual_tank(days: int, seed: int = 1) -> SimulatedTank:
    """A usual tank, kept for a number of days: 100 L, 26 °C, KH 6, dosed to 2 ppm when under 1 ppm.

    days: kept for; seed: its own.
    """
    tank = SimulatedTank(CycleLog(net_l=100, day_now=0, start_kh_dkh=6, start_ph=7.5), seed)
    ppm = NITROGEN_SHARE["NH4"]
    for day in range(days + 1):
        water = tank.water(day)
        if water["ammonia_mg_n_l"] < ppm and water["nitrite_mg_n_l"] < 5 * NITROGEN_SHARE["NO2"]:
            tank.dose(day, 2 * ppm - water["ammonia_mg_n_l"])
        if water["kh_dkh"] < 2:
            tank.alkalinity(day, 4 - water["kh_dkh"])
    return tank


def _at(start: datetime, day: float) -> str:
    return (start + timedelta(days=day)).isoformat()
