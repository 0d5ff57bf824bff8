"""Logbook entries: what is stored comes back the same, and what cannot be meant is refused."""

from datetime import timedelta
from typing import Any, get_args

import pytest
from pydantic import ValidationError

from reedmace.logbook.replay.entries import PLAN_KINDS, Body, Entry, NewEntry
from tests.support.entries import NOW

KINDS = {model.model_fields["kind"].annotation.__args__[0] for model in get_args(get_args(Body)[0])}


def sent(body: dict[str, Any], **more: Any) -> NewEntry:
    return NewEntry.model_validate({"key": "made-here-1", "at": NOW, "body": body, **more})


EXAMPLES: dict[str, dict[str, Any]] = {
    "step-done": {"step_id": "prime"},
    "flow-test": {"container_l": 5, "times_s": [40, 42]},
    "timed-flow": {"method": "meter", "measured_lph": 400},
    "reading": {"ammonia_ppm": 0.25},
    "dose": {"raise_mg_n_l": 1.5},
    "alkalinity": {"raise_dkh": 1},
    "water-change": {"share": 0.3},
    "conditioner": {},
    "outage": {"running": False},
    "media-work": {"what": "rinsed"},
    "plant-growth": {},
    "purchase": {"item": "hose", "price": 9},
    "seed": {"name": "Sponge"},
    "seed-move": {"seed_key": "made-here-1", "phase": "out"},
    "stocking": {"species_id": "guppy", "count": 6},
    "quarantine": {"days": 28},
    "care": {"what": "plugs"},
    "ailing": {"signs": ["gasping"], "count": 1},
    "air-seen": {"bubbles": "weak"},
    "review": {"of": "made-here-1", "worth": True},
    "away": {"from_at": NOW.isoformat(), "until_at": (NOW + timedelta(days=7)).isoformat()},
    "note": {"text": "Clear."},
    "situation": {"stands": "empty"},
    "withdrawal": {},
}


@pytest.mark.parametrize("kind", sorted(EXAMPLES))
def test_an_entry_comes_back_as_it_was_stored(kind: str) -> None:
    new = sent({"kind": kind, **EXAMPLES[kind]})
    stored = Entry(id=1, key=new.key, at=new.at, written_at=NOW, body=new.body)
    assert Entry.model_validate_json(stored.model_dump_json()) == stored
    assert stored.body.kind == kind


def test_every_kind_has_an_example_here_or_a_test_of_its_own() -> None:
    elsewhere = {"on-round", "brood"}
    assert set(EXAMPLES) | set(PLAN_KINDS) | elsewhere == KINDS


@pytest.mark.parametrize(
    ("body", "field"),
    [
        ({"kind": "flow-test", "container_l": 5, "times_s": []}, "times_s"),
        ({"kind": "flow-test", "container_l": 5, "times_s": [0.1]}, "times_s"),
        ({"kind": "water-change", "share": 1.2}, "share"),
        ({"kind": "dose", "raise_mg_n_l": -1}, "raise_mg_n_l"),
        ({"kind": "stocking", "species_id": "guppy", "count": 2001}, "count"),
        ({"kind": "note", "text": ""}, "text"),
        ({"kind": "reading", "ammonia_ppm": "much"}, "ammonia_ppm"),
        ({"kind": "no-such-thing"}, "body"),
    ],
)
def test_what_is_out_of_bounds_is_refused_where_it_stands(body: dict[str, Any], field: str) -> None:
    with pytest.raises(ValidationError) as refused:
        sent(body)
    assert field in [str(part) for error in refused.value.errors() for part in error["loc"]]


def test_nobody_comes_back_before_they_left() -> None:
    left = {"kind": "away", "from_at": NOW.isoformat()}
    for days in (0, -1):
        with pytest.raises(ValidationError, match="the return lies before the departure"):
            sent({**left, "until_at": (NOW + timedelta(days=days)).isoformat()})


@pytest.mark.parametrize("key", ["short", "with spaces in", "a" * 65, "né-à-huit"])
def test_a_key_is_eight_plain_letters_or_more(key: str) -> None:
    with pytest.raises(ValidationError) as refused:
        NewEntry.model_validate({"key": key, "at": NOW, "body": {"kind": "conditioner"}})
    assert refused.value.errors()[0]["loc"] == ("key",)


def test_a_time_without_a_zone_is_refused() -> None:
    with pytest.raises(ValidationError):
        NewEntry.model_validate({"key": "made-here-1", "at": "2026-01-01T10:00:00", "body": {"kind": "conditioner"}})
