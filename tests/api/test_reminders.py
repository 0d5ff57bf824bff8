"""Keep over HTTP: animals unwell, plugs after work, a change after its month, worn parts, costs, the month ahead."""

from datetime import UTC, datetime, timedelta
from itertools import pairwise

import pytest

from reedmace.demo.sample_boxes import SAMPLE_BOXES
from tests.api.test_care import living  # noqa: F401 - a fixture

LOST = {"kind": "stocking", "species_id": "fancy-goldfish", "count": -1}
ZERO = {"kind": "reading", "ammonia_ppm": 0, "nitrite_ppm": 0, "ph": 7.4}


def today_of(keeper, tank: int) -> dict:
    return next(r for r in keeper.get("/api/today").json["rows"] if r["tank"]["id"] == tank)


def test_a_loss_in_untested_water_asks_for_a_test_first_in_keep_and_today(keeper, living) -> None:  # noqa: F811
    tank, write, keep = living
    write(LOST)
    view = keep()
    assert view["illness"]["causes"][0]["code"] == "untested"
    assert view["verdict"] == view["illness"]["verdict"]
    assert today_of(keeper, tank)["illness"]["first"] == view["illness"]["first"]


def test_poison_over_its_limit_stays_the_first_word_while_animals_are_unwell(living) -> None:  # noqa: F811
    _, write, keep = living
    write({"kind": "reading", "ammonia_ppm": 0, "nitrite_ppm": 3, "ph": 7.4})
    write({"kind": "ailing", "signs": ["gasping"], "count": 2})
    view = keep()
    assert view["danger"] is not None
    assert view["verdict"].startswith(view["danger"]["verdict"])
    assert view["illness"]["causes"][0]["code"] == "nitrite"


def test_what_was_unwell_is_over_once_all_are_well_again_or_a_fortnight_has_gone(living) -> None:  # noqa: F811
    _, write, keep = living
    write({"kind": "ailing", "signs": ["spots"], "count": 1}, 15)
    assert keep()["illness"] is None
    write({"kind": "ailing", "signs": ["spots"], "count": 1}, 1)
    assert keep()["illness"] is not None
    write({"kind": "ailing", "signs": []})
    assert keep()["illness"] is None


def test_after_a_change_the_plugs_are_asked_for_until_someone_saw_it_run(keeper, living) -> None:  # noqa: F811
    tank, write, keep = living
    assert keep()["plugs"] is None
    write({"kind": "water-change", "share": 0.25}, 0.1)
    assert keep()["plugs"]["after"] == "the water change"
    assert "plugs" in {d["key"] for d in today_of(keeper, tank)["due"]}
    write({"kind": "care", "what": "plugs"})
    assert keep()["plugs"] is None
    assert "plugs" not in {d["key"] for d in today_of(keeper, tank)["due"]}


def test_a_flow_timed_after_the_work_has_answered_for_the_plugs(living) -> None:  # noqa: F811
    _, write, keep = living
    write({"kind": "media-work", "what": "rinsed", "share": 0.5, "filter_key": "f1"}, 0.1)
    assert keep()["plugs"]["after"] == "the work on the filter"
    write({"kind": "flow-test", "filter_key": "f1", "container_l": 2, "times_s": [12, 12.2]}, 0.05)
    assert keep()["plugs"] is None


def test_old_work_is_not_asked_about(living) -> None:  # noqa: F811
    _, write, keep = living
    write({"kind": "water-change", "share": 0.25}, 3)
    assert keep()["plugs"] is None


def test_a_change_of_media_is_asked_about_after_its_month_with_its_flows(living) -> None:  # noqa: F811
    _, write, keep = living
    write({"kind": "flow-test", "filter_key": "f1", "container_l": 2, "times_s": [12]}, 50)
    write({"kind": "media-work", "what": "replaced", "share": 0.5, "filter_key": "f1"}, 35)
    write({"kind": "flow-test", "filter_key": "f1", "container_l": 2, "times_s": [10]}, 20)
    (change,) = keep()["reviews"]
    assert change["flow_before_lph"] == 600
    assert change["flow_after_lph"] == 720
    assert change["said"] is None
    write({"kind": "review", "of": change["of"], "worth": True, "noise": "same"})
    (again,) = keep()["reviews"]
    assert again["said"]["worth"] is True


