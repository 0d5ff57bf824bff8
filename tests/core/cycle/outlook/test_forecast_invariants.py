"""Invariants of the forecast for any log: agreement between questions, and the direction of every change."""

from itertools import pairwise
from typing import Any

import numpy as np
import pytest

from reedmace.core.computations import compute
from reedmace.core.cycle.record.log import CycleLog
from reedmace.standins import SimulatedTank
from tests.support.cycling import NI, A, random_log

pytestmark = pytest.mark.slow

DAY_0 = {"net_l": 130, "day_now": 0, "start_kh_dkh": 8, "doses": [{"day": 0, "raise_mg_n_l": 2 * A}]}
MIDWAY: dict[str, Any] = {
    **DAY_0,
    "day_now": 14,
    "doses": [{"day": d, "raise_mg_n_l": 2 * A} for d in (0, 9)],
    "readings": [
        {"day": d, "ammonia_mg_n_l": a * A, "nitrite_mg_n_l": n * NI, "kh_dkh": 7}
        for d, a, n in ((0.1, 2, 0), (4, 2, 0.25), (7, 1, 1), (9, 0.25, 2), (12, 0.5, 5), (13.5, 0.25, 5))
    ],
}


def forecast(log: dict[str, Any], **more: Any) -> Any:
    return compute("cycle-forecast", {"log": log, "draws": 600, **more})


def median(log: dict[str, Any], **more: Any) -> float:
    day = forecast(log, **more).pass_day_p50
    return float("inf") if day is None else float(day)


def three(answer: Any) -> tuple[Any, Any, Any]:
    return answer.pass_day_p10, answer.pass_day_p50, answer.pass_day_p90


@pytest.mark.parametrize("log", [DAY_0, MIDWAY, {**MIDWAY, "day_now": 70}], ids=["begun", "midway", "late"])
def test_every_leaf_gives_the_same_date_for_the_same_log(log: dict[str, Any]) -> None:
    dates = three(compute("cycle-forecast", {"log": log}))
    assert three(compute("cycle-what-if", {"log": log}).as_advised) == dates
    assert three(compute("cycle-history", {"log": log}).seen[-1]) == dates


def test_the_order_readings_were_typed_in_does_not_matter() -> None:
    turned = {**MIDWAY, "readings": MIDWAY["readings"][::-1], "doses": MIDWAY["doses"][::-1]}
    assert median(turned) == pytest.approx(median(MIDWAY), abs=1.0)


def test_the_size_of_the_tank_does_not_matter_to_a_dose_in_ppm() -> None:
    # Each size has draws of its own: the middle of seven is what the log says.
    small, large = (
        float(np.median([median({**MIDWAY, "net_l": net_l + more}) for more in range(7)])) for net_l in (130, 1300)
    )
    assert large == pytest.approx(small, abs=1.0)


def test_a_kit_on_the_nitrogen_basis_with_the_same_steps_sees_the_same_water() -> None:
    steps = {"ammonia_ppm": (A, [0, 0.25, 0.5, 1, 2, 4, 8]), "nitrite_ppm": (NI, [0, 0.25, 0.5, 1, 2, 5])}
    kit = {"basis": "N", **{name: [s * share for s in printed] for name, (share, printed) in steps.items()}}
    there, here = forecast({**MIDWAY, "kit": kit}), forecast(MIDWAY)
    # Other draws, since the draws take their seed from the log.
    assert there.pass_day_p50 == pytest.approx(here.pass_day_p50, abs=1.5)
    assert "3.1 ppm as N" in " ".join(there.rests_on)
    assert "4 ppm in all" in " ".join(here.rests_on)


@pytest.mark.parametrize(
    ("change", "later"),
    [
        ({"temperature_c": 21}, True),
        ({"temperature_c": 29}, False),
        ({"planned_load_mg_n_l_day": 2.5}, True),
        ({"helpers": ["seed-media"], "seed_share": 0.05}, False),
        ({"helpers": ["bottled-culture"], "start_ph": 7.6}, False),
        ({"outages": [{"day": 0.2, "hours": 96}]}, True),
        ({"start_ph": 6.6, "start_kh_dkh": 4.1}, True),
    ],
    ids=["cold", "warm", "heavy stock", "some seed", "a bottle", "four days off", "acid"],
)
def test_each_condition_moves_a_fresh_tanks_date_its_own_way(change: dict[str, Any], later: bool) -> None:
    plain, moved = median(DAY_0), median({**DAY_0, **change})
    assert moved > plain + 0.4 if later else moved < plain - 0.4


def test_more_seed_is_never_later() -> None:
    days = [median({**DAY_0, "helpers": ["seed-media"], "seed_share": s}) for s in (0.002, 0.01, 0.05, 0.2, 1.0)]
    assert all(b <= a + 0.3 for a, b in pairwise(days)), days
    assert days[-1] < days[0] - 10


def test_zeros_after_a_dose_bring_the_date_near_and_a_standing_nitrite_does_not() -> None:
    def ended(nitrite: float) -> dict[str, Any]:
        last = [(19.9, 0, nitrite), (21.9, 0, nitrite), (23.9, 0, nitrite)]
        rows = [
            {"day": d, "ammonia_mg_n_l": a * A, "nitrite_mg_n_l": n * NI, "off_scale": ["nitrite"] if n >= 5 else []}
            for d, a, n in [(4, 2, 0), (8, 1, 1), (12, 0, 5), (16, 0, 5), *last]
        ]
        doses = [{"day": d, "raise_mg_n_l": 2 * A} for d in (0, 10, 22.8)]
        return {**MIDWAY, "day_now": 24, "readings": rows, "doses": doses}

    cleared, standing = forecast(ended(0.0)), forecast(ended(5.0))
    assert cleared.pass_day_p50 < 28 < standing.pass_day_p50
    assert not any("fit no usual course" in line for line in [*cleared.rests_on, *standing.rests_on])


