"""Replacing a filter or moving a tank while the film survives."""

import pytest

from reedmace.core.computations import compute


def move(**q):
    return compute("filter-move", q)


def test_a_month_side_by_side_carries_the_film_and_the_old_filter_may_go() -> None:
    assert move(days_side_by_side=30).carried_share == 1
    assert move(days_side_by_side=30).retire_after_days is None
    early = move(days_side_by_side=10)
    assert early.carried_share == pytest.approx(1 / 3)
    # Those days later four fifths have come across.
    assert move(days_side_by_side=10 + early.retire_after_days).carried_share == pytest.approx(0.8)


def test_media_die_sooner_dry_than_damp_than_shut_than_open() -> None:
    shares = [
        move(what="move-tank", minutes_out=60, travels=t).carried_share
        for t in ("dry", "damp", "wet-closed", "wet-open")
    ]
    assert shares == sorted(shares)
    assert move(what="move-tank", minutes_out=0).carried_share == 1
    assert any("parked car" in t for t in move(what="move-tank", temperature_c=40).warnings)
