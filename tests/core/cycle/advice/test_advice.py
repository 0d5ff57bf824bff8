"""Around the forecast: what if, history, methods, plan, balance, ready, ramp, emergency, cloud, seeds, foresight."""

from itertools import pairwise
from typing import Any

import pytest

from reedmace.core.chemistry import acute_criterion_mg_n_l, chronic_criterion_mg_n_l, un_ionised_share
from reedmace.core.chemistry.tolerance import ammonia_limit_mg_n_l
from reedmace.core.computations import compute
from reedmace.core.cycle.outlook.coming_stalls import kh_fall_dkh_day
from reedmace.core.cycle.record.log import CycleLog, LoggedChange
from reedmace.core.cycle.record.water_now import water_now
from reedmace.core.errors import CannotAnswer
from tests.support.cycling import NA, NI, A, proving

pytestmark = pytest.mark.slow

DOSED = {"net_l": 242, "day_now": 9, "start_kh_dkh": 2.4, "start_ph": 7.2}


def reading(day: float, ammonia: float, nitrite: float, nitrate: float | None = None, **more) -> dict:
    return {
        "day": day,
        "ammonia_mg_n_l": ammonia * A,
        "nitrite_mg_n_l": nitrite * NI,
        "nitrate_mg_n_l": None if nitrate is None else nitrate * NA,
        **more,
    }


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


def test_a_dose_before_a_change_is_diluted_by_it_and_one_after_is_not() -> None:
    log = {**DOSED, "net_l": 100, "readings": [reading(8, 1, 0)], "tap": {"ammonia_mg_n_l": 0.2}}
    before = [{"day": 8.2, "raise_mg_n_l": 1.0}]
    after = [{"day": 8.6, "raise_mg_n_l": 1.0}]
    change = [{"day": 8.4, "share": 0.5}]

    def ammonia(doses: list) -> float:
        return water_now(CycleLog.model_validate({**log, "doses": doses, "changes": change})).ammonia_now

    assert ammonia(before) == pytest.approx((A + 1.0) / 2 + 0.1)
    assert ammonia(after) == pytest.approx(A / 2 + 0.1 + 1.0)


def test_kh_is_carried_through_bicarbonate_and_changes_with_the_taps_own() -> None:
    log = CycleLog.model_validate(
        {
            **DOSED,
            "readings": [reading(8, 1, 0, kh_dkh=1.0)],
            "tap": {"kh_dkh": 9.0},
            "alkalinity": [{"day": 8.2, "raise_dkh": 2.0}],
            "changes": [{"day": 8.6, "share": 0.5}],
        }
    )
    state = water_now(log)
    assert state.kh_now == pytest.approx((1 + 2) / 2 + 4.5)
    assert not state.low_kh


def test_the_fall_of_kh_is_read_since_the_last_change_only() -> None:
    kh = [reading(d, 0.5, 1, kh_dkh=k) for d, k in ((3, 6.0), (5, 5.0), (7, 8.0), (8, 7.5), (9, 7.0))]
    plain = CycleLog.model_validate({**DOSED, "readings": kh, "day_now": 9.1})
    changed = plain.model_copy(update={"changes": [LoggedChange(day=6, share=0.5)]})
    assert kh_fall_dkh_day(changed) == (pytest.approx(0.5), "3 KH tests over 2 days")
    # Taken together the tests before and after the change would have shown a rise.
    assert kh_fall_dkh_day(plain) is None


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


def what_if(log: dict, *changes: dict):
    return compute("cycle-what-if", {"log": log, "draws": 300, "changes": list(changes)})


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


def test_what_if_left_to_itself_tries_the_usual_and_names_the_best() -> None:
    answer = what_if({"net_l": 130, "day_now": 5, "temperature_c": 23, "doses": [{"day": 0, "raise_mg_n_l": 2 * A}]})
    assert {c.name.split(":")[0] for c in answer.changes} == {
        "Warmer",
        "Seed",
        "Half the dose",
        "KH raised to 8 dKH",
        "KH left alone",
    }
    assert "seed" in answer.verdict


def test_soft_water_gains_its_date_by_bicarbonate() -> None:
    log = {
        "net_l": 130,
        "day_now": 10,
        "start_kh_dkh": 1,
        "start_ph": 6.9,
        "planned_load_mg_n_l_day": 1,
        "doses": [{"day": 0, "raise_mg_n_l": 2 * A}],
    }
    alone = what_if(log, {"name": "alone", "hold_kh_dkh": 0})
    assert alone.as_advised.pass_day_p50 is not None
    assert alone.changes[0].pass_day_p50 is None
    assert alone.changes[0].text == "no date"


