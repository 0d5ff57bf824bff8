"""The registry: names, units in field names, ranges on every number, workings with known sources."""

import inspect
import json
import pkgutil
import re
import subprocess
import sys
from importlib import import_module
from typing import Any

import pytest
from pydantic import ValidationError

import reedmace.core
from reedmace.core.computations import COMPUTATIONS, compute
from reedmace.core.contract import Answer, Working
from reedmace.core.errors import CannotAnswer
from reedmace.core.registry import PACKAGES, issues_of
from reedmace.core.sources import SOURCES
from reedmace.demo.sample_boxes import SAMPLE_BOXES

EXAMPLES: dict[str, dict[str, Any]] = {
    "usual-tank": {"litres": 60},
    "tank-volume": {"length_cm": 90, "width_cm": 40, "height_cm": 45},
    "waste-load": {"net_l": 130, "animals": [{"species_id": "zebra-danio", "count": 8}]},
    "flow-requirement": {"net_l": 130, "animals": [{"species_id": "fancy-goldfish", "count": 2}]},
    "operating-point": {
        "pump": {"max_flow_lph": 800, "max_head_m": 1.4},
        "hoses": [{"bore_mm": 16, "length_m": 2.8}],
        "fittings": [{"kind": "exit"}],
        "media": [{"media": "foam-20", "area_cm2": 260, "depth_cm": 10}],
        "net_l": 130,
    },
    "plumbing-heads": {
        "pump": {"max_flow_lph": 800, "max_head_m": 1.4},
        "hoses": [{"bore_mm": 16, "length_m": 2.8, "intake_share": 0.5}],
        "fittings": [{"kind": "strainer"}, {"kind": "exit"}],
        "media": [{"media": "foam-20", "area_cm2": 260, "depth_cm": 10}],
    },
    "tap-fit": {"kh_dkh": 6, "fresh_ph": 7.2, "stood_ph": 8.2},
    "vial-reading": {
        "white": [{"r": 240, "g": 240, "b": 236}] * 4,
        "vial": [{"r": 140, "g": 178, "b": 92}] * 4,
        "steps": [
            {"figure_on_card": 0, "pixels": [{"r": 232, "g": 214, "b": 90}] * 4},
            {"figure_on_card": 0.5, "pixels": [{"r": 170, "g": 190, "b": 90}] * 4},
            {"figure_on_card": 1, "pixels": [{"r": 110, "g": 165, "b": 95}] * 4},
        ],
    },
    "airlift-flow": {"air_l_min": 1, "tube_bore_mm": 16, "submerged_cm": 28},
    "room-round": {
        "walk_days": [0, 3],
        "tasks": [
            {
                "key": f"s{i}",
                "tank": f"T{i}",
                "place_count": i,
                "what": "clean",
                "every_days": 21,
                "next_day": 4.0 * i - 3,
                "minutes": 3,
                "sponge": True,
            }
            for i in range(9)
        ],
    },
    "skimmer-size": {"net_l": 300, "feed_g_day": 4},
    "heater-size": {"glass_m2": 1.4, "surface_m2": 0.34, "water_c": 25, "watts": 50},
    "evaporation": {"surface_m2": 0.34, "net_l": 130},
    "quarantine": {"since_begun_days": 12, "since_animals_days": 5},
    "shared-sump": {
        "pump_lph": 3000,
        "pump_head_m": 3,
        "sump_l": 60,
        "sump_free_l": 40,
        "tanks": [
            {"key": "1", "name": "Low", "net_l": 50, "surface_cm2": 1800, "lift_cm": 60},
            {"key": "2", "name": "High", "net_l": 60, "surface_cm2": 1800, "lift_cm": 130},
        ],
    },
    "sock-days": {"return_lph": 2000, "feed_g_day": 3},
    "airline-bucket": {"jug_ml": 500, "times_s": [21, 22, 20]},
    "air-supply": {"pump_l_min": 8, "pump_kpa": 20, "outlets": [{"count": 3, "depth_cm": 35, "air_l_min": 0.7}]},
    "room-air": {
        "pumps": [{"key": "p", "name": "Pump", "l_min": 20, "kpa": 25}],
        "mains": [{"start": "pump", "end": "a", "length_m": 3}, {"start": "a", "end": "b", "length_m": 2}],
        "outlets": [
            {"key": "1", "name": "One", "node": "a", "depth_cm": 30, "wanted_l_min": 1, "tube_bore_mm": 18},
            {"key": "2", "name": "Two", "node": "b", "depth_cm": 40, "wanted_l_min": 1, "tube_bore_mm": 18},
        ],
    },
    "overflow-check": {"return_lph": 2000, "tank_surface_cm2": 10000, "sump_free_l": 40},
    "oxygen-balance": {
        "net_l": 130,
        "surface_cm2": 3400,
        "depth_cm": 40,
        "animals": [{"name": "Harlequin rasbora", "count": 20, "mass_g": 1}],
        "film_mg_n_day": 60,
        "turning_cm_s": 5,
    },
    "currents": {
        "length_cm": 60,
        "width_cm": 30,
        "depth_cm": 33,
        "outlets": [{"flow_lph": 600}],
        "animals": [{"name": "Ricefish", "length_cm": 3.5, "current": "gentle"}],
    },
    "noise-heard": {"filters": [{"noise": 2, "falls_lph": 500}], "fall_cm": 6},
    "filter-flow": {
        "filter": SAMPLE_BOXES[-1].model_dump(),
        "site": {"net_l": 900, "water_depth_cm": 60, "length_cm": 200, "width_cm": 60},
        "animals": [{"species_id": "oscar", "count": 2}],
    },
    "media-stack": {
        "filter": SAMPLE_BOXES[-1].model_dump(),
        "site": {"net_l": 900, "water_depth_cm": 60, "length_cm": 200, "width_cm": 60},
        "baskets": [{"media": "foam-10", "litres": 1}, {"media": "ceramic-rings", "litres": 3}],
    },
    "throttle-marks": {
        "container_l": 1,
        "wanted_lph": 300,
        "fills": [{"mark_count": 0, "time_s": 8}, {"mark_count": 4, "time_s": 10}, {"mark_count": 8, "time_s": 20}],
    },
    "label-check": {"box_lph": 800, "box_us_gal_per_hour": 210, "max_head_m": 1.4, "watts": 14, "tank_up_to_l": 250},
    "fitting-plan": {
        "filter": SAMPLE_BOXES[0].model_dump(),
        "site": {"net_l": 50, "water_depth_cm": 30, "length_cm": 60, "width_cm": 30},
    },
    "flood-risk": {
        "filter": SAMPLE_BOXES[-10].model_dump(),
        "site": {"net_l": 50, "water_depth_cm": 30, "length_cm": 60, "width_cm": 30},
    },
    "film-capacity": {"donor_food_g_day": 0.4, "share": 0.5, "net_l": 60},
    "filter-move": {"days_side_by_side": 15, "media_moved_share": 0.5, "minutes_out": 30},
    "flow-transit": {"way_cm": 50, "times_s": [2, 2.1, 1.9], "bore_mm": 16},
    "level-drop": {"area_cm2": 120, "rise_cm": 5, "times_s": [4, 4.2]},
    "shopping-list": {
        "filters": [
            {
                "filter": SAMPLE_BOXES[-1].model_dump(),
                "site": {"net_l": 50, "water_depth_cm": 30, "length_cm": 60, "width_cm": 30},
            }
        ],
        "net_l": 130,
    },
    "flow-fade": {"tests": [{"day": 0, "flow_lph": 750}, {"day": 60, "flow_lph": 640}]},
    "read-label": {"text": "Flow 264 GPH, 20 W, H-max 1.6 m, up to 75 gal"},
    "rank-filters": {"site": {"net_l": 130, "water_depth_cm": 41, "length_cm": 90, "width_cm": 40}},
    "type-and-size": {"site": {"net_l": 130, "water_depth_cm": 41, "length_cm": 90, "width_cm": 40}},
    "fish-room-year": {"tanks_l": [54, 54, 31]},
    "running-cost": {"watts": 14},
    "fitting-steps": {"kind": "canister"},
    "bucket-test": {"container_l": 2, "times_s": [9, 9.2, 9.1], "computed_lph": 800},
    "un-ionised-ammonia": {"tan_mg_n_l": 1, "ph": 8, "temperature_c": 25},
    "cycle-what-if": {"log": {"net_l": 100, "day_now": 3}, "draws": 50},
    "cycle-history": {"log": {"net_l": 100, "day_now": 9}, "draws": 50},
    "cycle-methods": {"resources": {"mature_media": "own", "plants": "many", "bottle": "in-date"}},
    "cycle-plan": {"net_l": 242, "kh_dkh": 2.4, "tap": {"chlorine": "chloramine", "nitrate_mg_n_l": 6}},
    "nitrogen-balance": {
        "log": {
            "net_l": 100,
            "day_now": 10,
            "doses": [{"day": 0, "raise_mg_n_l": 1.5}],
            "readings": [{"day": 9, "ammonia_mg_n_l": 0.2, "nitrite_mg_n_l": 0.6, "nitrate_mg_n_l": 0.9}],
        }
    },
    "stocking-ramp": {
        "net_l": 129,
        "proven_mg_n_l_day": 0.6,
        "animals": [{"species_id": "zebra-danio", "count": 8}, {"species_id": "pearl-gourami", "count": 2}],
    },
    "filter-stop": {"closed": True, "hours": 9, "standing": True},
    "emergency-plan": {"net_l": 60, "ammonia_mg_n_l": 1.5, "nitrite_mg_n_l": 0.4, "ph": 7.8},
    "cloudy-water": {"age_days": 5},
    "oxygen-saturation": {"temperature_c": 25, "net_l": 100, "feed_g_day": 2},
    "sponge-seed": {"days_seeding": 20, "minutes_out": 30},
    "ammonia-dose": {"net_l": 130, "product": {"form": "ammonium-chloride"}},
    "alkalinity-dose": {"net_l": 130, "current_dkh": 1},
    "kh-titration": {"drops_count": 6},
    "water-change": {"net_l": 130, "solutes": [{"what": "nitrate", "now_ppm": 80, "target_ppm": 20}]},
    "cycle-forecast": {"log": {"net_l": 130, "day_now": 0}, "draws": 50, "horizon_days": 30},
    "cycle-advice": {"log": {"net_l": 130, "day_now": 0}},
    "cycle-readiness": {"log": {"net_l": 130, "day_now": 0}},
    "care-plan": {
        "filters": [{"key": "f1", "name": "X", "title": "Squeeze", "every_days": 30, "since_cleaned_days": 20}]
    },
    "care-steps": {"kind": "canister"},
    "nitrate-rhythm": {"net_l": 100, "made_mg_n_day": 30},
    "brood": {"species_id": "guppy", "count": 40, "age_days": 10, "net_l": 54},
    "outgrow": {"net_l": 200, "animals": [{"species_id": "oscar", "count": 1, "length_cm": 6}], "carries_mg_n_day": 80},
    "dissolved-co2": {"kh_dkh": 4, "ph": 6.8},
    "standby-trial": {"carried_times_count": 5, "oxygen_enough": True},
    "illness-check": {"signs": ["gasping"], "ill_count": 3, "in_count": 10},
    "hospital-filter": {"bucket_l": 10, "bleach_percent": 4},
    "year-cost": {"devices": [{"name": "Pump", "watts": 12}], "changed_year": 1300},
    "holiday-page": {"days": 14, "feed_g_day": 1, "filters": ["X"]},
    "read-quantity": {"text": "20 gal", "kind": "volume"},
    "read-test-line": {"text": "a 0.5 n 1"},
    "salinity-scales": {"read_on_scale": 1.0264, "scale": "specific gravity"},
    "water-speciation": {"ammonia_mg_n_l": 1, "nitrite_mg_n_l": 0.5, "ph": 7.8, "kh_dkh": 5},
}
# A number's name ends in its unit, or in a word that says it has none.
UNIT = re.compile(
    r"(_(l|lph|h|cm|cm2|mm|m|m2|s|kg|g|w|watts|c|ppm|dkh|dgh|kpa|us_gal|imp_gal|kwh_year|kwh_month|day|days|min|"
    r"cm_s|db|l_min|money|index_count|g_day|g_kg|mg|mg_n_l|mg_n_l_day|mg_n_day|l_min|ml|per_ml|on_card|on_scale|ratio|ms_cm|kg_m3|ml_per_100l|percent|percent_day|percent_w_v|share|"
    r"per_hour|per_kwh|price|ph|day_p10|day_p50|day_p90|month|year|years|computed|count|first_half|minutes|draws|ph_low|ph_high))$"
    r"|^(minutes|minutes_out|days_side_by_side|light_stock_days|retire_after_days|fittings_k|drain_k|litres|money|now|then|lph|l_min|kpa|ph|pka|k|count|noise|watts|r|g|b|price|day|draws|value|amount|water|drops|grams|millilitres|score|points|cleared|needed|"
    r"would_rank|sockets|together|p10|p50|p90|times_s|hours_per_day|ph_low|ph_high|effective_draws|share|low_c|high_c)$"
    r"|(_low_c|_high_c|_dkh|_dgh|_ppm_ion)$|^days?_(now|since_cleaning|low|high|to_spare|seeding|between)$"
    r"|^(days|hours|after_hours|apart_hours|ammonia_reach|hours_held|minutes_left|ph_shift|parts_count|times_count|dose_factor)$"
)
PRIORITY_WEIGHTS = set(COMPUTATIONS["rank-filters"].schema()["input"]["$defs"]["Priorities"]["properties"])


