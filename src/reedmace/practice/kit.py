"""What a practice tank's kit shows: a place on the scale of each vial, with the scatter of a real kit."""

from typing import Any

import numpy as np

from reedmace.core.cycle.record.log import KitSteps
from reedmace.core.quantity.units import NITROGEN_SHARE
from reedmace.standins.practice_run import Sample

SCATTER = 0.12
"""Scatter of a vial's colour, as a share of its figure (memory)."""


def true_ppm(sample: Sample, kit: KitSteps) -> dict[str, float]:
    """Ammonia, nitrite and nitrate of the true water in the kit's own ppm, as the ion or as nitrogen."""
    true = {"ammonia": (sample.tan, "NH4"), "nitrite": (sample.no2, "NO2"), "nitrate": (sample.no3, "NO3")}
    return {what: n / (1.0 if kit.basis == "N" else NITROGEN_SHARE[ion]) for what, (n, ion) in true.items()}


def steps_of(kit: KitSteps) -> dict[str, list[float]]:
    """The steps printed for each vial, ppm."""
    return {"ammonia": kit.ammonia_ppm, "nitrite": kit.nitrite_ppm, "nitrate": kit.nitrate_ppm}


def vial_ppm(sample: Sample, kit: KitSteps, seed: int, minute: float) -> dict[str, float]:
    """Ammonia, nitrite and nitrate as the vials show them, in the kit's ppm.

    sample: the true water; seed: of the kit's scatter; minute: of the test.
    """
    rng = np.random.default_rng((seed, 81, round(minute)))
    true = true_ppm(sample, kit)
    return {what: max(ppm * (1 + SCATTER * float(rng.standard_normal())), 0.0) for what, ppm in true.items()}


def place_on(steps: list[float], ppm: float) -> float:
    """Place of a figure between the steps of a scale: 0 at the first, 1 at the second. steps: rising, in ppm."""
    return float(np.interp(ppm, steps, np.arange(len(steps))))


def read_kit(sample: Sample, steps: KitSteps, seed: int, minute: float) -> dict[str, Any]:
    """A full test as a careful eye reads it: the nearest step of each vial, KH by drops, pH by fifths.

    sample: the true water; steps: of the kit; seed: of its scatter; minute: of the test.
    """
    shown, found, off = vial_ppm(sample, steps, seed, minute), {}, []
    for what, printed in steps_of(steps).items():
        nearest = min(printed, key=lambda step: abs(place_on(printed, step) - place_on(printed, shown[what])))
        found[f"{what}_ppm"] = nearest
        if shown[what] >= printed[-1]:
            off.append(what)
    drops = int(np.ceil(sample.kh_dkh / steps.kh_step_dkh - 1e-9))
    return {
        **found, "basis": steps.basis, "off_scale": off, "kh_dkh": min(drops * steps.kh_step_dkh, 40),
        "ph": min(max(round(sample.ph * 5) / 5, 4.0), 10.0), "temperature_c": round(sample.warmth_c * 2) / 2,
    }  # fmt: skip