def test_the_forecast_says_how_it_moved_since_last_week() -> None:
    base: dict[str, Any] = {
        "net_l": 130,
        "day_now": 20,
        "start_kh_dkh": 8,
        "readings": [reading(3, 2, 0), reading(6, 1, 0.5), reading(10, 0.25, 4), reading(13, 0, 5)],
        "doses": [{"day": 0, "raise_mg_n_l": 2 * A}, {"day": 10.5, "raise_mg_n_l": A}],
    }
    quick = {**base, "readings": [*base["readings"], reading(16, 0, 0.5, 30), reading(19, 0, 0, 35)]}
    slow = {**base, "readings": [*base["readings"], reading(16, 1, 5), reading(19, 1, 5)]}
    earlier, later = (compute("cycle-history", {"log": log, "draws": 400}) for log in (quick, slow))
    assert earlier.moved_days < -1
    assert "nearer" in earlier.verdict
    assert later.moved_days > earlier.moved_days + 3
    assert [s.on_day for s in later.seen] == [6, 13, 20]


def test_a_young_cycle_has_not_moved_yet() -> None:
    answer = compute("cycle-history", {"log": {"net_l": 100, "day_now": 4}, "draws": 50})
    assert answer.moved_days is None
    assert "not a week old" in answer.verdict


def methods(**more):
    answer = compute("cycle-methods", more)
    return answer, {m.method: m for m in answer.methods}


def test_what_you_have_decides_the_method() -> None:
    def best(**more) -> str:
        return methods(**more)[0].methods[0].method

    assert best() == "measured-ammonia"
    assert best(resources={"mature_media": "own"}) == "seeded-filter"
    assert best(resources={"mature_media": "own", "old_filter_fits": True}) == "side-by-side"
    assert best(resources={"mature_media": "trusted"}, salinity_g_kg=35) == "seeded-filter"
    assert best(resources={"plants": "many", "ammonia": False}) == "planted"
    assert best(resources={"ammonia": False}) == "fish-food"
    assert best(animals_in=True) == "animals-in"


def test_media_of_unknown_health_are_left_out_and_said_so() -> None:
    answer, by = methods(resources={"mature_media": "unsure"})
    assert by["seeded-filter"].fits == "not-here"
    assert "health" in by["seeded-filter"].why
    assert "disease" in answer.verdict


def test_helpers_are_combined_and_make_it_shorter() -> None:
    _, bare = methods(ph=7.6)
    _, both = methods(ph=7.6, resources={"bottle": "in-date", "plants": "some"})
    assert both["measured-ammonia"].helpers == ["bottled-culture", "plants"]
    # A bottle may be worth nothing: the best case comes much nearer, the worst hardly.
    assert both["measured-ammonia"].days_low < bare["measured-ammonia"].days_low - 4
    assert both["measured-ammonia"].days_high <= bare["measured-ammonia"].days_high
    assert "bottled culture" in both["measured-ammonia"].title


def test_every_disagreement_shows_both_sides_and_what_is_followed() -> None:
    answer, _ = methods()
    assert len(answer.disputes) >= 6
    for d in answer.disputes:
        assert len({d.one_side, d.other_side, d.followed}) == 3


def plan(**more):
    return compute("cycle-plan", {"net_l": 100, **more})


@pytest.mark.parametrize(
    ("change", "what", "level"),
    [
        ({"ammonia_source": "household-cleaner"}, "Ammonia", "first"),
        ({"ammonia_source": "unknown"}, "Ammonia", "watch"),
        ({"temperature_c": 15}, "Warmth", "first"),
        ({"ph": 6.3}, "pH", "first"),
        ({"ph": 8.8}, "pH", "watch"),
        ({"kh_dkh": 0.5}, "KH", "first"),
        ({"kh_dkh": 3}, "KH", "watch"),
        ({"phosphate_ppm": 0}, "Phosphate", "watch"),
        ({"tap": {"chlorine": "chloramine"}}, "Tap: chlorine", "watch"),
        ({"tap": {"chlorine": "none"}}, "Tap: chlorine", "fine"),
        ({"tap": {"ammonia_mg_n_l": 0.5}}, "Tap: ammonia", "watch"),
        ({"tap": {"nitrate_mg_n_l": 9}}, "Tap: nitrate", "watch"),
        ({"helpers": ["bottled-culture"], "ph": 6.9}, "Bottled culture", "watch"),
        ({"helpers": ["bottled-culture"], "ph": 7.6}, "Bottled culture", "fine"),
    ],
    ids=lambda value: value if isinstance(value, str) else "",
)
def test_the_tanks_own_conditions_are_judged(change: dict, what: str, level: str) -> None:
    found = {c.what: c for c in plan(**change).conditions}[what]
    assert found.level == level
    assert bool(found.remedy) == (level != "fine")


