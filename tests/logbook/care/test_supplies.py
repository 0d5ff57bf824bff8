"""Air and warmth: the heater held against the room, the pump against its outlets, the list against what is at hand."""

import pytest

from reedmace.core.computations import compute
from reedmace.core.tank.evaporation import vapour_pa
from reedmace.demo.sample_boxes import SAMPLE_BOXES
from reedmace.logbook.care.supplies import supplies
from reedmace.logbook.plans.plan_kinds import AirSource, FilterPlan
from reedmace.logbook.replay.equipment import installed_filters
from reedmace.logbook.stages import filter_view, keep_view, shopping_list_view
from tests.support.tanks import AT, state_of

SPONGE = next(f for f in SAMPLE_BOXES if f.kind == "sponge" and f.air)


def tank(**around) -> dict:
    return {
        "kind": "tank-plan",
        "tank": {"length_cm": 80, "width_cm": 35, "height_cm": 40},
        "surroundings": {"temperature_c": 25, "room_c": 20, "lid": True, **around},
    }


def plan(**more) -> dict:
    return {"kind": "filter-plan", "filters": [{"key": "f1", "filter": SPONGE.model_dump()}], **more}


@pytest.mark.parametrize(
    ("litres", "length", "width", "depth", "sold"),
    [(54, 60, 30, 30, 50), (112, 80, 35, 40, 75), (240, 120, 40, 50, 150)],
    ids=["60 cm", "80 cm", "120 cm"],
)
def test_a_heater_comes_out_as_the_trade_sells_them_for_a_room_five_degrees_cooler(
    litres, length, width, depth, sold
) -> None:
    """About half a watt to a watt a litre for five degrees (common practice): one size up or down is allowed."""
    surface = length * width / 1e4
    answer = compute(
        "heater-size",
        {"glass_m2": 2 * (length + width) * depth / 1e4 + surface, "surface_m2": surface, "water_c": 25, "lid": True},
    )
    assert 0.4 * litres <= answer.asked_w <= 1.2 * litres
    assert answer.asked_w >= answer.loss_w
    assert sold / 2 <= answer.asked_w <= sold * 2


def test_an_open_tank_and_a_colder_room_ask_for_more_and_a_warm_room_for_nothing() -> None:
    base = {"glass_m2": 1.2, "surface_m2": 0.3, "water_c": 25, "room_c": 20, "lid": True}
    here = compute("heater-size", base).loss_w
    assert compute("heater-size", {**base, "lid": False}).loss_w > here
    assert compute("heater-size", {**base, "room_c": 15}).loss_w == pytest.approx(2 * here)
    warm = compute("heater-size", {**base, "room_c": 25})
    assert warm.asked_w == 0
    assert "No heater" in warm.verdict
    assert "chiller" in compute("heater-size", {**base, "water_c": 16, "room_c": 24}).verdict


def test_a_heater_too_small_is_said_with_what_would_do() -> None:
    small = compute("heater-size", {"glass_m2": 2, "surface_m2": 0.6, "water_c": 26, "room_c": 17, "watts": 50})
    assert small.enough is False
    assert "too little" in small.verdict
    assert f"{small.asked_w:g} W" in small.verdict
    big = compute("heater-size", {"glass_m2": 30, "surface_m2": 8, "water_c": 26, "room_c": 16})
    assert big.heaters_count > 1
    assert big.asked_w >= big.loss_w


def test_the_list_takes_a_heater_and_an_air_pump_only_where_none_is_at_hand() -> None:
    bare = {i.item for i in shopping_list_view(state_of(tank(), plan())).items}
    assert "Air pump" in bare
    assert any(item.startswith("Heater, ") for item in bare)
    had = plan(air={"source": "own", "pump_l_min": 5, "pump_kpa": 20}, heater={"watts": 100})
    kept = {i.item for i in shopping_list_view(state_of(tank(), had)).items}
    assert "Air pump" not in kept
    assert not any(item.startswith("Heater, ") for item in kept)
    room = {i.item for i in shopping_list_view(state_of(tank(), plan(air={"source": "room"}))).items}
    assert "T-piece and valve for the air line" in room


