"""The registry of kinds."""

import pytest
from pydantic import TypeAdapter, ValidationError

from reedmace.core.filter.kind_parts.traits import KindName, kind_traits, register_kind
from reedmace.core.filter.kinds import KINDS

NAMES = TypeAdapter(KindName)


def test_every_kind_is_registered_under_its_name() -> None:
    assert {kind.name for kind in KINDS} <= set(kind_traits())
    assert all(name == traits.name for name, traits in kind_traits().items())


def test_a_name_is_registered_once() -> None:
    with pytest.raises(ValueError, match="sponge is registered twice"):
        register_kind(kind_traits()["sponge"])


def test_an_unknown_kind_is_refused_with_those_there_are() -> None:
    assert NAMES.validate_python("sponge") == "sponge"
    with pytest.raises(ValidationError, match=r"use one of .*canister"):
        NAMES.validate_python("kettle")


def test_the_schema_lists_the_kinds() -> None:
    assert NAMES.json_schema()["enum"] == list(kind_traits())


@pytest.mark.parametrize("name", [kind.name for kind in KINDS])
def test_traits_agree_with_each_other(name: str) -> None:
    one = kind_traits()[name]
    # A closed body under the tank has hoses; what stands in the water takes space there and hangs on no rim.
    assert not (one.in_tank and one.on_rim)
    assert not (one.hosed and one.in_tank)
    # What stands on an air pump lets bubbles out; a kind that may have either need not.
    assert one.outlet == "bubbles" or not one.needs_air
    assert 0 < one.fill_most <= 1
    assert all(0 <= judged <= 1 for judged in vars(one.judged).values())
