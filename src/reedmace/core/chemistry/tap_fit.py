"""An unknown tap fitted from three tests: KH, pH as it comes, and pH once it has stood."""

import math
from typing import Annotated, Literal, NamedTuple

import numpy as np
from numpy.typing import NDArray
from pydantic import Field

from reedmace.core.chemistry.carbonate import (
    CO2_MG_PER_MMOL,
    IN_AIR_MG_L,
    IN_AIR_SPREAD,
    LEAST_KH_DKH,
    MMOL_PER_DKH,
    Carbonate,
)
from reedmace.core.contract import PH, Answer, Celsius, Question, Working, computation, number
from reedmace.core.errors import CannotAnswer

TAP_CO2_MMOL, TAP_SPREAD = 0.25, 1.2
"""CO2 of tap water as it comes, mmol/L, and its log spread: from none to what a deep well holds (memory)."""
SOFT_DKH, SOFT_SPREAD = 5.0, 1.5
"""KH of taps, dKH, and its log spread: what is known of one whose KH was not tested (memory)."""
KH_SHARE = 0.05
"""Doubt of a drop kit's reagent, as a share (memory)."""
DISAGREES = 2.0
"""Distance of a test from what the others say, in its own doubts, at which it is named (a stated judgement)."""
SHOWN_PH = 0.1
"""Least shift of pH worth telling (a stated judgement)."""
LEAST_TESTS = 2
NINE_IN_TEN = 1.645
"""Deviations that hold nine in ten of a normal distribution."""
ROUNDS, STEP = 30, 1e-5

Floats = NDArray[np.float64]
TapTest = Literal["KH", "pH from the tap", "pH after standing"]


class TapFitQuestion(Question):
    """Tests of one tap, at least two of the three, and how finely they were read."""

    kh_dkh: Annotated[float, number("dKH", 0, 40, "As the kit counts it")] | None = None
    fresh_ph: PH | None = Field(default=None, description="Within a minute of drawing it")
    stood_ph: PH | None = Field(default=None, description="After a day in an open jug, or an hour with an air stone")
    drop_dkh: Annotated[float, number("dKH", 0.05, 5, "A drop of the KH kit counts so much")] = 1
    step_ph: Annotated[float, number("pH", 0.01, 1, "Between the colours of the card, or what the meter shows")] = 0.4
    temperature_c: Celsius = 20


Dkh = Annotated[float, number("dKH", 0, 400)]
MgL = Annotated[float, number("mg/L", 0, 1e5)]
AnyPh = Annotated[float, number("pH", 0, 14)]


class TapFitAnswer(Answer):
    """What the tap is, each figure with the range that holds it nine times in ten, and a test that does not fit."""

    kh_dkh: Dkh
    kh_low_dkh: Dkh
    kh_high_dkh: Dkh
    co2_mg_l: MgL = Field(description="As it comes from the tap")
    co2_low_mg_l: MgL
    co2_high_mg_l: MgL
    fresh_ph: AnyPh
    settles_ph: AnyPh = Field(description="Once it has lost its CO2, or taken some from the air")
    settles_low_ph: AnyPh
    settles_high_ph: AnyPh
    off: TapTest | None = Field(description="The test furthest from what the others say, where it is far")


class _Figure(NamedTuple):
    """A fitted figure and its range."""

    middle: float
    low: float
    high: float


class _Water(NamedTuple):
    """Logarithms of KH, of the tap's CO2 and of the air's."""

    kh: float
    co2: float
    air: float


def _ph(kh_dkh: float, co2_mmol: float, temperature_c: float) -> float:
    """pH of fresh water by its KH and CO2. kh_dkh: dKH; co2_mmol: mmol/L; temperature_c: °C."""
    alkalinity = max(kh_dkh, LEAST_KH_DKH) * MMOL_PER_DKH
    # Gas exchange without end leaves just this CO2.
    return Carbonate(alkalinity, alkalinity, temperature_c).breathing(co2_mmol, 1e3).ph()