def test_a_cleaner_is_never_let_pass() -> None:
    answer = plan(ammonia_source="household-cleaner")
    assert answer.verdict.startswith("Put right first: Never a household cleaner")
    assert "bleach" in answer.conditions[0].remedy


def test_the_alkalinity_the_plan_will_eat_is_the_nitrogen_times_its_factor() -> None:
    answer = plan(kh_dkh=3, planned_load_mg_n_l_day=1.2)
    assert answer.kh_eaten_dkh == pytest.approx(7.14 * answer.nitrogen_mg_n_l / 17.85)
    assert answer.kh_eaten_dkh > 3
    # What is short, as bicarbonate: 3.0 g to the dKH in 100 L (common practice, and the masses).
    assert answer.bicarbonate_g == pytest.approx(3.0 * answer.kh_short_dkh, rel=0.01)
    assert 5 < answer.kh_gone_day < 60
    assert plan(kh_dkh=15).kh_gone_day is None


def test_heat_goes_up_while_empty_and_down_before_the_animals() -> None:
    up, down = plan(temperature_c=22, animals_low_c=22, animals_high_c=25).heat
    assert (up.to_c, up.days) == (28, 3)
    assert down.to_c == 23.5
    assert down.days == pytest.approx(3)
    assert plan(method="animals-in").heat == []


def balance(log: dict):
    return compute("nitrogen-balance", {"log": {"net_l": 100, "day_now": 20, **log}})


def test_the_books_close_when_what_was_dosed_is_found() -> None:
    doses = [{"day": 0, "raise_mg_n_l": 1.5}, {"day": 8, "raise_mg_n_l": 1.5}]
    answer = balance(
        {"doses": doses, "readings": [{"day": 19, "ammonia_mg_n_l": 0.2, "nitrite_mg_n_l": 1.0, "nitrate_mg_n_l": 1.9}]}
    )
    assert answer.meaning == "closes"
    assert answer.expected_mg_n_l == pytest.approx(3.0)
    # 3 mg N/L can make 13.3 ppm of nitrate at most.
    assert answer.most_nitrate_ppm == pytest.approx(3 * 4.4268, rel=1e-3)


def test_two_ppm_of_ammonia_gives_at_most_seven_of_nitrate() -> None:
    # Common practice: 2 mg/L ammonia gives at most 7 to 9 mg/L nitrate (7 if read as NH4, 7.3 as NH3).
    assert 6.5 <= balance({"doses": [{"day": 0, "raise_mg_n_l": 2 * A}]}).most_nitrate_ppm <= 9


@pytest.mark.parametrize(
    ("found", "change", "meaning", "words"),
    [
        (0.3, {"plants": "many"}, "missing", "plants"),
        (0.3, {}, "missing", "shaken"),
        (12.0, {}, "too-much", "nitrite reading as nitrate"),
    ],
)
def test_a_gap_in_the_books_means_something(found: float, change: dict, meaning: str, words: str) -> None:
    readings = [{"day": 19, "ammonia_mg_n_l": 0, "nitrite_mg_n_l": 0, "nitrate_mg_n_l": found}]
    answer = balance({"doses": [{"day": 0, "raise_mg_n_l": 4}], "readings": readings, **change})
    assert answer.meaning == meaning
    assert words in answer.verdict


def test_changes_and_tap_are_in_the_books() -> None:
    answer = balance(
        {
            "doses": [{"day": 0, "raise_mg_n_l": 4}],
            "changes": [{"day": 10, "share": 0.5}],
            "tap": {"nitrate_mg_n_l": 1},
            "readings": [{"day": 19, "ammonia_mg_n_l": 0, "nitrite_mg_n_l": 0, "nitrate_mg_n_l": 3}],
        }
    )
    assert answer.expected_mg_n_l == pytest.approx((1 + 4) * 0.5 + 0.5)
    assert answer.meaning == "closes"


