"""Around the forecast: what if, history, methods, plan, balance, ready, ramp, emergency, cloud, seeds, foresight."""

import pytest

from reedmace.core.computations import compute
from tests.support.cycle_logs import DOSED, STOCKED, reading
from tests.support.cycling import A, proving

FALLING = {
    **DOSED,
    "readings": [
        reading(0, 2, 0, 0, kh_dkh=5),
        reading(4, 1, 0.5, kh_dkh=4.2),
        reading(7, 0.5, 1, kh_dkh=3.2),
        reading(9, 0.25, 1, kh_dkh=2.5),
    ],
    "doses": [{"day": 0, "raise_mg_n_l": 2 * A}, {"day": 5, "raise_mg_n_l": A}],
}


def advice(log: dict):
    return compute("cycle-advice", {"log": log})


def test_kh_running_out_is_foreseen_with_its_day_before_it_happens() -> None:
    found = advice(FALLING)
    assert not found.stalled
    kh = next(f for f in found.coming_stalls if f.kind == "alkalinity")
    assert kh.what == "KH runs out"
    # The tests fall by about 0.28 a day from 2.5: 1 dKH is reached five to six days on.
    assert 13.5 <= kh.day <= 15.5
    assert "4 KH tests" in kh.detail


def test_kh_just_raised_pushes_the_day_out_of_sight() -> None:
    found = advice({**FALLING, "day_now": 9.1, "alkalinity": [{"day": 9.05, "raise_dkh": 4}]})
    assert all(f.kind != "alkalinity" for f in found.coming_stalls)


def test_nitrite_leaving_the_scale_and_a_cooling_tank_are_foreseen() -> None:
    rising = [reading(7, 1, 1, kh_dkh=8, temperature_c=26), reading(9, 1, 3, kh_dkh=8, temperature_c=24)]
    kinds = {f.kind: f for f in advice({**DOSED, "start_kh_dkh": 9, "readings": rising}).coming_stalls}
    assert kinds["off-scale"].day == pytest.approx(11, abs=0.1)
    assert kinds["cold"].day == pytest.approx(11, abs=0.1)


STUCK = [reading(d, 0.25, 4, 10, kh_dkh=8, ph=7.6) for d in (14, 16, 18)]


@pytest.mark.parametrize(
    ("change", "kind"),
    [
        ({"filter_running": False, "outages": [{"day": 17, "hours": 30}]}, "filter-off"),
        ({"outages": [{"day": 12, "hours": 12}]}, "filter-off"),
        ({"readings": [*STUCK[:2], {**STUCK[2], "temperature_c": 18}]}, "cold"),
        ({"readings": [*STUCK[:2], {**STUCK[2], "temperature_c": 35}]}, "hot"),
        ({"readings": [*STUCK[:2], {**STUCK[2], "kh_dkh": 0.5}]}, "alkalinity"),
        ({"readings": [*STUCK[:2], {**STUCK[2], "ph": 6.4}]}, "acid"),
        ({"readings": [{**r, "ammonia_mg_n_l": 6.0} for r in STUCK]}, "overdosed"),
        ({"readings": [{**r, "ammonia_mg_n_l": 3.0, "ph": 8.6} for r in STUCK]}, "free-ammonia"),
        ({"readings": [*STUCK[:2], {**STUCK[2], "phosphate_ppm": 0}]}, "phosphate"),
        ({"changes": [{"day": 15, "share": 0.3, "treated": False}], "tap": {"chlorine": "chlorine"}}, "chlorine"),
        ({"media": [{"day": 10, "what": "rinsed-tap"}], "tap": {"chlorine": "chloramine"}}, "chlorine"),
        ({"media": [{"day": 10, "what": "replaced"}]}, "media"),
        ({"media": [{"day": 10, "what": "new-filter"}]}, "sterile-filter"),
        ({"skimmer_running": True, "salinity_g_kg": 35}, "skimmer"),
    ],
    ids=lambda value: value if isinstance(value, str) else "",
)
def test_each_cause_of_a_stall_is_found_with_its_evidence(change: dict, kind: str) -> None:
    found = advice({**DOSED, "day_now": 18.2, "start_kh_dkh": 9, "readings": STUCK, **change})
    assert found.stalled
    cause = next(c for c in found.causes if c.kind == kind)
    assert cause.title
    assert cause.detail