def test_a_pump_of_its_own_is_charged_whole_and_the_rooms_is_shared() -> None:
    own, shared = (state_of(tank(tanks_here_count=6), plan(air={"source": source})) for source in ("own", "room"))
    assert installed_filters(own)[0].watts == pytest.approx(6 * installed_filters(shared)[0].watts)
    assert keep_view(own, AT).cost.kwh_year == pytest.approx(6 * keep_view(shared, AT).cost.kwh_year)


def test_the_pump_is_held_against_the_outlets_that_hang_there() -> None:
    enough = state_of(tank(), plan(air={"source": "own", "pump_l_min": 8, "pump_kpa": 20}))
    assert supplies(enough, installed_filters(enough)).air.carries
    weak = state_of(tank(), plan(air={"source": "own", "pump_l_min": 8, "pump_kpa": 2}))
    view = filter_view(weak).supplies
    assert view.air is None
    assert "cannot do it" in view.air_words


def test_a_plan_written_before_is_read() -> None:
    assert AirSource.model_validate({"shared": False}).source is None
    assert AirSource.model_validate({"shared": True}).source == "room"
    assert FilterPlan.model_validate(plan(air={"shared": False, "pump_l_min": 3})).air.pump_l_min == 3


def test_an_open_tank_loses_a_few_millimetres_a_day_and_a_lid_keeps_most_of_it() -> None:
    """One to three centimetres a week of an open warm tank in a heated room (common practice)."""
    base = {"surface_m2": 0.36, "net_l": 130, "water_c": 26, "room_c": 21}
    open_ = compute("evaporation", base)
    assert 1 <= open_.falls_cm_day * 7 <= 3.5
    assert open_.litres_day == pytest.approx(open_.falls_cm_day * 0.36 * 10)
    assert compute("evaporation", {**base, "lid": True}).litres_day < open_.litres_day / 4
    assert compute("evaporation", {**base, "humidity_share": 0.8}).litres_day < open_.litres_day
    # Air that holds more than the water gives takes nothing.
    assert compute("evaporation", {**base, "water_c": 15, "room_c": 30, "humidity_share": 0.9}).litres_day == 0


@pytest.mark.parametrize(("celsius", "pascal"), [(5, 873), (15, 1706), (20, 2339), (25, 3169), (30, 4246)])
def test_vapour_pressure_is_that_of_steam_tables(celsius: float, pascal: float) -> None:
    """Steam tables (memory) against Magnus' form."""
    assert vapour_pa(celsius) == pytest.approx(pascal, rel=0.005)


def test_over_a_sump_the_loss_shows_in_its_last_chamber_and_in_salt_water_as_salt() -> None:
    base = {"surface_m2": 0.65, "net_l": 450, "water_c": 25, "room_c": 20, "salinity_g_kg": 35}
    above = compute("evaporation", base)
    sump = compute("evaporation", {**base, "sump_m2": 0.24, "chamber_m2": 0.05})
    assert sump.falls_cm_day > 5 * above.falls_cm_day
    assert sump.top_up_days < above.top_up_days
    assert above.salinity_rise_g_kg_day == pytest.approx(35 * above.litres_day / 450)
    assert "fresh water" in above.verdict
    assert "return pump" in sump.verdict


def test_socks_are_washed_as_often_as_the_trade_does_and_cloth_buys_time() -> None:
    """Three to seven days under a fed reef (common practice); the flow through them counts."""
    usual = compute("sock-days", {"return_lph": 2000, "feed_g_day": 3})
    assert 3 <= usual.wash_days <= 7
    two = compute("sock-days", {"return_lph": 2000, "feed_g_day": 3, "socks_count": 2})
    assert two.wash_days == pytest.approx(min(4 * usual.wash_days, 10))
    assert compute("sock-days", {"return_lph": 4000, "feed_g_day": 3}).wash_days == pytest.approx(usual.wash_days / 2)
    assert compute("sock-days", {"return_lph": 2000, "feed_g_day": 0}).by == "slime"
    assert "over the rim" in compute("sock-days", {"return_lph": 9000, "feed_g_day": 20, "width_cm": 10}).verdict
