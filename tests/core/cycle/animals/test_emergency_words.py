"""What an emergency plan says, sentence by sentence, and the bounds at which it begins to say it."""

from typing import Any

import pytest

from reedmace.core.chemistry.tolerance import ammonia_limit_mg_n_l
from reedmace.core.computations import compute
from reedmace.core.cycle.animals.emergency import EmergencyPlanAnswer

WELL: dict[str, Any] = {
    "net_l": 100, "ammonia_mg_n_l": 0.0, "nitrite_mg_n_l": 0.0, "ph": 7.4, "kh_dkh": 5, "temperature_c": 25,
    "tap": {"ph": 7.4, "kh_dkh": 5, "chlorine": "none"},
}  # fmt: skip
POISONED = {**WELL, "ammonia_mg_n_l": 4.0}


def plan(**more: Any) -> EmergencyPlanAnswer:
    return compute("emergency-plan", {**WELL, **more})


def poisoned(**more: Any) -> EmergencyPlanAnswer:
    return compute("emergency-plan", {**POISONED, **more})


@pytest.mark.parametrize(
    ("more", "stands"),
    [
        ({}, "Within the limits today; keep it there."),
        ({"temperature_c": 37}, "At 37 °C it is too hot for any fish."),
        ({"temperature_c": 31, "animals_high_c": 24}, "At 31 °C it is too hot for them: they bear 24 °C at most."),
        ({"temperature_c": 1}, "At 1 °C it is too cold for any fish."),
        ({"temperature_c": 18, "animals_low_c": 24}, "At 18 °C it is too cold for them: they want 24 °C at least."),
        ({"ph": 9.8}, "pH 9.8 is higher than they bear."),
        ({"ph": 4.2, "kh_dkh": 3}, "pH 4.2 is lower than they bear."),
        (
            {"ph": 6.2, "before_ph": 7.4, "kh_dkh": 0.5},
            "KH is used up and pH has fallen from 7.4 to 6.2: the water is turning sour.",
        ),
        ({"oxygen_mg_l": 2.2}, "Oxygen is down to 2.2 mg/L: most fish need 3 at the least."),
        (
            {"nitrate_mg_n_l": 30},
            "Nitrate has piled up: 133 ppm where 40 ppm is the usual most.",
        ),
        ({"ammonia_mg_n_l": 4}, "Ammonia is above what animals bear from day to day."),
        ({"nitrite_mg_n_l": 2}, "Nitrite is above what animals bear from day to day."),
        (
            {"ammonia_mg_n_l": 4, "nitrite_mg_n_l": 2},
            "Ammonia and nitrite are above what animals bear from day to day.",
        ),
        ({"ammonia_mg_n_l": 9, "ph": 8.2}, "Act now: ammonia is above the one-hour criterion of 2.3 ppm."),
    ],
)
def test_how_it_stands_in_a_sentence(more: dict[str, Any], stands: str) -> None:
    assert plan(**more).stands.partition(" Even so")[0] == stands


def test_several_things_wrong_are_all_said_the_worst_first() -> None:
    found = plan(oxygen_mg_l=2.0, temperature_c=37, ammonia_mg_n_l=4)
    said = found.stands
    assert said.index("Oxygen") < said.index("Ammonia") < said.index("too hot")


@pytest.mark.parametrize(
    ("more", "danger", "tests"),
    [
        ({}, False, 1),
        ({"nitrate_mg_n_l": 30}, False, 1),
        ({"ammonia_mg_n_l": 4}, True, 2),
        ({"ph": 9.8}, True, 2),
        ({"ph": 6.2, "before_ph": 7.4, "kh_dkh": 0.5}, True, 2),
        ({"temperature_c": 37}, True, 1),
        ({"oxygen_mg_l": 2.2}, True, 1),
        ({"oxygen_mg_l": 2.2, "breathe_water_share": 0.2}, False, 1),
        ({"oxygen_mg_l": 3.1}, False, 1),
    ],
)
def test_what_is_a_danger_and_how_often_it_is_tested(more: dict[str, Any], danger: bool, tests: int) -> None:
    found = plan(**more)
    assert (found.in_danger, found.tests_per_day) == (danger, tests)