def test_a_change_younger_than_a_month_waits(keeper, living) -> None:  # noqa: F811
    tank, write, keep = living
    write({"kind": "media-work", "what": "replaced", "share": 0.5, "filter_key": "f1"}, 10)
    assert keep()["reviews"] == []
    write({"kind": "media-work", "what": "replaced", "share": 0.5, "filter_key": "f1"}, 31)
    assert any(d["key"].startswith("review-") for d in today_of(keeper, tank)["due"])


def test_a_new_part_is_as_old_as_its_entry_and_the_rest_as_old_as_the_filter(living) -> None:  # noqa: F811
    _, write, keep = living
    worn = {p["part"]: p["age_days"] for p in keep()["filters"][0]["cleaning"]["worn"]}
    part = next(iter(worn))
    assert round(worn[part]) == 100
    write({"kind": "care", "what": "part", "part": part, "filter_key": "f1"}, 2)
    after = {p["part"]: p["age_days"] for p in keep()["filters"][0]["cleaning"]["worn"]}
    assert round(after[part]) == 2
    assert all(round(age) == 100 for name, age in after.items() if name != part)


def test_a_flow_that_falls_in_a_step_is_not_taken_for_dirt(living) -> None:  # noqa: F811
    _, write, keep = living
    for days, seconds in ((40, 10), (12, 10.6), (6, 14.5)):
        write({"kind": "flow-test", "filter_key": "f1", "container_l": 2, "times_s": [seconds]}, days)
    kept = keep()["filters"][0]
    assert "27%" in kept["fell"]
    assert "6 days" in kept["fell"]
    assert any("kink" in cause.lower() for cause in kept["look_for"])
    write({"kind": "flow-test", "filter_key": "f1", "container_l": 2, "times_s": [10.5]}, 1)
    assert keep()["filters"][0]["fell"] is None


def test_a_cleaning_that_did_not_bring_the_flow_back_says_so(living) -> None:  # noqa: F811
    _, write, keep = living

    def timed(seconds: float, days_ago: float) -> None:
        write({"kind": "flow-test", "filter_key": "f1", "container_l": 2, "times_s": [seconds]}, days_ago)

    timed(10, 80)
    timed(13, 30)
    write({"kind": "media-work", "what": "rinsed", "share": 0.5, "filter_key": "f1"}, 20)
    assert keep()["filters"][0]["fell"] is None
    timed(12.5, 18)
    kept = keep()["filters"][0]
    assert "brought it back to 80%" in kept["fell"]
    assert kept["look_for"]
    # The other half is cleaned, and it moves as it did.
    write({"kind": "media-work", "what": "rinsed", "share": 0.5, "filter_key": "f1"}, 3)
    timed(10.8, 2)
    assert keep()["filters"][0]["fell"] is None


def test_the_year_costs_what_its_devices_and_water_do(living) -> None:  # noqa: F811
    _, _, keep = living
    view = keep()
    rows = {r["name"]: r for r in view["costs"]["year"]["rows"]}
    assert "Water changed" in rows
    pump = rows["Sweetflag 800 canister"]
    assert pump["kwh_year"] == view["cost"]["kwh_year"]
    assert sum(r["money_year"] for r in rows.values()) == view["costs"]["year"]["money_year"]


