"""Keep over HTTP: the care plan of a tank that lives, done by one press, moved by an absence."""

from datetime import UTC, datetime, timedelta

import pytest
from icalendar import Calendar

from reedmace.demo.sample_boxes import SAMPLE_BOXES


@pytest.fixture
def living(keeper):
    """A running tank with a canister and goldfish, and the functions that write to it and see it."""
    tank = keeper.tank("Yard")

    def write(body, days_ago=0.0):
        at = (datetime.now(UTC) - timedelta(days=days_ago)).isoformat()
        answer = keeper.write(tank, body, at=at)
        assert answer.status_code == 201, answer.json

    canister = next(f for f in SAMPLE_BOXES if f.id == "sweetflag-800").model_dump(mode="json")
    write({"kind": "tank-plan", "tank": {"length_cm": 100, "width_cm": 40, "height_cm": 45}}, 100)
    write({"kind": "stock-plan", "animals": [{"species_id": "fancy-goldfish", "count": 2}]}, 100)
    write({"kind": "filter-plan", "filters": [{"key": "f1", "filter": canister}]}, 100)
    write({"kind": "situation", "stands": "running"}, 100)
    return tank, write, lambda: keeper.get(f"/api/tanks/{tank}/views/keep").json


def row(view, what):
    return next((r for r in view["rows"] if r["task"]["what"] == what), None)


def test_a_filter_never_cleaned_is_late_and_pressing_done_writes_the_cleaning(living) -> None:
    _, write, keep = living
    clean = row(keep(), "clean")
    assert clean["task"]["in_days"] == 0
    assert clean["task"]["late_days"] > 0
    write(clean["done"])
    again = keep()
    assert row(again, "clean")["task"]["in_days"] > 1
    assert again["filters"][0]["cleanings"]


@pytest.mark.parametrize(
    "trouble",
    [[{"kind": "reading", "ammonia_ppm": 0, "nitrite_ppm": 1, "ph": 7.4}], [{"kind": "outage", "running": False}]],
    ids=["poison", "a stop"],
)
def test_a_late_cleaning_waits_while_the_film_is_in_trouble(living, trouble) -> None:
    _, write, keep = living
    for body in trouble:
        write(body, 0.5)
    view = keep()
    clean = row(view, "clean")
    if trouble[0]["kind"] == "reading":
        # How much to change, and when, is said by what is to be done about the poison, once.
        assert view["danger"] is not None
        assert row(view, "change") is None
    # A filter that stands is not cleaned by the plan at all; one in poisoned water waits a week.
    assert clean is None or clean["task"]["in_days"] > 6
    assert "rinse the canister now" not in view["verdict"]


def test_nitrite_read_for_weeks_opens_a_filter_long_late(living) -> None:
    _, write, keep = living
    for days_ago in (21, 14, 7, 0.5):
        write({"kind": "reading", "ammonia_ppm": 0, "nitrite_ppm": 0.25, "ph": 7.4}, days_ago)
    assert row(keep(), "clean")["task"]["in_days"] == 0
    # A test that reads none begins it anew.
    write({"kind": "reading", "ammonia_ppm": 0, "nitrite_ppm": 0, "ph": 7.4}, 10)
    assert row(keep(), "clean")["task"]["in_days"] > 6


def test_what_was_never_written_down_is_due_but_nobody_is_late_with_it(living) -> None:
    _, _, keep = living
    change = row(keep(), "change")
    assert (change["task"]["in_days"], change["task"]["late_days"]) == (0, 0)


def test_ticked_cleaning_steps_stand_until_the_filter_is_cleaned(living) -> None:
    _, write, keep = living
    steps = keep()["filters"][0]["cleaning"]["steps"]
    write({"kind": "step-done", "filter_key": "f1", "step_id": steps[0]["id"]})
    assert list(keep()["filters"][0]["cleaning_done"]) == [steps[0]["id"]]
    write({"kind": "media-work", "what": "rinsed", "filter_key": "f1"})
    assert keep()["filters"][0]["cleaning_done"] == {}


def test_an_absence_moves_the_plan_and_writes_a_page(living) -> None:
    _, write, keep = living
    assert keep()["holiday"] is None
    go, back = (datetime.now(UTC) + timedelta(days=d) for d in (3, 20))
    write({"kind": "away", "from_at": go.isoformat(), "until_at": back.isoformat()})
    view = keep()
    assert view["holiday"]["portions_count"] == 8
    for r in view["rows"]:
        at = datetime.fromisoformat(r["at"])
        assert not go < at < back, r["task"]["title"]


def test_an_absence_that_ends_before_it_begins_is_refused(living, keeper) -> None:
    tank, _, _ = living
    now = datetime.now(UTC)
    body = {"kind": "away", "from_at": now.isoformat(), "until_at": (now - timedelta(days=1)).isoformat()}
    answer = keeper.write(tank, body)
    assert answer.status_code == 422
    assert "departure" in str(answer.json)