def _figures(at: Floats, temperature_c: float) -> tuple[float, float, float, float]:
    """(KH in dKH, CO2 in mg/L, pH as it comes, pH it settles at) of a water."""
    water = _Water(*(float(x) for x in at))
    kh, co2 = math.exp(water.kh), math.exp(water.co2)
    settles = _ph(kh, math.exp(water.air), temperature_c)
    return kh, co2 * CO2_MG_PER_MMOL, _ph(kh, co2, temperature_c), settles


def _residuals(at: Floats, q: TapFitQuestion) -> Floats:
    """What a water leaves unexplained, in doubts: three priors, then the tests there are."""
    kh, _, fresh, settles = _figures(at, q.temperature_c)
    found = [
        (at[0] - math.log(SOFT_DKH)) / SOFT_SPREAD,
        (at[1] - math.log(TAP_CO2_MMOL)) / TAP_SPREAD,
        (at[2] - math.log(IN_AIR_MG_L / CO2_MG_PER_MMOL)) / IN_AIR_SPREAD,
    ]
    found += [(value - said) / doubt for _, said, doubt, value in _tests(q, kh, fresh, settles)]
    return np.array(found)


def _tests(q: TapFitQuestion, kh: float, fresh: float, settles: float) -> list[tuple[TapTest, float, float, float]]:
    """(test, what it said, its doubt, what the water gives) of every test made."""
    found: list[tuple[TapTest, float, float, float]] = []
    if q.kh_dkh is not None:
        # The colour turns within the last drop.
        middle = max(q.kh_dkh - q.drop_dkh / 2, 0.0)
        found.append(("KH", middle, math.hypot(q.drop_dkh / math.sqrt(12), KH_SHARE * q.kh_dkh), kh))
    ph_doubt = q.step_ph / 2
    if q.fresh_ph is not None:
        found.append(("pH from the tap", q.fresh_ph, ph_doubt, fresh))
    if q.stood_ph is not None:
        found.append(("pH after standing", q.stood_ph, ph_doubt, settles))
    return found


def _slopes(at: Floats, q: TapFitQuestion) -> Floats:
    """Derivative of the residuals by each unknown, (residuals, 3)."""
    columns = [(_residuals(at + step, q) - _residuals(at - step, q)) / (2 * STEP) for step in STEP * np.eye(3)]
    return np.array(columns).T


def _fit(q: TapFitQuestion) -> tuple[Floats, Floats]:
    """The likeliest water and the covariance of its logarithms, by Gauss and Newton with halved steps."""
    at = np.log([max(q.kh_dkh or SOFT_DKH, LEAST_KH_DKH), TAP_CO2_MMOL, IN_AIR_MG_L / CO2_MG_PER_MMOL])
    left = _residuals(at, q)
    for _ in range(ROUNDS):
        slopes = _slopes(at, q)
        move, share = np.linalg.solve(slopes.T @ slopes, -slopes.T @ left), 1.0
        while share > STEP and float(np.sum(_residuals(at + share * move, q) ** 2)) > float(np.sum(left**2)):
            share /= 2
        at = at + share * move
        left = _residuals(at, q)
        if float(np.max(np.abs(move))) < STEP:
            break
    slopes = _slopes(at, q)
    return np.asarray(at, dtype=np.float64), np.asarray(np.linalg.inv(slopes.T @ slopes), dtype=np.float64)


