"""The plans of a tank as they are stored: defaults, older versions, keys and what is taken up again."""

import pytest
from pydantic import ValidationError

from reedmace.logbook.plans.plan_kinds import AirSource, CyclePlan, FilterPlan, FitPlan, KitPlan, StockPlan, TankPlan
from reedmace.logbook.upcast import FIRST, SECOND
from tests.support.fitting import BY_ID, NOW

BOX = BY_ID["sweetflag-800"].model_dump(mode="json")


def filters(*keys: str, **more: object) -> FilterPlan:
    hung = [{"key": key, "filter": BOX, **more} for key in keys]
    return FilterPlan.model_validate({"kind": "filter-plan", "filters": hung})


def test_two_filters_of_one_key_are_refused_with_the_remedy() -> None:
    with pytest.raises(ValidationError, match="two filters share a key; give each its own"):
        filters("f1", "f1")
    assert [f.key for f in filters("f1", "f2").filters] == ["f1", "f2"]


def test_a_plan_of_the_first_version_is_read_as_todays() -> None:
    old = {"kind": "filter-plan", "chosen": BOX, "second": BOX, "media": [{"media": "foam-20", "litres": 1}]}
    plan = FilterPlan.model_validate(old)
    assert [f.key for f in plan.filters] == [FIRST, SECOND]
    assert [len(f.media) for f in plan.filters] == [1, 0]
    assert plan.version == 2
    fit = FitPlan.model_validate({"kind": "fit-plan", "layout": {"siphon_break": True}})
    assert fit.of(FIRST).siphon_break
    assert not fit.of("f9").siphon_break


@pytest.mark.parametrize(("shared", "source"), [(True, "room"), (False, None)])
def test_a_yes_of_before_means_the_rooms_air_and_a_no_meant_nothing(shared: bool, source: str | None) -> None:
    assert AirSource.model_validate({"shared": shared, "stones": True}) == AirSource(source=source, stones=True)


def test_an_earlier_plan_taken_up_again_keeps_the_history_of_later_filters() -> None:
    then, now = filters("f1"), filters("f1", "f2")
    back = then.taken_up_again(now)
    assert [(f.key, f.retired) for f in back.filters] == [("f1", False), ("f2", True)]
    assert [f.key for f in back.hanging] == ["f1"]
    assert now.taken_up_again(now) == now


def test_only_what_was_not_taken_off_hangs() -> None:
    assert filters("f1", "f2", retired=True).hanging == []


def test_every_plan_stands_with_nothing_said_but_its_start() -> None:
    tank = {"kind": "tank-plan", "tank": {"length_cm": 60, "width_cm": 30, "height_cm": 35}}
    plans = (
        TankPlan.model_validate(tank),
        StockPlan(kind="stock-plan", animals=[]),
        FilterPlan(kind="filter-plan"),
        FitPlan(kind="fit-plan"),
        CyclePlan(kind="cycle-plan", started_at=NOW),
        KitPlan(kind="kit-plan"),
    )
    for plan in plans:
        assert type(plan).model_validate(plan.model_dump(mode="json")) == plan
    with pytest.raises(ValidationError):
        CyclePlan.model_validate({"kind": "cycle-plan"})
