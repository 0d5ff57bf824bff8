"""The usual causes of a stall, each with its evidence in the log."""

from typing import Any

import pytest

from reedmace.core.contract import Working
from reedmace.core.cycle.judgement.stall_causes import CAUSES, MEDIA_DAYS, STOP_DAYS, Finding
from reedmace.core.cycle.record.log import CycleLog
from reedmace.core.cycle.record.water_now import water_now

USUAL: dict[str, Any] = {
    "day_now": 30,
    "net_l": 100,
    "start_kh_dkh": 6,
    "start_ph": 7.6,
    "temperature_c": 26,
    "readings": [{"day": 29, "ammonia_mg_n_l": 1, "nitrite_mg_n_l": 1, "ph": 7.4, "kh_dkh": 5, "temperature_c": 26}],
}


def found(**more: Any) -> dict[str, Finding]:
    log = CycleLog.model_validate(USUAL | more)
    said = [one for look in CAUSES for one in look(log, water_now(log), Working())]
    return {one.kind: one for one in said if one.kind is not None}


def read(**figures: Any) -> list[dict[str, Any]]:
    return [USUAL["readings"][0] | figures]


def test_where_all_is_well_nothing_is_found() -> None:
    assert found() == {}


@pytest.mark.parametrize(
    ("kind", "more"),
    [
        ("filter-off", {"filter_running": False}),
        ("filter-off", {"outages": [{"day": 25, "hours": 9}]}),
        ("alkalinity", {"readings": read(kh_dkh=0.5), "doses": [{"day": 3, "raise_mg_n_l": 2}]}),
        ("acid", {"readings": read(ph=6.1)}),
        ("cold", {"readings": read(temperature_c=17)}),
        ("hot", {"readings": read(temperature_c=35)}),
        ("overdosed", {"readings": read(ammonia_mg_n_l=9)}),
        ("free-ammonia", {"readings": read(ammonia_mg_n_l=3, ph=8.6)}),
        ("phosphate", {"readings": read(phosphate_ppm=0)}),
        ("chlorine", {"changes": [{"day": 25, "share": 0.3, "treated": False}], "tap": {"chlorine": "chlorine"}}),
        ("chlorine", {"media": [{"day": 25, "what": "rinsed-tap", "share": 1}], "tap": {"chlorine": "chlorine"}}),
        ("media", {"media": [{"day": 25, "what": "replaced", "share": 0.5}]}),
        ("sterile-filter", {"media": [{"day": 25, "what": "new-filter", "share": 1}]}),
        ("skimmer", {"skimmer_running": True, "salinity_g_kg": 35}),
        ("off-scale", {"readings": read(off_scale=["nitrite"])}),
        ("kit", {"kit": {"expired": True}}),
    ],
)
def test_each_is_found_by_its_own_sign(kind: str, more: dict[str, Any]) -> None:
    assert kind in found(**more)


@pytest.mark.parametrize(
    "more",
    [
        {"outages": [{"day": 30 - STOP_DAYS - 1, "hours": 9}]},
        {"outages": [{"day": 25, "hours": 3}]},
        {"media": [{"day": 30 - MEDIA_DAYS - 1, "what": "replaced", "share": 1}]},
        {"changes": [{"day": 25, "share": 0.3, "treated": False}], "tap": {"chlorine": "none"}},
        {"skimmer_running": True},
    ],
    ids=["long ago", "a short stop", "old media", "a tap without chlorine", "a skimmer in fresh water"],
)
def test_what_does_not_explain_it_is_not_blamed(more: dict[str, Any]) -> None:
    assert found(**more) == {}


def test_alkalinity_is_told_with_what_the_doses_burned_and_never_of_soft_water() -> None:
    low = {"readings": read(kh_dkh=0.5), "doses": [{"day": 3, "raise_mg_n_l": 4}]}
    assert "of the 6.0 you began with" in found(**low)["alkalinity"].detail
    assert "alkalinity" not in found(**low, animals=[{"species_id": "crystal-shrimp", "count": 10}])


def test_a_detail_reads_inside_a_sentence() -> None:
    assert Finding(title="It is cold.", detail="At 17 °C.").inside == "at 17 °C"
