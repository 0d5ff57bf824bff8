"""Animals unwell or lost: the water before the sickness, and nothing urgent passed over; a filter disinfected; a year's
costs.
"""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from reedmace.core.chemistry.tolerance import ammonia_limit_mg_n_l, nitrite_limit_mg_n_l
from reedmace.core.cycle import IllnessQuestion, illness_check
from reedmace.core.upkeep import Consumable, Device, HospitalQuestion, YearCostQuestion, hospital_filter, year_cost

TESTED = {"ammonia_mg_n_l": 0, "nitrite_mg_n_l": 0, "since_test_days": 0.5, "ph": 7.4, "temperature_c": 25}


def codes(**seen: object) -> list[str]:
    return [c.code for c in illness_check(IllnessQuestion(**seen)).causes]


def test_untested_water_is_tested_before_anything_is_given() -> None:
    answer = illness_check(IllnessQuestion(signs=["spots"], ill_count=1, in_count=12))
    assert [c.code for c in answer.causes] == ["untested", "parasite"]
    assert "Test" in answer.first
    assert not answer.urgent


@pytest.mark.parametrize("poison", ["ammonia", "nitrite"])
def test_poison_over_its_limit_leads_and_is_urgent(poison: str) -> None:
    limit = ammonia_limit_mg_n_l(7.4, 25, 0)[0] if poison == "ammonia" else nitrite_limit_mg_n_l(0)
    over = illness_check(IllnessQuestion(signs=["spots"], **{**TESTED, f"{poison}_mg_n_l": 1.5 * limit}))
    assert (over.causes[0].code, over.urgent, over.apart) == (poison, True, None)
    assert "1.5 times" in over.causes[0].why


def test_a_trace_is_said_without_alarm() -> None:
    answer = illness_check(IllnessQuestion(signs=["thin"], **{**TESTED, "nitrite_mg_n_l": 0.1}))
    assert answer.causes[0].code == "trace"
    assert not answer.urgent


def test_an_old_test_says_nothing_of_today() -> None:
    assert "untested" in codes(signs=["gasping"], **{**TESTED, "since_test_days": 9, "ammonia_mg_n_l": 5})


@pytest.mark.parametrize(
    ("more", "code"),
    [
        ({"since_untreated_days": 1}, "chlorine"),
        ({"since_stop_days": 0, "signs": ["gasping"]}, "oxygen"),
        ({"oxygen_enough": False}, "oxygen"),
        ({"temperature_c": 33, "animals_high_c": 27}, "warmth"),
        ({"temperature_c": 14, "animals_low_c": 22}, "cold"),
        ({"ph": 6.2, "before_ph": 7.4}, "ph"),
    ],
    ids=["untreated water", "a stop", "short of oxygen", "heat", "cold", "pH fell"],
)
def test_what_kills_soon_leads_whatever_is_seen(more: dict, code: str) -> None:
    answer = illness_check(IllnessQuestion(**{"signs": ["fuzz"], "ill_count": 1, "in_count": 20, **TESTED, **more}))
    assert answer.causes[0].code == code
    assert answer.urgent


def test_many_at_once_are_the_waters_fault_until_tests_say_otherwise() -> None:
    answer = illness_check(IllnessQuestion(lost_count=4, in_count=12, **TESTED))
    assert answer.urgent
    assert "4 of 12 at once" in answer.verdict


def test_a_single_old_one_in_clean_water_is_not_an_alarm() -> None:
    answer = illness_check(IllnessQuestion(lost_count=1, in_count=20, **TESTED))
    assert [c.code for c in answer.causes] == ["age"]
    assert not answer.urgent


def test_a_sick_one_goes_apart_only_where_the_water_is_well() -> None:
    assert illness_check(IllnessQuestion(signs=["spots"], ill_count=1, in_count=20, **TESTED)).apart
    assert illness_check(IllnessQuestion(signs=["spots"], since_untreated_days=1, **TESTED)).apart is None


def test_bodies_left_are_reckoned_by_their_nitrogen() -> None:
    # 10 g of fish at 2.6 % of nitrogen in 65 L: 260 mg over 65 L.
    answer = illness_check(IllnessQuestion(lost_count=1, body_left_g=10, net_l=65))
    assert answer.body_mg_n_l == pytest.approx(4.0)


def test_medicine_is_warned_of_where_shrimp_live() -> None:
    assert "shrimp" in illness_check(IllnessQuestion(signs=["spots"], invertebrates=True)).cautions[0]


@settings(max_examples=300)
@given(
    st.fixed_dictionaries(
        {
            "signs": st.lists(st.sampled_from(["gasping", "spots", "fuzz", "thin", "hiding"]), max_size=3, unique=True),
            "ill_count": st.integers(0, 30),
            "lost_count": st.integers(0, 30),
            "in_count": st.integers(0, 60),
            "ammonia_mg_n_l": st.none() | st.floats(0, 5),
            "nitrite_mg_n_l": st.none() | st.floats(0, 5),
            "since_test_days": st.none() | st.floats(0, 20),
            "ph": st.none() | st.floats(4, 10),
            "temperature_c": st.none() | st.floats(5, 38),
            "since_stop_days": st.none() | st.floats(0, 20),
            "salinity_g_kg": st.sampled_from([0.0, 35.0]),
        }
    )
)
def test_no_answer_calms_while_a_poison_stands_over_its_limit(seen: dict) -> None:
    answer = illness_check(IllnessQuestion(**seen))
    recent = seen["since_test_days"] is not None and seen["since_test_days"] <= 3
    nitrite = seen["nitrite_mg_n_l"]
    if recent and nitrite is not None and nitrite > nitrite_limit_mg_n_l(seen["salinity_g_kg"]):
        assert answer.urgent
        assert answer.causes[0].code in ("ammonia", "nitrite")
    assert "age" not in {c.code for c in answer.causes} or not answer.urgent or answer.causes[0].code != "age"
    assert answer.checks
    assert answer.vet


def test_bleach_comes_out_by_plain_dilution() -> None:
    # 4 % is 40 g/L: 2500 ppm in 10 L is 25 g, 625 mL.
    answer = hospital_filter(HospitalQuestion(bucket_l=10, bleach_percent=4, wanted_ppm=2500))
    assert answer.bleach_ml == pytest.approx(625)
    assert any("Never together with ammonia" in (s.caution or "") for s in answer.steps)
    assert answer.usable_days < answer.full_days


def test_a_year_adds_up_device_by_device() -> None:
    answer = year_cost(
        YearCostQuestion(
            devices=[Device(name="Pump", watts=10), Device(name="Lamp", watts=20, hours_per_day=6)],
            used_up=[Consumable(name="Carbon", every_days=365.25 / 4, price=5)],
            price_per_kwh=0.5,
            changed_year=2000,
            water_price=4,
            salt_g_kg=35,
            salt_price=3,
        )
    )
    found = {r.name: r.money_year for r in answer.rows}
    assert found == pytest.approx({"Pump": 43.83, "Lamp": 21.915, "Water changed": 8, "Salt": 210, "Carbon": 20})
    assert answer.money_year == pytest.approx(sum(found.values()))
    assert answer.kwh_year == pytest.approx(87.66 + 43.83)
    assert answer.rows[0].name == "Salt"
