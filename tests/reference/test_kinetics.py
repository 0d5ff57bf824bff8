"""The compiled integrator against SciPy's LSODA, and the forecast's skill on tanks drawn from its own prior."""

import numpy as np
import pytest
from scipy.integrate import solve_ivp

from reedmace.core.computations import compute
from reedmace.core.cycle.course import PRIOR_MEDIAN, PRIOR_SPREAD, still_conditions, temperature_factor
from reedmace.core.cycle.kernel import ADD_ALKALINITY, ADD_TAN, CHANGE_WATER, PARAMETERS, STEPS_PER_DAY, THETA, simulate

KA = 5.7e-10
EVENTS = [
    (0, ADD_TAN, 1.55),
    (8 * STEPS_PER_DAY, ADD_TAN, 1.2),
    (15 * STEPS_PER_DAY, ADD_ALKALINITY, 60.0),
    (20 * STEPS_PER_DAY, CHANGE_WATER, 0.4),
    (22 * STEPS_PER_DAY, ADD_TAN, 1.0),
]


def derivative(_, y, p, theta):
    """The model written again, plainly, from its description: growth and decay as ASM1, pH from alkalinity and CO2."""
    tan, no2, _, alkalinity, a, b = np.maximum(y, 0)
    _, _, mu_a, mu_b, k_a, k_b, decay, co2, a_max, inhibit = p
    h = 10**-6.35 * co2 / max(alkalinity / 50.04, 0.004)
    comfort = 1 / (1 + (h / 10**-6.75) ** 3 + (10**-9.2 / h) ** 2)
    nh3 = tan / (1 + h / KA)
    uptake_a = theta * comfort * alkalinity / (alkalinity + 4) * tan / (tan + k_a) / (1 + nh3 / 12)
    uptake_b = theta * comfort * no2 / (no2 + k_b) / (1 + nh3 / inhibit)
    r_a, r_b = a * uptake_a, b * uptake_b
    return [
        -r_a,
        r_a - r_b,
        r_b,
        -7.14 * r_a,
        a * (mu_a * uptake_a * (1 - a / a_max) - decay * theta),
        b * (mu_b * uptake_b * (1 - b / a_max) - decay * theta),
    ]


def lsoda(p, theta, days, events=EVENTS, alkalinity=80.0):
    """Daily TAN, NO2, NO3 and alkalinity, the model restarted at each event."""
    y = np.array([0.0, 0.0, 0.0, alkalinity, p[0], p[1]])
    out, at, queue = [], 0.0, sorted(events)
    marks = sorted({*range(days + 1), *(e[0] / STEPS_PER_DAY for e in queue)})
    for mark in marks:
        if mark > at:
            y = solve_ivp(derivative, (at, mark), y, method="LSODA", rtol=1e-9, atol=1e-11, args=(p, theta)).y[:, -1]
            at = mark
        while queue and queue[0][0] / STEPS_PER_DAY <= mark:
            _, kind, value = queue.pop(0)
            if kind == ADD_TAN:
                y[0] += value
            elif kind == CHANGE_WATER:
                y[:4] = y[:4] * (1 - value) + np.array([0, 0, 0, alkalinity]) * value
            else:
                y[3] += value
        if mark == int(mark):
            out.append(y[:4].copy())
    return np.array(out)


def conditions(days, theta):
    found = still_conditions(days, 25)
    found[:, THETA], found[:, 1] = theta, KA
    return found


def ours(p, theta, days, events=EVENTS, alkalinity=80.0):
    steps, kinds, values = (
        np.array([e[i] for e in events], dtype=t) for i, t in ((0, np.int64), (1, np.int64), (2, float))
    )
    start = np.array([0.0, 0.0, 0.0, alkalinity])
    daily, *_ = simulate(
        np.array([p]),
        start,
        conditions(days, theta),
        steps,
        kinds,
        values,
        start,
        10**6,
        days,
        np.array([0, 0.13, 1.5, 0, 0, 0]),
        np.zeros(0, dtype=np.int64),
    )
    return daily[0]


@pytest.mark.parametrize("seed", range(8))
def test_each_state_is_lsodas_within_one_percent(seed: int) -> None:
    rng = np.random.default_rng(seed)
    p = np.exp(np.log(PRIOR_MEDIAN) + PRIOR_SPREAD * rng.standard_normal(PARAMETERS))
    p[:2] *= (1, 30, 1000)[seed % 3]
    theta = temperature_factor(20 + seed)
    reference, found = lsoda(p, theta, 60), ours(p, theta, 60)
    scale = np.abs(reference).max(axis=0)
    assert np.all(np.abs(found - reference) <= 0.01 * np.maximum(np.abs(reference), 0.05 * scale) + 1e-6)


def test_the_forecast_holds_the_truth_about_as_often_as_it_says() -> None:
    """Virtual tanks from the prior, read every three days with a coarse kit to day 14: 80 % ranges hold 65 to 95 %."""
    rng = np.random.default_rng(11)
    held = errors = blind = tanks = 0
    ion = {"ammonia": 1.2878, "nitrite": 3.2845}
    steps = np.array([0, 0.25, 0.5, 1, 2, 4, 8])
    for _ in range(40):
        p = np.exp(np.log(PRIOR_MEDIAN) + PRIOR_SPREAD * rng.standard_normal(PARAMETERS))
        p[7] = 0.1
        log = {
            "net_l": 100,
            "day_now": 14,
            "start_kh_dkh": 8,
            "start_ph": 7.87,
            "planned_load_mg_n_l_day": 0.8,
            "doses": [{"day": 0, "raise_mg_n_l": 1.55}],
        }
        events = (np.array([0]), np.array([ADD_TAN]), np.array([1.55]))
        start = np.array([0, 0, 0, 8 * 17.85])
        keep = np.array([d * STEPS_PER_DAY for d in (2, 5, 8, 11, 14)])
        _, kept, passed, _ = simulate(
            np.array([p]),
            start,
            still_conditions(150, 26),
            *events,
            start,
            14 * STEPS_PER_DAY,
            150,
            np.array([0.96, 0.13, 5 / 3.2845, 4 * 17.85, 0, 0]),
            keep,
        )
        truth = passed[0]
        if np.isnan(truth):
            continue
        log["readings"] = []
        for day, state in zip((2, 5, 8, 11, 14), kept[0], strict=True):
            shown = [steps[np.argmin(np.abs(steps - state[i] * ion[k]))] for i, k in enumerate(("ammonia", "nitrite"))]
            log["readings"].append(
                {
                    "day": day,
                    "ammonia_mg_n_l": shown[0] / ion["ammonia"],
                    "nitrite_mg_n_l": shown[1] / ion["nitrite"],
                    "off_scale": ["nitrite"] if shown[1] >= 8 else [],
                }
            )
        answer = compute("cycle-forecast", {"log": log, "draws": 500, "horizon_days": 120})
        tanks += 1
        held += answer.pass_day_p10 - 0.5 <= truth <= (answer.pass_day_p90 or 150) + 0.5
        errors += abs(answer.pass_day_p50 - truth)
        blind += abs(35 - truth)
    assert tanks >= 35
    assert 0.65 <= held / tanks <= 0.97
    assert errors < 0.75 * blind
