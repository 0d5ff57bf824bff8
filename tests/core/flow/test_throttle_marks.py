"""Marks of a flow tap: found between fills, never beyond them, never from fills that contradict."""

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError

from reedmace.core.computations import compute


def marks(wanted: float, *fills: tuple[float, float], litres: float = 1):
    rows = [{"mark_count": m, "time_s": t} for m, t in fills]
    return compute("throttle-marks", {"container_l": litres, "wanted_lph": wanted, "fills": rows})


# 1 L in 6, 9, 18 s: 600, 400, 200 L/h.
THREE = ((0, 6), (5, 9), (10, 18))


def test_a_flow_between_two_fills_has_a_mark_between_theirs() -> None:
    found = marks(300, *THREE)
    assert found.found == "between"
    assert 5 < found.mark_count < 10
    assert [round(m.lph) for m in found.marks] == [600, 400, 200]


@pytest.mark.parametrize(("wanted", "mark"), [(600, 0), (400, 5), (200, 10)])
def test_a_flow_that_was_timed_has_its_own_mark(wanted: float, mark: float) -> None:
    assert marks(wanted, *THREE).mark_count == pytest.approx(mark, abs=1e-6)


@pytest.mark.parametrize(("wanted", "way"), [(150, "further shut than mark 10"), (700, "further open than mark 0")])
def test_nothing_is_said_beyond_the_fills_but_which_way_to_turn(wanted: float, way: str) -> None:
    found = marks(wanted, *THREE)
    assert (found.found, found.mark_count) == ("beyond", None)
    assert way in found.verdict


def test_fills_that_rise_and_fall_are_told_and_give_no_mark() -> None:
    assert marks(300, (0, 6), (5, 18), (10, 9)).found == "contradict"


def test_several_fills_at_one_mark_count_as_their_mean() -> None:
    assert marks(400, (0, 6), (5, 8.5), (5, 9.5), (10, 18)).marks[1].lph == pytest.approx((3600 / 8.5 + 3600 / 9.5) / 2)


def test_marks_nobody_can_tell_apart_are_refused() -> None:
    with pytest.raises(ValidationError, match="closer than"):
        marks(8, (63.2, 3058), (2.1e-126, 3131), (0.0, 0.5))


def test_fills_at_one_mark_alone_are_refused() -> None:
    with pytest.raises(ValidationError, match="same mark"):
        marks(400, (5, 8), (5, 9))


@given(st.lists(st.floats(50, 3000), min_size=2, max_size=8, unique=True), st.floats(0.01, 0.99), st.booleans())
def test_the_mark_found_gives_the_flow_asked_of_any_tap(flows: list[float], share: float, turned: bool) -> None:
    ordered = sorted(flows, reverse=turned)
    wanted = min(flows) + share * (max(flows) - min(flows))
    found = marks(wanted, *((float(n), 3600 / f) for n, f in enumerate(ordered)))
    assert found.mark_count is not None
    # Between the two fills that bracket it, whatever curve is drawn.
    below = max(i for i, f in enumerate(ordered) if (f <= wanted + 1e-6 if not turned else f >= wanted - 1e-6))
    assert below - 1e-6 <= found.mark_count <= below + 1 + 1e-6