@pytest.mark.parametrize("name", COMPUTATIONS)
def test_each_computation_answers_its_example_with_a_verdict_and_a_working_from_known_sources(name: str) -> None:
    answer = compute(name, EXAMPLES[name])
    assert isinstance(answer, Answer)
    assert answer.verdict
    assert all(line.source in SOURCES for line in answer.working)
    if name not in ("read-test-line", "cycle-advice"):
        assert answer.working


@pytest.mark.parametrize("name", COMPUTATIONS)
def test_an_answer_survives_json_and_its_own_schema(name: str) -> None:
    computation = COMPUTATIONS[name]
    text = compute(name, EXAMPLES[name]).model_dump_json()
    assert "NaN" not in text
    assert "Infinity" not in text
    computation.answer.model_validate(json.loads(text))


def numbers(schema: dict, path: str = ""):
    """Every numeric property of a JSON schema: (path, name, schema)."""
    for definition in [schema, *schema.get("$defs", {}).values()]:
        for name, field in definition.get("properties", {}).items():
            for option in [field, *field.get("anyOf", []), field.get("items", {})]:
                if option.get("type") in ("number", "integer"):
                    yield f"{path}.{name}", name, option


@pytest.mark.parametrize("side", ["input", "output"])
@pytest.mark.parametrize("name", COMPUTATIONS)
def test_every_number_in_a_schema_has_a_range_and_its_unit_in_its_name(name: str, side: str) -> None:
    for path, field, option in numbers(COMPUTATIONS[name].schema()[side], name):
        assert "minimum" in option, f"{path} has no lower limit"
        assert "maximum" in option, f"{path} has no upper limit"
        assert UNIT.search(field) or field in PRIORITY_WEIGHTS, f"{path} does not name its unit"