def test_food_is_half_a_quarter_or_none() -> None:
    assert plan(feed_g_day=1.2).feeding == (
        "About half of the usual, once a day; take out what is left after two minutes. That is 0.6 g."
    )
    harmed = poisoned(feed_g_day=1.2)
    assert harmed.feed_share == 0.25
    assert harmed.feeding.startswith("About a quarter of the usual")
    assert harmed.feeding.endswith("That is 0.3 g.")
    assert poisoned().feeding.endswith("after two minutes.")
    for none in (plan(oxygen_mg_l=2.2), poisoned(tap={"ammonia_mg_n_l": 3})):
        assert (none.feed_share, none.feeding) == (0, "Nothing today; fish live a week without food.")


def test_a_plan_that_does_not_hold_says_what_else_there_is() -> None:
    new = poisoned(tap={"ammonia_mg_n_l": 3})
    assert not new.holds_until_tomorrow
    assert new.verdict.endswith("feed nothing today, and get seeded media or another home.")
    settled = poisoned(tap={"ammonia_mg_n_l": 3}, settled=True)
    assert settled.stands.endswith("feed nothing today, and find what stopped its film.")
    assert "Even so" not in poisoned().verdict
    # Nitrate alone, however high, is no reason for either.
    assert "home" not in plan(nitrate_mg_n_l=90, tap={"ph": 7.4, "kh_dkh": 5, "nitrate_mg_n_l": 40}).verdict


def test_the_verdict_counts_its_changes_in_litres_or_in_shares() -> None:
    one = plan(nitrate_mg_n_l=30)
    assert one.verdict.endswith("Change 50 L now.")
    several = poisoned(ammonia_mg_n_l=9, ph=8.0)
    assert [round(c.after_hours) for c in several.changes] == [0, 4, 8, 12][: len(several.changes)]
    assert "now and 50 L after 4 h" in several.verdict
    assert "Change 50 % of the water now" in plan(nitrate_mg_n_l=30, litres_known=False).verdict
    # Under ten litres a tenth of one counts.
    assert plan(net_l=10, nitrate_mg_n_l=30).verdict.endswith("Change 5.0 L now.")
    assert plan(net_l=20, nitrate_mg_n_l=30).verdict.endswith("Change 10 L now.")


CHLORINE = "Treat every litre for chlorine and chloramine before it goes in."
BINDS = " Chloramine leaves ammonia behind when it is broken: take a conditioner that binds that too."


@pytest.mark.parametrize(
    ("chlorine", "said"),
    [("none", None), ("chlorine", CHLORINE), ("unknown", CHLORINE), ("chloramine", CHLORINE + BINDS)],
)
def test_new_water_is_treated_by_its_disinfectant(chlorine: str, said: str | None) -> None:
    found = [c for c in plan(tap={"ph": 7.4, "kh_dkh": 5, "chlorine": chlorine}).cautions if c.startswith("Treat")]
    assert found == ([] if said is None else [said])


def test_gasping_is_the_first_caution_and_the_last_two_are_always_there() -> None:
    calm, gasping = plan(), plan(gasping=True)
    assert [c.split()[0] for c in calm.cautions] == ["Matched", "Ammonia-binding"]
    assert gasping.cautions[0].startswith("Gasping: aerate now")
    assert gasping.cautions[1:] == calm.cautions


def test_a_tap_at_the_limit_is_said_to_bring_it_and_binding_comes_first() -> None:
    limit, _ = ammonia_limit_mg_n_l(7.4, 25, 0)
    for brings, said in ((limit * 0.99, False), (limit, True), (limit * 1.2, True)):
        found = poisoned(tap={"ph": 7.4, "kh_dkh": 5, "chlorine": "none", "ammonia_mg_n_l": brings})
        assert any(c.startswith("The tap itself brings") for c in found.cautions) is said
        assert (found.steps[0].do == "bind") >= said
    # Where nothing is poisoned nothing is bound, whatever the tap brings.
    assert plan(tap={"ph": 7.4, "kh_dkh": 5, "ammonia_mg_n_l": 3}).steps == []