def ready(log: dict, **more):
    return compute("cycle-readiness", {"log": log, **more})


PLANTED: dict[str, Any] = {
    "net_l": 60,
    "day_now": 40,
    "method": "planted",
    "plants": "many",
    "plants_growing_day": 8,
    "readings": [reading(d, 0, 0, 2) for d in (9, 16, 23, 30, 37)],
}


def test_a_planted_quiet_start_is_ready_after_four_weeks_of_growth_and_zeros() -> None:
    assert ready(PLANTED).ready
    assert not ready({**PLANTED, "plants_growing_day": 15}).ready
    unseen = ready({**PLANTED, "plants_growing_day": None})
    assert not unseen.ready
    assert "new growth" in unseen.missing[-1]
    assert not ready({**PLANTED, "readings": PLANTED["readings"][::4]}).ready


def test_food_and_animals_are_proved_by_a_week_of_zeros() -> None:
    week = [reading(d, 0, 0, n) for d, n in ((30, 10), (32, 10), (34, 20), (36, 20), (37, 20))]
    for method in ("fish-food", "animals-in", "side-by-side"):
        log = {"net_l": 60, "day_now": 37.2, "method": method, "readings": week, "food_g_day": 0.5}
        assert ready(log).ready, method
        # A difference that the kit's own steps could feign is no rise.
        assert not ready(
            {**log, "readings": [{**r, "nitrate_mg_n_l": (10 + i) * NA} for i, r in enumerate(week)]}
        ).ready
        assert not ready({**log, "readings": week[2:]}).ready, method


def test_one_reading_after_two_doses_counts_for_neither() -> None:
    log = {
        "net_l": 100,
        "day_now": 40,
        "planned_load_mg_n_l_day": 0.4,
        "doses": [{"day": 38.8, "raise_mg_n_l": 0.6}, {"day": 39.05, "raise_mg_n_l": 0.6}],
        "readings": [reading(38.85, 0.6, 0), reading(39.1, 1, 0), reading(40, 0, 0, 40)],
    }
    answer = ready(log)
    assert not answer.ready
    assert next(s for s in answer.standards if s.followed).cleared == 1


def test_an_expired_kit_proves_nothing() -> None:
    log = {"net_l": 100, "day_now": 40.1, "planned_load_mg_n_l_day": 0.4, **proving(38, 39)}
    assert ready(log).ready
    expired = ready({**log, "kit": {"expired": True}})
    assert not expired.ready
    assert any("past its date" in m for m in expired.missing)
    assert expired.confidence == "low"


def test_confidence_grows_with_number_spacing_and_resolution() -> None:
    few = {"net_l": 100, "day_now": 20.2, "readings": [reading(5, 2, 0), reading(20, 0, 0)]}
    many = {**few, "readings": [reading(d, 1, 1) for d in range(2, 21, 2)]}
    coarse = {**many, "kit": {"ammonia_ppm": [0, 1, 4]}}
    levels = ["none", "low", "fair", "good"]
    found = [levels.index(ready(log).confidence) for log in (few, coarse, many)]
    assert found[0] < found[1] <= found[2]
    assert any("coarse" in w for w in ready(coarse).confidence_why)


def ramp(proven: float, *animals: tuple[str, int], **more):
    rows = [{"species_id": s, "count": c} for s, c in animals]
    return compute("stocking-ramp", {"net_l": 242, "proven_mg_n_l_day": proven, "animals": rows, **more})


def test_load_never_outruns_what_is_proven_or_carried() -> None:
    for proven in (0.25, 0.3, 0.54, 2.0):
        answer = ramp(proven, ("rosy-barb", 12), ("weather-loach", 4))
        loads = [s.load_mg_n_l_day for s in answer.steps]
        assert loads[0] <= proven / 1.2 + 1e-9
        for before, after, step in zip(loads, loads[1:], answer.steps[1:], strict=False):
            ceiling = max(1.5 * before, proven / 1.2 if step.day <= 14 else 0)
            assert after <= ceiling + 1e-9 or "half rations" in step.before
        counts: dict[str, int] = {}
        for s in answer.steps:
            for a in s.add:
                counts[a.species_id] = counts.get(a.species_id, 0) + a.count
        assert counts == {"rosy-barb": 12, "weather-loach": 4}
        assert answer.steps[-1].plan_share == pytest.approx(1)