def test_keep_speaks_of_nitrate_growth_and_a_trial(living) -> None:
    _, _, keep = living
    years = keep()["years"]
    assert years["nitrate"]["peak_mg_n_l"] > years["nitrate"]["trough_mg_n_l"]
    assert years["growth"]["verdict"]
    assert years["trial_of"] == "Sweetflag 800 canister"


def _stand(write, days_ago: float, hours: float, tested_after_h: float | None, **read: float) -> None:
    """A stop on trial, tested so many hours after it began."""
    write({"kind": "outage", "running": False}, days_ago)
    write({"kind": "outage", "running": True}, days_ago - hours / 24)
    if tested_after_h is not None:
        write({"kind": "reading", "ammonia_ppm": 0, "nitrite_ppm": 0, **read}, days_ago - tested_after_h / 24)


def _trials_of(keeper, tank: int):
    from reedmace.logbook.care.later_years import _trials
    from reedmace.logbook.replay.entries import Entry
    from reedmace.logbook.replay.state import replay

    entries = [Entry.model_validate(e) for e in keeper.get(f"/api/tanks/{tank}/entries?limit=200").json["entries"]]
    return _trials(replay(entries), "f1", datetime.now(UTC))


def test_a_stop_proves_something_only_when_it_was_tested_at_its_end(living, keeper) -> None:
    tank, write, _ = living
    _stand(write, 40, 170, 2)
    assert [t.tested for t in _trials_of(keeper, tank)] == [False]
    _stand(write, 20, 170, 175)
    assert [t.tested for t in _trials_of(keeper, tank)] == [False, True]


def test_a_trace_of_one_poison_is_a_trace_whatever_else_was_tested(living, keeper) -> None:
    tank, write, _ = living
    _stand(write, 20, 170, 175)
    write({"kind": "reading", "ammonia_ppm": 0.25}, 18)
    assert [t.trace for t in _trials_of(keeper, tank)] == [True]


def test_more_animals_ask_anew_whether_a_filter_may_stay_off(living, keeper) -> None:
    tank, write, keep = living
    _stand(write, 30, 170, 175)
    assert len(_trials_of(keeper, tank)) == 1
    write({"kind": "stocking", "species_id": "fancy-goldfish", "count": 2}, 5)
    assert _trials_of(keeper, tank) == []
    assert keep()["years"]["trial"]["proved"] is False


def test_plants_are_no_reason_to_trust_still_water(keeper) -> None:
    at = (datetime.now(UTC) - timedelta(days=100)).isoformat()
    canister = next(f for f in SAMPLE_BOXES if f.id == "sweetflag-800").model_dump(mode="json")
    said = []
    for planted in (False, True):
        tank = keeper.tank(f"Planted {planted}")
        for body in (
            {
                "kind": "tank-plan",
                "tank": {"length_cm": 100, "width_cm": 40, "height_cm": 45},
                "surroundings": {"planted": planted},
            },
            {"kind": "stock-plan", "animals": [{"species_id": "fancy-goldfish", "count": 4}]},
            {"kind": "filter-plan", "filters": [{"key": "f1", "filter": canister}]},
            {"kind": "situation", "stands": "running"},
        ):
            assert keeper.write(tank, body, at=at).status_code == 201
        said.append(keeper.get(f"/api/tanks/{tank}/views/keep").json["years"]["trial"]["may_try"])
    assert said == [False, False]


def test_a_tank_in_which_nothing_lives_has_no_care_plan(keeper) -> None:
    tank = keeper.tank("Empty")
    view = keeper.get(f"/api/tanks/{tank}/views/keep").json
    assert view["care"] is None
    assert view["rows"] == []


def test_what_the_plan_asks_for_stands_on_today_and_in_the_calendar(living, keeper) -> None:
    tank, _, _ = living
    mine = next(r for r in keeper.get("/api/today").json["rows"] if r["tank"]["id"] == tank)
    titles = [d["title"] for d in mine["due"]]
    assert "Open and rinse the canister" in titles
    calendar = keeper.get(f"/api/tanks/{tank}/calendar.ics").get_data(as_text=True)
    assert "Open and rinse the canister" in calendar.replace("\r\n ", "")


def test_one_secret_link_gives_all_tanks_calendar_until_it_is_revoked(living, keeper, visitor) -> None:
    tank, _, _ = living
    other = keeper.tank("Second")
    assert keeper.get("/api/account/calendar").json == {"made_at": None}
    made = keeper.send("POST", "/api/account/calendar").json
    path = made["url"].partition("/api/")[2]
    stranger = visitor()
    answer = stranger.get(f"/api/{path}")
    assert answer.status_code == 200
    assert answer.headers["X-Robots-Tag"] == "noindex"
    events = Calendar.from_ical(answer.get_data(as_text=True)).walk("VEVENT")
    assert any("Yard: Open and rinse the canister" in str(e["summary"]) for e in events)
    assert len({str(e["uid"]) for e in events}) == len(events)
    # A second parser reads the same lines.
    assert answer.get_data(as_text=True).count("BEGIN:VEVENT") == len(events)
    again = keeper.send("POST", "/api/account/calendar").json
    assert stranger.get(f"/api/{path}").status_code == 404
    path = again["url"].partition("/api/")[2]
    assert stranger.get(f"/api/{path}").status_code == 200
    assert keeper.send("DELETE", "/api/account/calendar").json == {"made_at": None}
    assert stranger.get(f"/api/{path}").status_code == 404
    assert other != tank