def test_the_month_ahead_has_every_change_of_every_tank_on_its_day(keeper, living) -> None:  # noqa: F811
    tank, _, _ = living
    other = keeper.tank("Empty")
    rows = keeper.get("/api/ahead").json["rows"]
    changes = [r["due"]["at"] for r in rows if r["tank_id"] == tank and r["due"]["key"].split("-")[0] == "change"]
    assert len(changes) >= 8
    gaps = [datetime.fromisoformat(b) - datetime.fromisoformat(a) for a, b in pairwise(changes)]
    assert all(timedelta(days=6.9) < g < timedelta(days=7.1) for g in gaps)
    assert datetime.fromisoformat(changes[-1]) > datetime.now(UTC) + timedelta(days=50)
    assert not [r for r in rows if r["tank_id"] == other and r["due"]["key"].startswith("change")]
    assert [r["due"]["at"] for r in rows] == sorted(r["due"]["at"] for r in rows)


def test_the_month_is_each_keepers_own(visitor, keeper, living) -> None:  # noqa: F811
    assert visitor().get("/api/ahead").status_code == 401


def test_media_a_year_old_are_told_near_their_day_and_not_for_ever(keeper) -> None:
    tank = keeper.tank("Old")
    sponge = next(f for f in SAMPLE_BOXES if f.id == "burreed-20").model_dump(mode="json")

    def told(days_ago: float) -> list[str]:
        at = (datetime.now(UTC) - timedelta(days=days_ago)).isoformat()
        plans = keeper.get(f"/api/tanks/{tank}").json["state"]["filter_plan"]
        body = {"kind": "filter-plan", "filters": [{"key": f"f{days_ago:.0f}", "filter": sponge}]}
        keeper.write(tank, body, at=at, based_on=plans["id"] if plans else None)
        return [d["title"] for d in keeper.get(f"/api/tanks/{tank}").json["due"] if d["key"].startswith("media-year")]

    assert told(100) == []
    assert told(340) == ["The media of Burreed 20 sponge are a year old"]
    assert told(735) == ["The media of Burreed 20 sponge are 2 years old"]
    assert told(500) == []


@pytest.mark.parametrize(
    ("read", "words"),
    [(35.2, None), (37.0, "Top up with about"), (33.0, "mixed a little saltier")],
    ids=["well", "dried up", "thinned"],
)
def test_salinity_that_drifted_says_what_brings_it_back(keeper, read: float, words: str | None) -> None:
    tank = keeper.tank("Reef")
    plan = {
        "kind": "tank-plan",
        "tank": {"length_cm": 100, "width_cm": 50, "height_cm": 50},
        "surroundings": {"water": "salt"},
    }
    keeper.write(tank, plan)
    keeper.write(tank, {"kind": "reading", "salinity_g_kg": read})
    said = keeper.get(f"/api/tanks/{tank}/views/keep").json["salinity"]
    assert said is None if words is None else words in said


def test_what_kills_within_hours_comes_before_the_next_step_of_a_new_tanks_cycle(keeper) -> None:
    tank = keeper.tank("New")
    now = datetime.now(UTC)
    keeper.write(
        tank, {"kind": "cycle-plan", "started_at": (now - timedelta(days=9)).isoformat(), "method": "seeded-filter"}
    )
    keeper.write(
        tank, {"kind": "stocking", "species_id": "guppy", "count": 6}, at=(now - timedelta(days=2)).isoformat()
    )
    keeper.write(tank, {"kind": "ailing", "signs": ["gasping"], "count": 3})
    row = today_of(keeper, tank)
    assert row["urgent"] is True
    assert row["illness"]["causes"][0]["code"] == "oxygen"
    assert row["advice"] is None


def test_a_tank_whose_animals_are_all_lost_says_what_to_look_at_and_that_nothing_new_goes_in(
    keeper,
    living,  # noqa: F811
) -> None:
    tank, write, keep = living
    before = keep()
    assert before["illness"] is None
    write({**LOST, "count": -2})
    view = keep()
    assert view["verdict"].startswith("All of them are lost")
    assert any("Nothing new goes in" in check for check in view["illness"]["checks"])
    assert today_of(keeper, tank)["verdict"] == view["verdict"]