def test_more_proven_means_fewer_steps_and_nothing_proven_none() -> None:
    assert len(ramp(0.54, ("rosy-barb", 12)).steps) <= len(ramp(0.25, ("rosy-barb", 12)).steps)
    nothing = ramp(0.05, ("rosy-barb", 12))
    assert nothing.steps == []
    assert nothing.verdict.startswith("Nothing yet")
    with pytest.raises(CannotAnswer):
        ramp(0.5, ("no-such-fish", 3))


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


def emergency(**more):
    return compute("emergency-plan", {"net_l": 60, "ammonia_mg_n_l": 1.0, "nitrite_mg_n_l": 0.1, **more})


def test_the_daily_limit_is_the_stricter_of_free_ammonia_and_the_criterion() -> None:
    for ph, t in ((6.8, 24), (7.4, 25), (8.2, 26), (8.8, 28)):
        limit, rule = ammonia_limit_mg_n_l(ph, t, 0)
        free, published = 0.02 / un_ionised_share(ph, t), chronic_criterion_mg_n_l(ph, t)
        assert limit == pytest.approx(min(free, published))
        assert ("EPA" in rule) == (published < free)


def test_one_set_of_changes_brings_every_poison_under_its_limit_until_tomorrow() -> None:
    answer = emergency(ph=7.8, nitrite_mg_n_l=0.6, nitrate_mg_n_l=20, load_mg_n_l_day=0.1)
    ammonia, nitrite, nitrate = (one.limit_mg_n_l for one in answer.limits)
    last = answer.changes[-1]
    assert last.ammonia_after_mg_n_l + 0.1 * answer.feed_share <= ammonia + 1e-6
    assert last.nitrite_after_mg_n_l <= nitrite
    left = 1.0
    for c in answer.changes:
        assert 0 < c.share <= 0.5
        left *= 1 - c.share
    assert 20 * left <= nitrate + 1e-6
    assert answer.change_share_day == pytest.approx(1 - left)
    assert answer.holds_until_tomorrow


def test_the_taps_own_ammonia_is_counted_and_said() -> None:
    clean, dirty = emergency(ph=7.8), emergency(ph=7.8, tap={"ammonia_mg_n_l": 0.3})
    assert len(dirty.changes) > len(clean.changes) or dirty.change_share_day > clean.change_share_day
    hopeless = emergency(ph=8.2, tap={"ammonia_mg_n_l": 2.0})
    assert not hopeless.holds_until_tomorrow
    assert any("tap itself brings" in c for c in hopeless.cautions)
    assert "Nothing today" in hopeless.feeding


def test_an_old_acid_tank_is_changed_in_small_portions() -> None:
    answer = emergency(ph=6.2, kh_dkh=0.5, ammonia_mg_n_l=9, tap={"ph": 8.0, "kh_dkh": 8})
    before = 6.2
    for change in answer.changes:
        assert abs(change.after_ph - before) <= 0.5 + 1e-6
        before = change.after_ph
    assert any("frees ammonia" in c for c in answer.cautions)


def test_over_the_acute_criterion_it_says_now_and_gasping_comes_first() -> None:
    high = acute_criterion_mg_n_l(8.2, 25) + 1
    answer = emergency(ph=8.2, temperature_c=25, ammonia_mg_n_l=high, gasping=True)
    assert answer.verdict.startswith("Act now")
    assert answer.cautions[0].startswith("Gasping")
    assert answer.tests_per_day == 2
    assert "vet" in answer.vet


def test_salt_water_bears_more_nitrite() -> None:
    fresh, salt = emergency(), emergency(salinity_g_kg=35, ph=8.1)
    assert salt.limits[1].limit_mg_n_l == pytest.approx(10 * fresh.limits[1].limit_mg_n_l)


def test_within_the_limits_nothing_is_changed() -> None:
    answer = emergency(ammonia_mg_n_l=0.05, ph=7.0)
    assert answer.changes == []
    assert answer.verdict.startswith("Within the limits")