@pytest.mark.parametrize(
    ("data", "where", "words"),
    [
        ({"length_cm": 9e9, "width_cm": 40, "height_cm": 45}, "length_cm", "at most 1000"),
        ({"width_cm": 40, "height_cm": 45}, "length_cm", "missing"),
        ({"length_cm": "a", "width_cm": 40, "height_cm": 45}, "length_cm", "number"),
        ({"length_cm": 90, "width_cm": 40, "height_cm": 45, "colour": 1}, "colour", "not a field"),
        ({"length_cm": float("nan"), "width_cm": 40, "height_cm": 45}, "length_cm", "finite"),
        ([], "input", "dictionary"),
    ],
    ids=["too large", "missing", "text", "unknown field", "nan", "not an object"],
)
def test_bad_input_says_where_what_and_remedy(data: object, where: str, words: str) -> None:
    with pytest.raises(ValidationError) as caught:
        compute("tank-volume", data)
    found = {c.where: c for c in issues_of(caught.value)}
    assert where in found
    assert words in found[where].what
    assert found[where].remedy


def test_an_unknown_name_is_a_key_error() -> None:
    with pytest.raises(KeyError):
        compute("tea-leaves", {})


def test_a_working_refuses_a_source_nobody_wrote_down() -> None:
    with pytest.raises(KeyError):
        Working().line("x", "y", "z", 1.0, "m", "hearsay")