def test_a_tank_whose_figures_do_not_agree_leaves_the_others_their_dates(living, keeper, visitor) -> None:
    url = keeper.send("POST", "/api/account/calendar").json["url"]
    assert "Open and rinse" in visitor().get(f"/api/{url.partition('/api/')[2]}").get_data(as_text=True)
    assert visitor().send("POST", "/api/account/calendar").status_code in (401, 403)


def test_the_logbook_is_looked_through_by_words_and_kind_and_corrections_stay_told(keeper) -> None:
    tank = keeper.tank("Searched")
    for n in range(130):
        keeper.write(tank, {"kind": "note", "text": f"line {n} 100% _odd_"})
    wrong = keeper.write(tank, {"kind": "water-change", "share": 0.5}).json
    keeper.write(tank, {"kind": "withdrawal"}, supersedes=wrong["id"])
    base = f"/api/tanks/{tank}/entries"
    found = keeper.get(f"{base}?search=LINE 12 ").json["entries"]
    assert [e["body"]["text"] for e in found] == ["line 12 100% _odd_"]
    # Nothing that is looked for is a pattern.
    assert len(keeper.get(f"{base}?search=%25 _O&limit=200").json["entries"]) == 130
    assert keeper.get(f"{base}?search=%25x").json["entries"] == []
    changes = keeper.get(f"{base}?kind=water-change").json
    assert [e["id"] for e in changes["entries"]] == [wrong["id"]]
    assert changes["replacing"][0]["body"]["kind"] == "withdrawal"
    first = keeper.get(f"{base}?kind=note&limit=100").json
    second = keeper.get(f"{base}?kind=note&limit=100&before={first['next_before']}").json
    assert len(first["entries"]) + len(second["entries"]) == 130
    for odd in ("kind=%27;drop", "search=", "kind=" + "x" * 40):
        assert keeper.get(f"{base}?{odd}").status_code == 422


def test_a_change_says_what_it_pours_and_a_top_up_comes_round_once_written(keeper, living) -> None:
    tank, write, keep = living
    warm = {"temperature_c": 26, "room_c": 18}
    size = {"length_cm": 100, "width_cm": 40, "height_cm": 45}
    stored = keeper.get(f"/api/tanks/{tank}/entries?kind=tank-plan").json["entries"][0]["id"]
    body = {"kind": "tank-plan", "tank": size, "surroundings": warm}
    assert keeper.write(tank, body, based_on=stored).status_code == 201
    view = keep()
    change, top_up = row(view, "change"), row(view, "top-up")
    litres = 0.25 * view["volume"]["net_l"]
    assert change["pour"].startswith(f"{litres:.0f} L: ")
    assert "hot with" in change["pour"]
    assert row(view, "clean")["pour"] is None
    per_day = view["supplies"]["evaporation"]
    assert top_up["task"]["in_days"] == 0
    assert f"{per_day['litres_day'] * max(per_day['top_up_days'], 1):.1f} L" in top_up["task"]["title"]

    def reminded() -> bool:
        rows = keeper.get("/api/today").json["rows"]
        return any(d["key"] == "top-up" for r in rows if r["tank"]["id"] == tank for d in r["due"])

    # Nobody is nagged for what they never wrote down.
    assert not reminded()
    write(top_up["done"], 9)
    assert reminded()
    write(top_up["done"])
    assert row(keep(), "top-up")["task"]["in_days"] > 0.5


def test_alkalinity_that_runs_down_is_foreseen_from_its_last_reading(living) -> None:
    _, write, keep = living
    assert row(keep(), "soda") is None
    write({"kind": "reading", "ammonia_ppm": 0, "nitrite_ppm": 0, "nitrate_ppm": 20, "ph": 7.2, "kh_dkh": 3}, 40)
    write({"kind": "reading", "ammonia_ppm": 0, "nitrite_ppm": 0, "nitrate_ppm": 30, "ph": 7.2, "kh_dkh": 3}, 1)
    soda = row(keep(), "soda")
    assert 0 < soda["task"]["in_days"] < 60
    assert "bicarbonate" in soda["task"]["title"]
    assert soda["stage"] == "cycle"
    write({"kind": "alkalinity", "raise_dkh": 3})
    later = row(keep(), "soda")
    assert later is None or later["task"]["in_days"] > soda["task"]["in_days"]


def test_no_soda_is_planned_while_ammonia_is_read_since_it_would_free_it(living) -> None:
    _, write, keep = living
    clear = {"kind": "reading", "ammonia_ppm": 0, "nitrite_ppm": 0, "nitrate_ppm": 20, "ph": 7.2, "kh_dkh": 2.1}
    write(clear, 8)
    assert row(keep(), "soda") is not None
    write({**clear, "ammonia_ppm": 0.5}, 0.1)
    assert row(keep(), "soda") is None
