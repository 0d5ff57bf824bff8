"""Effect of possible changes on the date: one ensemble, many futures."""

from tests.support.cycle_logs import what_if
from tests.support.cycling import A


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
