"""Capacity read from a fall of both poisons, and poison that no dose explains: by hand-worked figures and bounds."""

from typing import Any

import pytest

from reedmace.core.cycle.record.log import CycleLog
from reedmace.core.cycle.record.proof import falling_capacity, poison_since, proof_share, shows_poison


def log(*rows: tuple[float, float, float], **more: Any) -> CycleLog:
    readings = [{"day": d, "ammonia_mg_n_l": a, "nitrite_mg_n_l": n} for d, a, n in rows]
    return CycleLog.model_validate({"net_l": 100, "day_now": 11, "readings": readings, **more})


@pytest.mark.parametrize(
    ("rows", "more", "capacity"),
    [
        # What is gone of both, over the days between.
        (((8, 3.0, 1.0), (10, 1.0, 1.0)), {}, 1.0),
        (((8, 3.0, 1.0), (10, 1.0, 2.0)), {}, 0.5),
        (((9, 2.0, 0.5), (10, 1.0, 0.0)), {}, 1.5),
        # What the animals made meanwhile is gone too.
        (((8, 2.0, 0.0), (10, 1.0, 0.0)), {"animals_in_mg_n_l_day": 0.3}, 0.8),
        (((8, 1.0, 0.0), (10, 1.0, 0.0)), {"animals_in_mg_n_l_day": 0.3}, 0.3),
        # A fall within the kit's step, a rise, or too short a while says nothing.
        (((8, 1.0, 0.0), (10, 0.9, 0.0)), {}, 0),
        (((8, 1.0, 0.0), (10, 2.0, 0.0)), {}, 0),
        (((9.8, 3.0, 1.0), (10, 1.0, 1.0)), {}, 0),
        # Nor does one with a dose or a change between; one just before it does no harm.
        (((8, 3.0, 1.0), (10, 1.0, 1.0)), {"doses": [{"day": 9, "raise_mg_n_l": 1}]}, 0),
        (((8, 3.0, 1.0), (10, 1.0, 1.0)), {"changes": [{"day": 9, "share": 0.5}]}, 0),
        (((8, 3.0, 1.0), (10, 1.0, 1.0)), {"changes": [{"day": 10, "share": 0.5}]}, 0),
        (((8, 3.0, 1.0), (10, 1.0, 1.0)), {"doses": [{"day": 8, "raise_mg_n_l": 1}]}, 1.0),
        (((8, 3.0, 1.0), (10, 1.0, 1.0)), {"doses": [{"day": 10.5, "raise_mg_n_l": 1}]}, 1.0),
        # The newest fall counts, and an older one where the newest pair tells nothing.
        (((4, 4.0, 0.0), (6, 3.0, 0.0), (8, 1.0, 0.0)), {}, 1.0),
        (((6, 4.0, 0.0), (8, 1.0, 0.0), (10, 1.0, 0.0)), {}, 1.5),
        # What is long ago, or before the film was lost, speaks no more.
        (((2, 3.0, 1.0), (4, 1.0, 1.0)), {"day_now": 60}, 0),
        (((8, 3.0, 1.0), (10, 1.0, 1.0)), {"media": [{"day": 10.5, "what": "replaced", "share": 1}]}, 0),
        (((8, 3.0, 1.0), (10, 1.0, 1.0)), {"media": [{"day": 7, "what": "replaced", "share": 1}]}, 1.0),
    ],
)
def test_a_fall_of_both_is_a_capacity(rows: Any, more: dict[str, Any], capacity: float) -> None:
    assert falling_capacity(log(*rows, **more)) == pytest.approx(capacity)


def test_off_the_scale_is_no_figure_to_reckon_with() -> None:
    def off(first: str, second: str) -> float:
        rows = [
            {"day": 8, "ammonia_mg_n_l": 3.0, "nitrite_mg_n_l": 1.0, "off_scale": [first] if first else []},
            {"day": 10, "ammonia_mg_n_l": 1.0, "nitrite_mg_n_l": 1.0, "off_scale": [second] if second else []},
        ]
        return falling_capacity(log(readings=rows))

    assert off("", "") == pytest.approx(1.0)
    for pair in (("ammonia", ""), ("nitrite", ""), ("", "ammonia"), ("", "nitrite")):
        assert off(*pair) == 0
    assert off("nitrate", "") == pytest.approx(1.0)


def test_poison_within_a_day_of_a_dose_is_explained_by_it() -> None:
    dosed = {"doses": [{"day": 5, "raise_mg_n_l": 2}]}
    assert poison_since(log((9, 1.0, 0.0)), 8)
    assert not poison_since(log((9, 0.0, 0.0)), 8)
    assert not poison_since(log((8, 1.0, 0.0)), 8)
    assert not poison_since(log((5.7, 1.0, 0.0), **dosed), 4)
    assert poison_since(log((5.9, 1.0, 0.0), **dosed), 4)
    # A dose after the test explains nothing.
    assert poison_since(log((4.9, 1.0, 0.0), **dosed), 4)


def test_a_trace_within_the_kits_zero_is_no_poison() -> None:
    trace, more = (log((1, ammonia, 0.0)) for ammonia in (0.05, 0.3))
    assert not shows_poison(trace, trace.readings[0])
    assert shows_poison(more, more.readings[0])
    assert shows_poison(more, log((1, 0.0, 0.4)).readings[0])


@pytest.mark.parametrize(
    ("proved", "today", "holds"),
    [
        ({}, {}, 1.0),
        ({"temperature_c": 26}, {"temperature_c": 22}, 1.0),
        ({"salinity_g_kg": 0}, {"salinity_g_kg": 35}, 0.0),
        ({"salinity_g_kg": 35}, {"salinity_g_kg": 0}, 0.0),
        ({"salinity_g_kg": 35}, {"salinity_g_kg": 33}, 1.0),
    ],
)
def test_a_proof_holds_in_water_like_its_own(proved: dict[str, Any], today: dict[str, Any], holds: float) -> None:
    found = log(readings=[{"day": 5, **proved}, {"day": 10.5, **today}])
    assert proof_share(found, 5) == pytest.approx(holds)


def test_a_proof_made_in_warm_water_holds_in_part_in_cold() -> None:
    colder = [
        proof_share(log(readings=[{"day": 5, "temperature_c": 26}, {"day": 10.5, "temperature_c": t}]), 5)
        for t in (21.9, 20, 17)
    ]
    assert 1 > colder[0] > colder[1] > colder[2] > 0
