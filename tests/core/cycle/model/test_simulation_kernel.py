"""Parts of the simulation of many draws; whole courses are in test_nitrogen_kernel and tests/reference."""

import numpy as np
import pytest

from reedmace.core.cycle.model.inputs import still_conditions
from reedmace.core.cycle.model.nitrogen_kernel import (
    AIMS,
    DOSE,
    DOSE_BASE,
    FEED,
    HOLD_ALKALINITY,
    HOLD_NITRITE,
    LANES,
    NITRIFIED,
    PLANT_HALF_NITRATE,
    PLANTS,
    STATES,
    STEPS_PER_DAY,
    ZERO,
    ZERO_NITRITE,
    ZEROS_NEEDED,
)
from reedmace.core.cycle.model.prior import PRIOR_MEDIAN
from reedmace.core.cycle.model.simulation_kernel import (
    follow_aim,
    nitrify_feed,
    pass_by_zeros,
    report_clear,
    sample,
    simulate,
    stop_exhausted,
    store,
    widen_gap,
)

TAN, NO2, NO3, ALK = range(4)


def water(tan: float = 0.0, nitrite: float = 0.0, alkalinity: float = 100.0) -> np.ndarray:
    y = np.zeros((STATES, LANES))
    y[TAN], y[NO2], y[ALK] = tan, nitrite, alkalinity
    return y


def aim(**changes: float) -> np.ndarray:
    found = np.zeros(AIMS)
    usual = {"DOSE": 2.0, "ZERO": 0.1, "ZERO_NITRITE": 0.1, "HOLD_NITRITE": 1.0, "HOLD_ALKALINITY": 40.0}
    places = {
        "DOSE": DOSE,
        "ZERO": ZERO,
        "ZERO_NITRITE": ZERO_NITRITE,
        "HOLD_NITRITE": HOLD_NITRITE,
        "HOLD_ALKALINITY": HOLD_ALKALINITY,
        "ZEROS_NEEDED": ZEROS_NEEDED,
        "DOSE_BASE": DOSE_BASE,
    }
    for name, value in {**usual, "DOSE_BASE": 3.5, **changes}.items():
        found[places[name]] = value
    return found


def lanes() -> tuple[np.ndarray, np.ndarray, np.ndarray, np.ndarray]:
    wins, dosed = np.zeros(LANES, dtype=np.int64), np.full(LANES, -10 * STEPS_PER_DAY)
    return wins, dosed, np.full(LANES, np.nan), np.zeros(LANES)


def test_zeros_in_a_row_pass_and_one_that_is_none_begins_them_again() -> None:
    wins, _, done, _ = lanes()
    wanted = aim(ZEROS_NEEDED=3)
    clear, poisoned = water(), water(nitrite=0.5)
    for day, y in ((1.0, clear), (2.0, clear), (3.0, poisoned), (4.0, clear), (5.0, clear)):
        assert pass_by_zeros(y, wins, done, day, True, wanted) == 0
    assert pass_by_zeros(clear, wins, done, 6.0, False, wanted) == 0
    assert pass_by_zeros(clear, wins, done, 7.0, True, wanted) == LANES
    assert done == pytest.approx(np.full(LANES, 7.0))


def test_a_dose_goes_in_at_zeros_with_its_base_and_two_cleared_within_a_day_pass() -> None:
    wins, dosed, done, nitrogen = lanes()
    for day in (0, 1):
        y = water()
        assert follow_aim(y, wins, dosed, done, nitrogen, day * STEPS_PER_DAY, aim()) == 0
        assert y[TAN] == pytest.approx(2.0)
        assert y[ALK] == pytest.approx(100 + 3.5 * 2)
        assert nitrogen == pytest.approx(2.0 * (day + 1))
    assert follow_aim(water(), wins, dosed, done, nitrogen, 2 * STEPS_PER_DAY, aim()) == LANES
    assert done == pytest.approx(np.full(LANES, 2.0))


@pytest.mark.parametrize(("tan", "nitrite"), [(0.5, 0.0), (0.0, 1.5)])
def test_while_ammonia_or_much_nitrite_stands_nothing_is_dosed(tan: float, nitrite: float) -> None:
    wins, dosed, done, nitrogen = lanes()
    y = water(tan, nitrite)
    follow_aim(y, wins, dosed, done, nitrogen, 0, aim())
    assert y[TAN] == pytest.approx(tan)
    assert nitrogen == pytest.approx(0.0)