@pytest.mark.parametrize(
    ("change", "kind", "then"),
    [
        ({"readings": [{**r, "off_scale": ["nitrite"]} for r in STUCK]}, "off-scale", "Read nitrite diluted"),
        ({"kit": {"expired": True}}, "kit", "Test with a kit in date"),
    ],
    ids=["off the scale", "an old kit"],
)
def test_tests_that_could_not_show_a_fall_are_no_stall(change: dict, kind: str, then: str) -> None:
    found = advice({**DOSED, "day_now": 18.2, "start_kh_dkh": 9, "readings": STUCK, **change})
    assert not found.stalled
    assert found.verdict.startswith("It may not have stalled")
    assert [c.kind for c in found.causes] == [kind]
    assert any(a.title == then for a in [found.first, *found.then])


SPENT = {**DOSED, "day_now": 18.2, "start_kh_dkh": 9, "media": [{"day": 10, "what": "replaced"}]}


@pytest.mark.parametrize(
    ("change", "stalled"),
    [
        ({"readings": [reading(d, 2, 0) for d in (13, 15, 18)]}, True),
        ({"readings": [reading(d, 2, 0) for d in (13, 15, 18)], "doses": [{"day": 14, "raise_mg_n_l": 1.0}]}, False),
        ({"readings": [reading(d, 0, n) for d, n in ((13, 2), (15, 3), (18, 4))]}, False),
        ({"readings": [reading(d, 0, n) for d, n in ((13, 4), (15, 3), (18, 2))]}, False),
        ({"readings": [reading(d, 0, 4) for d in (13, 15, 18)], "changes": [{"day": 17, "share": 0.5}]}, True),
        (
            {
                "readings": [reading(d, 0, n) for d, n in ((13, 4), (15, 4), (18, 1.5))],
                "changes": [{"day": 17, "share": 0.5}],
            },
            False,
        ),
        ({"readings": [reading(d, 2, 0) for d in (16.5, 17, 18)]}, False),
        ({"readings": [reading(d, 2, 0) for d in (4, 6, 9)], "day_now": 9.5}, False),
    ],
    ids=[
        "ammonia stands",
        "ammonia topped up and used",
        "nitrite rises",
        "nitrite falls",
        "a change that took nothing out",
        "nitrite fell further than the change",
        "not two days",
        "too young",
    ],
)
def test_only_what_stands_still_is_a_stall(change: dict, stalled: bool) -> None:
    assert advice({**SPENT, **change}).stalled is stalled


def test_with_animals_in_the_verdict_says_what_stands_and_the_action_what_to_do() -> None:
    tap = {"chlorine": "chlorine"}
    log = {**DOSED, "tap": tap, "method": "animals-in", "animals_in_mg_n_l_day": 0.1}
    log |= {"readings": [reading(8.9, 2, 1, ph=7.8)]}
    found = advice(log)
    assert found.verdict == "Ammonia and nitrite are above what animals bear from day to day."
    assert found.first.do == "change-water"
    assert found.first.reason.startswith("Ammonia reads 2 ppm where 0.")
    assert found.first.reason.endswith("is the most; nitrite reads 1 ppm where 0.5 ppm is the most.")
    # Once it has been changed, the old test no longer asks for another change.
    after = advice({**log, "changes": [{"day": 8.95, "share": 0.5}]})
    assert after.verdict.startswith("Water was changed since the last test")
    assert after.first.do == "test"
    heavy = advice({**log, "animals_in_mg_n_l_day": 20})
    assert "Even so it will not stay under the limit until tomorrow" in heavy.verdict
    assert "Change" not in heavy.verdict


def test_untreated_water_asks_for_conditioner_until_it_has_had_it() -> None:
    raw = {"day": 8.8, "share": 0.3, "treated": False}
    log = {**DOSED, "tap": {"chlorine": "chlorine"}, "readings": [reading(8.9, 1, 0.5)], "start_kh_dkh": 8}
    first = advice({**log, "changes": [raw]}).first
    assert (first.do, first.when) == ("treat-water", "now")
    assert advice({**log, "changes": [{**raw, "conditioned": True}]}).first.do != "treat-water"
    assert advice({**log, "changes": [{**raw, "treated": True}]}).first.do != "treat-water"


def test_a_stuck_tank_without_a_cause_rules_the_usual_ones_out() -> None:
    log = {**DOSED, "day_now": 18.2, "start_kh_dkh": 9, "readings": STUCK}
    assert not advice(log).stalled
    ruled = advice({**log, "media": [{"day": 10, "what": "new-filter"}]}).ruled_out
    assert {r.title for r in ruled} == {"The filter.", "Alkalinity.", "Warmth."}


