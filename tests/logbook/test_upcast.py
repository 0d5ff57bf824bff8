"""Entries of the first version, as they are read now."""

import pytest

from reedmace.logbook.upcast import upcast


def test_a_chosen_filter_and_a_second_become_a_list() -> None:
    old = {"kind": "filter-plan", "chosen": {"id": "a"}, "second": {"id": "b"}, "media": [1], "plumbing": {"x": 1}}
    assert upcast(old) == {
        "kind": "filter-plan",
        "plumbing": {"x": 1},
        "filters": [
            {"key": "f1", "filter": {"id": "a"}, "media": [1], "plumbing": {"x": 1}},
            {"key": "f2", "filter": {"id": "b"}, "plumbing": {"x": 1}},
        ],
        "version": 2,
    }
    assert upcast({"kind": "filter-plan"}) == {"kind": "filter-plan", "filters": [], "version": 2}


def test_one_layout_becomes_the_first_filters() -> None:
    old = {"kind": "fit-plan", "layout": {"hose": "ribbed"}}
    assert upcast(old) == {"kind": "fit-plan", "places": {"f1": {"hose": "ribbed"}}, "version": 2}


@pytest.mark.parametrize(
    "body",
    [
        {"kind": "filter-plan", "filters": []},
        {"kind": "filter-plan", "version": 2},
        {"kind": "filter-plan", "version": "x"},
        {"kind": "note", "text": "chosen"},
        "no body",
        None,
    ],
)
def test_anything_else_is_left_as_it_is(body: object) -> None:
    assert upcast(body) == body