def _ranges(at: Floats, covariance: Floats, temperature_c: float) -> list[_Figure]:
    """Figures of the water with their ranges; KH and CO2 are spread as logarithms, pH as it is."""
    columns = [
        (np.array(_figures(at + step, temperature_c)) - np.array(_figures(at - step, temperature_c))) / (2 * STEP)
        for step in STEP * np.eye(3)
    ]
    slopes = np.array(columns).T
    spread = NINE_IN_TEN * np.sqrt(np.einsum("ij,jk,ik->i", slopes, covariance, slopes))
    kh, co2, fresh, settles = (
        (value, float(off)) for value, off in zip(_figures(at, temperature_c), spread, strict=True)
    )
    logs = [_Figure(x, x * math.exp(-off / x), x * math.exp(off / x)) for x, off in (kh, co2)]
    return logs + [_Figure(x, x - off, x + off) for x, off in (fresh, settles)]


@computation("tap-fit", "An unknown tap fitted from three tests")
def tap_fit(question: TapFitQuestion) -> TapFitAnswer:
    """KH, CO2 and settled pH of a tap from its tests, each with the range that holds it nine times in ten.

    question: dKH, pH, °C. Least squares over the logarithms of KH, of the tap's CO2 and of the air's, with what is
    known of taps and rooms as weak priors; ranges from the curvature at the fit. A test that lies far from what the fit
    says is named: then one of them is misread, or something besides bicarbonate holds the pH.
    Raises CannotAnswer for fewer than two tests.
    Source: carbonate equilibrium (Stumm and Morgan; Millero et al. 2006); Henry's law; least squares; spreads memory.
    """
    q, w = question, Working()
    if sum(one is not None for one in (q.kh_dkh, q.fresh_ph, q.stood_ph)) < LEAST_TESTS:
        raise CannotAnswer(
            "kh_dkh",
            "one test does not tell a tap.",
            "Give at least two of the three: KH, pH as it comes, pH after standing.",
        )
    at, covariance = _fit(q)
    kh, co2, fresh, settles = _ranges(at, covariance, q.temperature_c)
    for symbol, one, unit in (("KH", kh, "dKH"), ("CO2", co2, "mg/L"), ("pH settled", settles, "pH")):
        w.line(symbol, "least squares", f"{one.low:.2f} to {one.high:.2f}", one.middle, unit, "carbonate")
    off = _off(q, kh.middle, fresh.middle, settles.middle)
    return TapFitAnswer(
        verdict=_verdict(kh, co2, fresh, settles, off),
        working=w.lines,
        kh_dkh=kh.middle,
        kh_low_dkh=kh.low,
        kh_high_dkh=kh.high,
        co2_mg_l=co2.middle,
        co2_low_mg_l=co2.low,
        co2_high_mg_l=co2.high,
        fresh_ph=fresh.middle,
        settles_ph=settles.middle,
        settles_low_ph=settles.low,
        settles_high_ph=settles.high,
        off=off,
    )


def _off(q: TapFitQuestion, kh: float, fresh: float, settles: float) -> TapTest | None:
    """The test furthest from the fit, in its own doubts; None where none is far."""
    far = [(abs(value - said) / doubt, name) for name, said, doubt, value in _tests(q, kh, fresh, settles)]
    distance, name = max(far)
    return name if distance > DISAGREES else None


def _verdict(kh: _Figure, co2: _Figure, fresh: _Figure, settles: _Figure, off: TapTest | None) -> str:
    """What the tap is and does, in a few sentences."""
    lies = f"{settles.low:.1f} to {settles.high:.1f}"
    way = "rises" if settles.middle > fresh.middle else "falls"
    moves = (
        f"its pH {way} from {fresh.middle:.1f} to {settles.middle:.1f} as it stands ({lies})"
        if abs(settles.middle - fresh.middle) >= SHOWN_PH
        else f"its pH stays at {settles.middle:.1f} ({lies})"
    )
    said = (
        f"KH {kh.middle:.1f} dKH ({kh.low:.1f} to {kh.high:.1f}) and {co2.middle:.0f} mg/L of CO2"
        f" ({co2.low:.0f} to {co2.high:.0f}): {moves}."
    )
    if off is None:
        return said
    return (
        f"{said} But {off} does not fit the others: test it again. Where it stays so, something besides bicarbonate"
        " holds this pH."
    )