def test_errors_carry_fields_and_build_their_text_from_them() -> None:
    error = CannotAnswer("a", "b.", "c.")
    assert (error.where, error.what, error.remedy) == ("a", "b.", "c.")
    assert issues_of(error)[0].where == "a"
    assert "c." in str(error)


def public_functions():
    for module in pkgutil.walk_packages(reedmace.core.__path__, "reedmace.core."):
        loaded = import_module(module.name)
        for name, thing in vars(loaded).items():
            thing = getattr(thing, "py_func", thing)
            if inspect.isfunction(thing) and thing.__module__ == loaded.__name__ and not name.startswith("_"):
                yield pytest.param(thing, id=f"{module.name.removeprefix('reedmace.core.')}.{name}")


@pytest.mark.parametrize("function", list(public_functions()))
def test_every_public_core_function_documents_each_parameter(function) -> None:
    text = inspect.getdoc(function) or ""
    assert text, "no docstring"
    if function.__module__ in ("reedmace.core.contract", "reedmace.core.computations"):
        return
    for parameter in inspect.signature(function).parameters:
        named = re.search(rf"\b{parameter}\b", text) or re.search(
            r"event_\*|[Aa]rguments as for|all arguments|rest as in", text
        )
        assert named, f"the docstring does not speak of {parameter}"


def test_the_index_of_rooms_is_the_registry() -> None:
    by_room = {name: room for room, names in PACKAGES.items() for name in names}
    assert by_room == {name: c.function.__module__.split(".")[2] for name, c in COMPUTATIONS.items()}


def test_a_sum_of_one_room_reads_no_other() -> None:
    text = (
        "import sys\n"
        "from reedmace.core.registry import answered, named\n"
        "print(answered(named('tank-volume'), {'length_cm': 90, 'width_cm': 40, 'height_cm': 45}).net_l)\n"
        "assert named('no-such-sum') is None\n"
        "print(*(name for name in ('numba', 'scipy', 'pint', 'flask', 'peewee') if name in sys.modules))\n"
    )
    done = subprocess.run([sys.executable, "-c", text], capture_output=True, text=True, timeout=60, check=True)
    litres, others = done.stdout.split("\n")[:2]
    assert float(litres) == pytest.approx(143, abs=1)
    assert others == ""
