"""A spare sponge seeding in a running tank: when it is ready, and how much film survives transport."""

import pytest

from reedmace.core.computations import compute
from tests.support.cycle_logs import what_if
from tests.support.cycling import A


def seed(**more):
    return compute("sponge-seed", more)


def test_warmer_and_seeded_are_sooner_and_side_by_side() -> None:
    log = {"net_l": 130, "day_now": 5, "temperature_c": 22, "doses": [{"day": 0, "raise_mg_n_l": 2 * A}]}
    warm, seed, same = what_if(
        log,
        {"name": "warm", "temperature_c": 28},
        {"name": "seed", "seed_share": 0.2},
        {"name": "the same"},
    ).changes
    assert warm.sooner_days > 3
    assert seed.sooner_days > warm.sooner_days
    assert same.sooner_days == pytest.approx(0, abs=0.01)
    assert same.text == "no difference to speak of"


def test_a_sponge_is_usable_from_fifteen_days_and_ready_in_a_month() -> None:
    assert [seed(days_seeding=d).state for d in (5, 15, 30)] == ["too-young", "usable", "ready"]
    assert not seed(days_seeding=5).may_go
    assert seed(days_seeding=5).after_words == ""
    assert "50 %" in seed(days_seeding=40).after_words
    assert seed(days_seeding=21).grown_share == pytest.approx(0.7)


def test_the_clock_out_of_water_counts_and_dry_is_worst() -> None:
    alive = [
        seed(days_seeding=28, minutes_out=60, travels=t).alive_share for t in ("wet-open", "wet-closed", "damp", "dry")
    ]
    assert alive == sorted(alive, reverse=True)
    assert alive[-1] == pytest.approx(0.5**4)
    assert seed(days_seeding=28, minutes_out=30, temperature_c=40).alive_share < 0.11


def test_a_sick_tank_gives_no_sponge() -> None:
    assert not seed(days_seeding=40, disease_note="sick-now").may_go
    assert seed(days_seeding=40, disease_note="sick-now").after_words == ""
    assert "health" in seed(days_seeding=40, disease_note="unknown").verdict