def test_a_change_is_split_where_ph_would_jump() -> None:
    question = {
        "net_l": 100,
        "solutes": [{"what": "nitrate", "now_ppm": 80, "target_ppm": 20}],
        "tank_ph": 6.3,
        "tank_kh_dkh": 1.5,
        "tap_ph": 8,
        "tap_kh_dkh": 8,
    }
    answer = compute("water-change", question)
    assert answer.parts_count > 1
    assert answer.ph_shift <= 0.5
    assert (1 - answer.part_l / 100) ** answer.parts_count == pytest.approx(0.25)
    assert "drip" in compute("water-change", {**question, "tank_kh_dkh": 0.1}).verdict
    plain = compute("water-change", {**question, "tap_ph": 6.4, "tap_kh_dkh": 0.6})
    assert plain.parts_count == 1


def cloud(**more):
    return compute("cloudy-water", more)


@pytest.mark.parametrize(
    ("seen", "cause"),
    [
        ({"colour": "white", "age_days": 6, "settles_in_glass": False}, "bloom"),
        ({"colour": "grey-brown", "age_days": 1, "after": "new-gravel", "settles_in_glass": True}, "dust"),
        ({"colour": "green", "age_days": 90}, "algae"),
        ({"colour": "tea"}, "tannin"),
        ({"after": "bicarbonate", "age_days": 90}, "precipitate"),
        ({"after": "feeding", "age_days": 200, "animals_in": True}, "overfeeding"),
        ({"bubbles": True, "age_days": 200}, "air"),
    ],
    ids=lambda value: value if isinstance(value, str) else "",
)
def test_a_cloud_is_told_apart(seen: dict, cause: str) -> None:
    assert cloud(**seen).suspects[0].cause == cause


def test_cloudy_water_starts_with_tests_ends_with_waiting_and_never_adds_a_filter() -> None:
    answer = cloud(age_days=5)
    assert answer.steps[0].title == "Test ammonia and nitrite"
    assert answer.steps[-1].title == "Wait"
    assert any("another filter" in line for line in answer.leave)
    tested = cloud(age_days=5, ammonia_mg_n_l=0.0, nitrite_mg_n_l=0.0)
    assert all("Test" not in s.title for s in tested.steps)
    poisoned = cloud(animals_in=True, ammonia_mg_n_l=1.0, nitrite_mg_n_l=0.0)
    assert "not the cloud" in poisoned.steps[0].title


def seed(**more):
    return compute("sponge-seed", more)


def test_a_sponge_is_usable_from_fifteen_days_and_ready_in_a_month() -> None:
    assert [seed(days_seeding=d).state for d in (5, 15, 30)] == ["too-young", "usable", "ready"]
    assert not seed(days_seeding=5).may_go
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
    assert "health" in seed(days_seeding=40, disease_note="unknown").verdict


STOCKED = {
    "net_l": 242,
    "day_now": 20,
    "planned_load_mg_n_l_day": 0.45,
    "animals_in_mg_n_l_day": 0.18,
    "stocked_day": 10,
    "animals": [{"species_id": "rosy-barb", "count": 12}, {"species_id": "weather-loach", "count": 4}],
    "present": [{"species_id": "rosy-barb", "count": 6}],
}


def test_once_animals_are_in_nothing_is_dosed_and_the_next_come_after_a_week_of_zeros() -> None:
    week = [reading(d, 0, 0, 5 + d) for d in (11, 13, 15, 17, 19.5)]
    ready_now = advice({**STOCKED, "readings": week})
    assert ready_now.first.do == "add-animals"
    assert "rosy barb" in ready_now.first.title or "weather loach" in ready_now.first.title
    early = advice({**STOCKED, "day_now": 15, "readings": week[:3]})
    assert all(a.do not in ("add-animals", "dose-ammonia") for a in [early.first, *early.then])
    spike = advice({**STOCKED, "readings": [*week, reading(19.9, 1, 0.5, ph=7.8)]})
    assert spike.first.do == "change-water"


def test_each_group_has_its_own_week() -> None:
    zeros = [reading(d, 0, 0, 5 + d) for d in (3, 5, 7, 9, 11, 13)]
    assert not ready({**STOCKED, "day_now": 13.1, "readings": zeros}).ready
    assert ready(
        {**STOCKED, "day_now": 18.3, "readings": [*zeros, reading(15, 0, 0, 20), reading(18.2, 0, 0, 22)]}
    ).ready


def test_a_settled_tank_asks_for_a_weekly_test_and_nothing_else() -> None:
    old = {**STOCKED, "day_now": 90, "stocked_day": 10}
    fine = advice({**old, "readings": [reading(86, 0, 0, 20, ph=7.4)]})
    assert fine.verdict == "Its cycle is long over; the water is within the limits."
    assert [a.do for a in [fine.first, *fine.then]] == ["test"]
    assert advice({**old, "readings": [reading(70, 0, 0, 20)]}).verdict == "The weekly test is due."
    assert advice({**old, "readings": [reading(89, 2, 0.5, ph=7.8)]}).first.do == "change-water"