def test_readings_no_film_could_make_are_said_to_fit_no_course() -> None:
    # Half gone in a week, and then from one day to the next two whole doses a day, five days running.
    rows = [(d, 0.0, 0.0) for d in (10, 11, 12, 13, 13.9)]
    strange = {
        **MIDWAY,
        "doses": [{"day": d, "raise_mg_n_l": 2 * A} for d in (0, 9, 10, 11, 12, 13)],
        "readings": MIDWAY["readings"][:3] + [{"day": d, "ammonia_mg_n_l": a, "nitrite_mg_n_l": n} for d, a, n in rows],
    }
    said = forecast(strange).rests_on[-1]
    assert "figures fit no usual course, so count on the date for less" in said
    assert 3 <= int(said.split()[1]) <= 10
    assert "usual course" not in forecast(MIDWAY).rests_on[-1]


def test_a_longer_log_that_agrees_narrows_the_range() -> None:
    tank = SimulatedTank(CycleLog(net_l=100, day_now=0, start_kh_dkh=10, start_ph=7.7), seed=4)
    tank.dose(0, 2 * A)
    readings = []
    for day in range(0, 22, 2):
        water = tank.water(day)
        seen = {"day": day + 0.01, "ammonia_mg_n_l": water["ammonia_mg_n_l"], "nitrite_mg_n_l": water["nitrite_mg_n_l"]}
        step = {k: round(v / 0.1) * 0.1 for k, v in seen.items() if k != "day"}
        readings.append({"day": seen["day"], **step})
        if water["ammonia_mg_n_l"] < A and water["nitrite_mg_n_l"] < 1.5:
            tank.dose(day + 0.1, A)
    wide = []
    for until in (1, 10, 21):
        log = tank.log.model_copy(update={"day_now": until, "doses": [d for d in tank.doses if d.day <= until]})
        kept = {**log.model_dump(), "readings": [r for r in readings if r["day"] <= until]}
        p10, _, p90 = three(forecast(kept))
        wide.append(p90 - p10)
    assert wide[2] < wide[1] < wide[0]


def test_whatever_the_log_says_ranges_are_ordered_and_nothing_passes_before_today() -> None:
    rng = np.random.default_rng(77)
    dated = 0
    for _ in range(120):
        log = random_log(rng)
        answer = compute("cycle-forecast", {"log": log.model_dump(), "draws": 60})
        p10, p50, p90 = three(answer)
        if p50 is None:
            assert answer.outcome == "no-date"
            assert p10 is None
        else:
            dated += 1
            # A whole day stands for the half before and after it.
            assert log.day_now - 1 <= p10 <= p50 <= (float("inf") if p90 is None else p90)
        for band in answer.bands[:: max(len(answer.bands) // 12, 1)]:
            for name in ("ammonia_mg_n_l", "nitrite_mg_n_l", "nitrate_mg_n_l", "kh_dkh", "ph"):
                one = getattr(band, name)
                assert 0 <= one.p10 <= one.p50 <= one.p90
        assert answer.nitrogen_gap_mg_n_l < 1e-7
    assert dated > 40


def test_the_oldest_log_still_has_advice_a_forecast_and_a_history() -> None:
    # A cycle nobody ended: the clock of a log stops at 400 days.
    log = {
        **MIDWAY,
        "day_now": 400,
        "readings": [
            {"day": d, "ammonia_mg_n_l": 0.2, "nitrite_mg_n_l": n, "kh_dkh": k, "ph": 7.2, "temperature_c": t}
            for d, n, k, t in ((395, 0.3, 5.0, 27), (397, 0.7, 4.0, 26), (399.5, 1.2, 2.9, 24.5))
        ],
    }
    advice = compute("cycle-advice", {"log": log})
    assert {f.kind for f in advice.coming_stalls} == {"cold", "alkalinity", "off-scale"}
    assert all(f.day >= 400 for f in advice.coming_stalls)
    answer = compute("cycle-forecast", {"log": log})
    assert answer.bands[-1].day == 460
    for name in ("cycle-what-if", "cycle-history"):
        assert compute(name, {"log": log}).verdict


def test_what_the_newest_test_did_to_the_date_is_said() -> None:
    # A day that clears the nitrite brings the date nearer; the same reading as before hardly moves it.
    standing = {
        **MIDWAY,
        "day_now": 24,
        "readings": [
            *MIDWAY["readings"],
            {"day": 23.9, "ammonia_mg_n_l": 0, "nitrite_mg_n_l": 5 * NI, "off_scale": ["nitrite"]},
        ],
    }
    cleared = {**standing, "readings": [*MIDWAY["readings"], {"day": 23.9, "ammonia_mg_n_l": 0, "nitrite_mg_n_l": 0}]}
    late, soon = (compute("cycle-history", {"log": log}) for log in (standing, cleared))
    assert soon.pull_days < -1
    assert soon.pull_days < late.pull_days
    assert "nearer" in soon.pull
    assert compute("cycle-history", {"log": {**MIDWAY, "readings": [], "doses": []}}).pull == ""