def test_alkalinity_is_held_and_never_lowered() -> None:
    wins, dosed, done, nitrogen = lanes()
    for before, after in ((10.0, 40.0), (90.0, 90.0)):
        y = water(tan=1.0, alkalinity=before)
        follow_aim(y, wins, dosed, done, nitrogen, 0, aim(DOSE=0.0))
        assert y[ALK] == pytest.approx(after)


def test_a_draw_that_passed_is_reported_clear_and_its_nitrogen_kept() -> None:
    y, done = water(1.0, 0.5), np.full(LANES, np.nan)
    done[2] = 9.0
    report_clear(y, done)
    assert y[:4, 2] == pytest.approx([0, 0, 1.5, 100 - NITRIFIED])
    assert y[:4, 1] == pytest.approx([1, 0.5, 0, 100])


def test_what_is_fed_after_the_pass_is_nitrate_of_which_plants_take_their_share() -> None:
    y, day = water(), np.zeros(6)
    day[FEED] = 0.5
    nitrify_feed(y, day)
    assert y[NO3] == pytest.approx(0.5)
    # Each mg N nitrified takes 7.14 mg of CaCO3 (US EPA 1993), of which food brings half.
    assert y[ALK] == pytest.approx(100 - 0.5 * NITRIFIED / 2, abs=0.05)
    day[FEED], day[PLANTS] = 0.0, 0.2
    nitrify_feed(y, day)
    assert y[NO3] == pytest.approx(0.5 - 0.2 * 0.5 / (0.5 + PLANT_HALF_NITRATE))


def test_a_draw_whose_alkalinity_is_gone_is_given_up_once_and_is_no_pass() -> None:
    y, done = water(), np.full(LANES, np.nan)
    y[ALK, 1] = 10.0
    done[2], y[ALK, 2] = 9.0, 5.0
    assert stop_exhausted(y, done, 17.85) == 1
    assert stop_exhausted(y, done, 17.85) == 0
    assert done[1] == np.inf
    # Without a least nothing is stopped, whatever plants have taken of the alkalinity.
    poor, going = water(alkalinity=-0.2), np.full(LANES, np.nan)
    assert stop_exhausted(poor, going, 0.0) == 0
    assert np.isnan(going).all()
    assert done[2] == 9.0
    y[TAN] = 1.0
    report_clear(y, done)
    assert y[TAN, :4] == pytest.approx([1, 1, 0, 1])


def test_the_gap_in_the_books_is_the_widest_so_far() -> None:
    gap, nitrogen = np.zeros(LANES), np.full(LANES, 1.0)
    for tan in (1.0, 1.4, 0.9):
        widen_gap(water(tan), nitrogen, gap)
    assert gap == pytest.approx(0.4)


def test_only_draws_that_there_are_are_written_each_in_its_row() -> None:
    y = water()
    y[TAN] = np.arange(LANES)
    out = np.full((5, 2, 4), -1.0)
    store(y, out, 2, 3, 1)
    assert out[2:, 1, TAN] == pytest.approx([0, 1, 2])
    assert (out[:2] == -1).all()
    assert (out[:, 0] == -1).all()


def test_samples_wait_for_their_step_and_for_what_came_before_them() -> None:
    kept = np.zeros((LANES, 3, 4))
    steps = np.array([[0, 0], [5, 0], [5, 1]])
    assert sample(water(1.0), kept, 0, LANES, 0, steps, 0, 0) == 1
    assert sample(water(2.0), kept, 0, LANES, 1, steps, 4, 0) == 1
    assert sample(water(3.0), kept, 0, LANES, 1, steps, 5, 0) == 2
    assert sample(water(4.0), kept, 0, LANES, 2, steps, 5, 1) == 3
    assert kept[0, :, TAN] == pytest.approx([1, 3, 4])


@pytest.mark.parametrize("entries", [AIMS - 1, AIMS + 1])
def test_an_aim_of_another_length_is_refused_and_not_read_past_its_end(entries: int) -> None:
    none, nothing = np.zeros(0, np.int64), np.zeros((0, 2), np.int64)
    with pytest.raises(ValueError, match="AIMS"):
        simulate(
            PRIOR_MEDIAN[None, :], np.zeros(4), still_conditions(3, 25), none, none, np.zeros(0), np.zeros(4), 0, 3,
            np.zeros(entries), nothing,
        )  # fmt: skip