def test_the_ramp_goes_on_from_what_is_in() -> None:
    rows = STOCKED["animals"]
    answer = compute(
        "stocking-ramp", {"net_l": 242, "proven_mg_n_l_day": 0, "animals": rows, "present": STOCKED["present"]}
    )
    loads = [s.load_mg_n_l_day for s in answer.steps]
    assert loads[0] <= 1.5 * 0.181 + 1e-3
    assert answer.verdict.startswith("Next")
    done = compute("stocking-ramp", {"net_l": 242, "proven_mg_n_l_day": 0, "animals": rows, "present": rows})
    assert done.steps == []
    assert done.verdict == "All the planned animals are in."


def test_a_bottles_own_label_is_its_window() -> None:
    cold = {"helpers": ["bottled-culture"], "temperature_c": 21, "ph": 7.0}
    assert {c.what: c for c in plan(**cold).conditions}["Bottled culture"].level == "watch"
    label = {"low_c": 18, "high_c": 30, "ph_low": 6.5, "ph_high": 8}
    assert {c.what: c for c in plan(**cold, bottle=label).conditions}["Bottled culture"].level == "fine"


def test_where_money_is_short_a_bottle_is_left_out() -> None:
    _, short = methods(resources={"bottle": "in-date", "budget": "little"})
    assert short["measured-ammonia"].helpers == []
    assert short["measured-ammonia"].costs == "little"
    _, spend = methods(resources={"bottle": "in-date"})
    assert spend["measured-ammonia"].costs == "some"


def test_a_proof_too_small_for_one_group_adds_nothing_and_says_what_to_prove() -> None:
    answer = ramp(0.001, ("rosy-barb", 12))
    assert answer.steps == []
    assert answer.verdict.startswith("Nothing yet: even 6 × rosy barb")
    assert "ppm of ammonia in a day first" in answer.verdict


def test_single_large_animals_come_one_at_a_time_and_on_half_rations() -> None:
    # A small proven film and large animals: each one alone is more than half as much again.
    answer = compute(
        "stocking-ramp",
        {
            "net_l": 60,
            "proven_mg_n_l_day": 0.05,
            "animals": [{"species_id": "cherry-shrimp", "count": 10}, {"species_id": "fancy-goldfish", "count": 2}],
        },
    )
    assert answer.steps[0].add[0].species_id == "cherry-shrimp"
    later = answer.steps[1:]
    assert [a.count for s in later for a in s.add if a.species_id == "fancy-goldfish"] == [1, 1]
    assert any("half rations" in s.before for s in later)
    loads = [s.load_mg_n_l_day for s in answer.steps]
    assert loads == sorted(loads)
    assert answer.steps[-1].plan_share == pytest.approx(1)


def test_even_thousands_come_in_a_few_dozen_steps() -> None:
    answer = compute(
        "stocking-ramp",
        {
            "net_l": 30,
            "proven_mg_n_l_day": 0.01,
            "animals": [{"species_id": "cherry-shrimp", "count": 1}, {"species_id": "fancy-goldfish", "count": 1900}],
        },
    )
    assert 5 < len(answer.steps) < 40
    assert sum(a.count for s in answer.steps for a in s.add) == 1901
    for before, after in pairwise([s.load_mg_n_l_day for s in answer.steps]):
        one = answer.full_load_mg_n_l_day / 1900
        assert after <= 1.5 * before + 1.01 * one


def test_with_some_in_the_next_group_is_reckoned_from_what_is_carried() -> None:
    question = {
        "net_l": 130,
        "proven_mg_n_l_day": 0.0,
        "animals": [{"species_id": "zebra-danio", "count": 24}],
        "present": [{"species_id": "zebra-danio", "count": 8}],
    }
    answer = compute("stocking-ramp", question)
    assert answer.verdict.startswith("Next ")
    assert answer.steps[0].add[0].count == 4
    assert answer.steps[0].before.startswith("After a week of zeros")
    done = compute("stocking-ramp", {**question, "present": [{"species_id": "zebra-danio", "count": 24}]})
    assert (done.steps, done.verdict) == ([], "All the planned animals are in.")


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