def test_what_a_higher_tap_frees_is_told_in_figures() -> None:
    # At 25 °C free ammonia is 0.18 % of all at pH 6.5 and 0.57 % at pH 7.0 (Emerson et al. 1975).
    found = poisoned(ammonia_mg_n_l=20, ph=6.5, kh_dkh=2, tap={"ph": 7.0, "kh_dkh": 4, "chlorine": "none"})
    said = next(c for c in found.cautions if c.startswith("The tap raises pH"))
    assert "0.036 mg/L of the poison form would be 0.113 at the tap's pH" in said
    near = poisoned(ammonia_mg_n_l=20, ph=6.85, kh_dkh=4, tap={"ph": 7.0, "kh_dkh": 4, "chlorine": "none"})
    unread = plan(ammonia_mg_n_l=None, nitrite_mg_n_l=3, ph=6.5, tap={"ph": 7.5, "kh_dkh": 5, "chlorine": "none"})
    for other in (near, unread):
        assert not any(c.startswith("The tap raises pH") for c in other.cautions)


def test_a_tap_nobody_tested_is_said_to_be_guessed_only_where_water_is_to_be_poured() -> None:
    for tap in ({"ph": 7.4}, {"kh_dkh": 5}, {}):
        assert any("are not known" in c for c in poisoned(tap=tap).cautions)
        assert not any("are not known" in c for c in plan(tap=tap).cautions)
    assert not any("are not known" in c for c in poisoned().cautions)
    assert not any("are not known" in c for c in poisoned(salinity_g_kg=34, ph=8.1, tap={}).cautions)


def test_salt_water_is_mixed_to_its_own_salinity() -> None:
    salt = plan(salinity_g_kg=34, ph=8.1)
    assert any("the tank's own salinity, 34 g/kg, a day ahead" in c for c in salt.cautions)
    assert not any("salinity" in c for c in plan().cautions)


def test_water_too_far_apart_for_any_bucket_drips_in() -> None:
    far = poisoned(ph=5.2, kh_dkh=0.05, ammonia_mg_n_l=90, tap={"ph": 9.0, "kh_dkh": 25, "chlorine": "none"})
    assert far.changes == []
    drip = next(s for s in far.steps if s.do == "drip")
    assert drip.litres == pytest.approx(100 / 3)
    assert drip.how == "33 L of it, treated, over 6 hours, testing pH as it goes; no bucket at once."
    assert any(c.startswith("Tank and tap are far apart in pH") for c in far.cautions)


@pytest.mark.parametrize(
    ("more", "said"),
    [
        ({"ph": 7.3}, "may help"),
        ({"ph": 7.2}, "it wants 25 to 30 °C and pH 7.3 to 8."),
        ({"ph": 8.0}, "may help"),
        ({"ph": 8.1}, "it wants 25 to 30 °C and pH 7.3 to 8."),
        ({"temperature_c": 25}, "may help"),
        ({"temperature_c": 24.5}, "it wants"),
        ({"temperature_c": 30}, "may help"),
        ({"temperature_c": 30.5}, "it wants"),
        ({"bottle": {"in_date": False}}, "it is past its date."),
        ({"bottle": {"in_date": False}, "ph": 6.8}, "it is past its date."),
    ],
)
def test_a_bottle_helps_inside_its_window_only(more: dict[str, Any], said: str) -> None:
    assert said in plan(**more).help[2]


def test_help_begins_with_seeded_media_and_ends_with_tests() -> None:
    found = plan().help
    assert found[0].startswith("Seeded media from a healthy tank")
    assert found[1].startswith("Floating and fast-growing plants")
    assert found[3].startswith("Little food")
    assert len(found) == 4
