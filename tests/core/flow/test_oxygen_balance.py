"""Oxygen: the relations at their worked values, the countdown against an independent integration, and what must not
happen.
"""

import math
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.integrate import solve_ivp

from reedmace.core.computations import compute
from reedmace.core.filter.filter_flow import Placed, currents_and_oxygen, oxygen_of
from reedmace.core.filter.site.site import Plumbing, Site
from reedmace.core.flow.oxygen_balance import (
    ALARM_MG_L,
    STANDING_FILM,
    OxygenConsumer,
    fall_share,
    resting_mg_h,
    surface_m_day,
)
from reedmace.demo.sample_boxes import SAMPLE_BOXES

TANK = {"net_l": 130, "surface_cm2": 3400, "depth_cm": 40, "temperature_c": 25, "film_mg_n_day": 80, "turning_cm_s": 4}
SHOAL = [{"name": "Rasbora", "count": 20, "mass_g": 1.0}, {"name": "Gourami", "count": 2, "mass_g": 14.0}]


def balance(**more: Any):
    return compute("oxygen-balance", {**TANK, "animals": SHOAL, **more})


def test_resting_oxygen_is_clarke_and_johnstons() -> None:
    # 10 g at 15 °C: exp(0.80 × ln 10 − 5.43) mmol, 32 mg each.
    assert resting_mg_h(10, 15) == pytest.approx(10**0.8 * math.exp(-5.43) * 31.998)
    assert resting_mg_h(10, 25) == pytest.approx(1.83 * resting_mg_h(10, 15))


def test_a_moving_surface_takes_up_as_the_root_of_speed_over_depth() -> None:
    still = surface_m_day(0, 40, 25)
    assert surface_m_day(8, 40, 25) - still == pytest.approx(2 * (surface_m_day(2, 40, 25) - still))
    assert surface_m_day(8, 10, 25) - still == pytest.approx(2 * (surface_m_day(8, 40, 25) - still))
    assert surface_m_day(4, 40, 25) - still == pytest.approx(math.sqrt(2.1e-9 * 0.04 / 0.4) * 86400)


def test_a_fall_of_nothing_gives_nothing_and_a_higher_one_more() -> None:
    assert fall_share(0, 25) == 0
    assert 0 < fall_share(3, 25) < fall_share(10, 25) < 0.3


@pytest.mark.parametrize("gourami", [6, 10, 16], ids="{} gouramis".format)
def test_the_countdown_is_what_an_integrator_finds(gourami: int) -> None:
    animals = [{"name": "Gourami", "count": gourami, "mass_g": 14.0}]
    answer = balance(animals=animals)
    assert answer.short_after_h is not None
    taken = gourami * 2 * resting_mg_h(14, 25) / 130 + STANDING_FILM * 4.57 * 80 / 130 / 24
    entering = surface_m_day(0, 40, 25) / 24 * 0.34 / 0.13

    def short(_: float, oxygen: list[float]) -> float:
        return oxygen[0] - ALARM_MG_L

    short.terminal = True  # type: ignore[attr-defined]
    run = solve_ivp(
        lambda _, o: [entering * (answer.saturation_mg_l - o[0]) - taken],
        (0, 500),
        [answer.running_mg_l],
        events=short,
        rtol=1e-9,
        atol=1e-9,
    )
    assert answer.short_after_h == pytest.approx(float(run.t_events[0][0]), rel=1e-4)


def test_running_it_comes_to_rest_where_what_enters_is_what_is_taken() -> None:
    answer = balance(air_l_min=1, fall_cm=3, fall_lph=300)
    bare = balance()
    assert bare.running_mg_l < answer.running_mg_l < answer.saturation_mg_l
    empty = balance(animals=[], film_mg_n_day=0)
    assert empty.running_mg_l == pytest.approx(empty.saturation_mg_l)
    assert empty.short_after_h is None


@given(st.integers(1, 200), st.floats(0.2, 300), st.floats(15, 31), st.floats(0, 15))
@settings(max_examples=150)
def test_more_animals_or_warmth_never_give_more_time_and_more_surface_never_less(
    count: int, mass: float, warm: float, speed: float
) -> None:
    def at(n: int, c: float, u: float, air: float = 0.0):
        animals = [{"name": "Fish", "count": n, "mass_g": mass}]
        return balance(animals=animals, temperature_c=c, turning_cm_s=u, air_l_min=air)

    one = at(count, warm, speed)
    time = math.inf if one.short_after_h is None else one.short_after_h
    more = at(count + 1, warm, speed).short_after_h
    assert (math.inf if more is None else more) <= time + 1e-9
    assert at(count, warm + 1, speed).running_mg_l <= one.running_mg_l + 1e-9
    assert at(count, warm, speed + 1).running_mg_l >= one.running_mg_l - 1e-9
    assert at(count, warm, speed, 1.0).running_mg_l >= one.running_mg_l - 1e-9


def test_a_crowded_tank_without_a_ripple_is_called_short() -> None:
    answer = balance(animals=[{"name": "Goldfish", "count": 20, "mass_g": 100.0}], turning_cm_s=0.2)
    assert not answer.enough
    assert answer.short_after_h == 0
    assert "too little" in answer.verdict


def test_a_stop_tells_how_long_the_animals_can_breathe() -> None:
    stop = {"name": "Sweetflag", "hours": 3, "standing": True, "animals_in": True}
    soon = compute("filter-stop", {**stop, "oxygen_h": 10})
    assert any("short of oxygen in about 7 hours" in s for s in soon.steps)
    late = compute("filter-stop", {**stop, "hours": 14, "oxygen_h": 10})
    assert any(s.startswith("Air first") and "4 hours" in s for s in late.steps)
    never = compute("filter-stop", stop)
    assert not any("short of oxygen" in s for s in never.steps)


def test_a_sponge_moves_the_surface_by_what_it_lifts() -> None:
    sponge = next(f for f in SAMPLE_BOXES if f.kind == "sponge")
    room = Site(net_l=130, water_depth_cm=40, length_cm=90, width_cm=40)
    load = [OxygenConsumer(name="Rasbora", count=40, mass_g=1.0)]
    made, kept = currents_and_oxygen(room, [Placed(sponge, Plumbing(), 250.0)], [], load, 0.0, 60.0, 25.0)
    assert made.turning_cm_s == 0
    still = oxygen_of(room, [Placed(sponge, Plumbing(), 250.0)], 0.0, load, 60.0, 25.0)
    assert kept.running_mg_l > still.running_mg_l
    assert kept.enough