def test_a_raised_kh_with_animals_in_goes_slower() -> None:
    low = [reading(9, 0.25, 0, kh_dkh=0.5, ph=6.6)]
    empty = advice({**DOSED, "readings": low}).first
    kept = advice({**DOSED, "method": "animals-in", "animals_in_mg_n_l_day": 0.1, "readings": low})
    slow = next(a for a in [kept.first, *kept.then] if a.do == "raise-kh")
    assert empty.do == "raise-kh"
    assert slow.raise_dkh < empty.raise_dkh
    assert slow.ph_shift <= 0.5 + 1e-9


def test_ready_advice_names_the_first_animals_and_no_more() -> None:
    log = {
        "net_l": 242,
        "day_now": 40.1,
        "planned_load_mg_n_l_day": 0.45,
        "temperature_c": 28,
        **proving(38, 39),
        "animals": [{"species_id": "rosy-barb", "count": 12}, {"species_id": "weather-loach", "count": 4}],
    }
    found = advice(log)
    assert [a.do for a in [found.first, *found.then]] == ["change-water", "cool", "add-animals", "feed-film"]
    assert "11 × rosy barb" in found.then[1].title
    assert "loach" not in found.then[1].title
    assert "no more until day 14" in found.then[1].detail
    assert found.then[0].to_c < 25
    # 45 ppm of nitrate down to 20 is 56 %; the final change is never under 60.
    assert found.first.amount == pytest.approx(0.6 * 242)


def test_once_animals_are_in_nothing_is_dosed_and_the_next_come_after_a_week_of_zeros() -> None:
    week = [reading(d, 0, 0, 5 + d) for d in (11, 13, 15, 17, 19.5)]
    ready_now = advice({**STOCKED, "readings": week})
    assert ready_now.first.do == "add-animals"
    assert "rosy barb" in ready_now.first.title or "weather loach" in ready_now.first.title
    early = advice({**STOCKED, "day_now": 15, "readings": week[:3]})
    assert all(a.do not in ("add-animals", "dose-ammonia") for a in [early.first, *early.then])
    spike = advice({**STOCKED, "readings": [*week, reading(19.9, 1, 0.5, ph=7.8)]})
    assert spike.first.do == "change-water"


def test_a_settled_tank_asks_for_a_weekly_test_and_nothing_else() -> None:
    old = {**STOCKED, "day_now": 90, "stocked_day": 10}
    fine = advice({**old, "readings": [reading(86, 0, 0, 20, ph=7.4)]})
    assert fine.verdict == "Its cycle is long over; the water is within the limits."
    assert [a.do for a in [fine.first, *fine.then]] == ["test"]
    assert advice({**old, "readings": [reading(70, 0, 0, 20)]}).verdict == "The weekly test is due."
    assert advice({**old, "readings": [reading(89, 2, 0.5, ph=7.8)]}).first.do == "change-water"


@pytest.mark.parametrize(
    ("readings", "said"),
    [
        ([{"day": 2, "ph": 7.8}, {"day": 5, "ph": 7.5}], "pH"),
        ([{"day": 2, "temperature_c": 28}, {"day": 5, "temperature_c": 26}], "warmth"),
        ([{"day": 2, "ph": 7.6, "temperature_c": 27}, {"day": 5, "ph": 7.6, "temperature_c": 27}], None),
    ],
    ids=["pH falls", "it cools", "it holds"],
)
def test_a_bottles_window_about_to_be_lost_is_foreseen(readings: list[dict], said: str | None) -> None:
    log = {
        "net_l": 100,
        "day_now": 5,
        "helpers": ["bottled-culture"],
        "temperature_c": 27,
        "start_ph": 7.6,
        "start_kh_dkh": 6,
        "doses": [{"day": 0, "raise_mg_n_l": 1.5}],
        "readings": [{"ammonia_mg_n_l": 1.5, "nitrite_mg_n_l": 0, **r} for r in readings],
    }
    foreseen = [f for f in compute("cycle-advice", {"log": log}).coming_stalls if f.kind == "bottle"]
    assert len(foreseen) == (said is not None)
    if said:
        assert said in foreseen[0].detail
        assert 5 <= foreseen[0].day <= 15
    without = {**log, "helpers": []}
    assert not [f for f in compute("cycle-advice", {"log": without}).coming_stalls if f.kind == "bottle"]
