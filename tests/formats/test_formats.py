"""Formats with no door around them: MathML, the mapped CSV there and back, the bundle, the simulated tank."""

import math
from datetime import UTC, datetime, timedelta
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from pydantic import ValidationError

from reedmace.command.simulated_device import readings_of
from reedmace.core.cycle.model.inputs import LEAST_NITRATE_MG_N_L
from reedmace.core.cycle.model.nitrogen_kernel import DOSE_WORTH, FIRST_NITRATE
from reedmace.core.cycle.record.log import CycleLog, KitSteps
from reedmace.core.quantity import formatting
from reedmace.formats import Bundle, MappedCsv, csv_parts, read_csv, read_mapped
from reedmace.logbook.replay.entries import Entry
from reedmace.standins import ColourKit, PhProbe, SimulatedTank, Thermometer, usual_tank

NOW = datetime(2026, 11, 25, 9, 0, tzinfo=UTC)


ppm = st.one_of(st.none(), st.sampled_from([0, 0.25, 0.5, 1, 2, 4, 8]), st.floats(0, 200).map(lambda v: round(v, 3)))
reading = st.fixed_dictionaries(
    {
        "kind": st.just("reading"),
        "basis": st.sampled_from(["ion", "N"]),
        "ammonia_ppm": st.floats(0, 50).map(lambda v: round(v, 3)),
        "nitrite_ppm": ppm,
        "nitrate_ppm": ppm,
        "ph": st.one_of(st.none(), st.floats(4, 10).map(lambda v: round(v, 2))),
        "kh_dkh": st.one_of(st.none(), st.floats(0, 40).map(lambda v: round(v, 2))),
        "temperature_c": st.one_of(st.none(), st.floats(0.5, 40).map(lambda v: round(v, 2))),
        "phosphate_ppm": st.one_of(st.none(), st.floats(0, 100).map(lambda v: round(v, 3))),
    }
)


def entry(n: int, body: dict, at: datetime = NOW) -> Any:
    return Entry.model_validate({"id": n, "key": f"entry-{n:04d}", "at": at, "written_at": at, "body": body})


@settings(max_examples=60)
@given(st.lists(reading, min_size=1, max_size=12))
def test_readings_written_out_and_taken_in_by_guessed_columns_are_the_same(bodies: list[dict]) -> None:
    entries = [entry(n, b, NOW - timedelta(hours=n)) for n, b in enumerate(bodies, start=1)]
    found = read_mapped(MappedCsv(text="".join(csv_parts((e.at, e.body) for e in entries))), NOW)
    assert found.faults == []
    for (_, got), wanted in zip(found.entries, entries, strict=True):
        assert got.at == wanted.at
        for name, value in wanted.body.model_dump().items():
            back = getattr(got.body, name)
            assert back == (pytest.approx(value, rel=1e-5) if isinstance(value, float) else value)


@settings(max_examples=150)
@given(st.text(max_size=400))
def test_any_text_is_answered_with_rows_or_faults_and_never_breaks(text: str) -> None:
    if not text:
        return
    found = read_mapped(MappedCsv(text=text), NOW)
    assert found.entries or found.faults or "\n" not in text.strip() or not text.strip().split("\n", 1)[1].strip()


@pytest.mark.parametrize(
    ("cell", "order", "clock", "at"),
    [
        ("2026-03-04", "year-first", "", "2026-03-04T00:00"),
        ("2026-03-04T07:40", "year-first", "", "2026-03-04T07:40"),
        ("04/03/2026", "day-first", "19:05", "2026-03-04T19:05"),
        ("4.3.26", "day-first", "7h40", "2026-03-04T07:40"),
        ("03/04/2026 6:30 pm", "month-first", "", "2026-03-04T18:30"),
        ("3/4/26", "month-first", "12:10 am", "2026-03-04T00:10"),
    ],
)
def test_dates_and_times_as_people_write_them(cell: str, order: str, clock: str, at: str) -> None:
    text = f"date,time,ammonia\n{cell},{clock},1\n"
    question = MappedCsv.model_validate({"text": text, "date_order": order, "zone_offset_minutes": 0})
    ((_, found),) = read_mapped(question, NOW).entries
    assert found.at == datetime.fromisoformat(at).replace(tzinfo=UTC)


def test_a_bundle_refuses_an_entry_out_of_time() -> None:
    row = entry(1, {"kind": "note", "text": "x"}).model_dump(mode="json")
    good = {"written_at": NOW.isoformat(), "tank": "T", "entries": [row]}
    assert len(Bundle.model_validate(good).entries) == 1
    with pytest.raises(ValidationError, match="year 1750"):
        Bundle.model_validate({**good, "entries": [{**row, "at": "1750-01-01T00:00:00Z"}]})


def simulated(seed: int = 1, **more) -> SimulatedTank:
    tank = SimulatedTank(CycleLog(net_l=100, day_now=0, start_kh_dkh=6, **more), seed)
    tank.dose(0, 1.55)
    return tank


def test_a_simulated_tank_answers_to_what_is_done_and_keeps_its_nitrogen() -> None:
    tank = simulated()
    first = tank.water(0.01)
    # Its keeper's bottle is not quite what the label says.
    worth = tank.parameters()[DOSE_WORTH]
    assert first["ammonia_mg_n_l"] == pytest.approx(1.55 * worth, abs=0.01)
    assert 0.7 < worth < 1.4
    assert worth != 1
    later = tank.water(30)
    there = LEAST_NITRATE_MG_N_L * tank.parameters()[FIRST_NITRATE]
    found = sum(later[f"{w}_mg_n_l"] for w in ("ammonia", "nitrite", "nitrate"))
    assert found == pytest.approx(1.55 * worth + there, abs=1e-6)
    assert later["kh_dkh"] < first["kh_dkh"]
    tank.change(30, 0.5)
    tank.alkalinity(30, 2)
    after = tank.water(30.05)
    assert after["nitrate_mg_n_l"] == pytest.approx(later["nitrate_mg_n_l"] / 2, rel=0.05)
    assert after["kh_dkh"] > later["kh_dkh"] + 1.5


def test_two_simulated_tanks_differ_and_one_is_always_itself() -> None:
    days = [simulated(seed).water(14)["nitrite_mg_n_l"] for seed in (1, 2, 1)]
    assert days[0] == days[2] != days[1]


def test_a_colour_kit_reads_its_own_steps_and_says_or_more() -> None:
    kit = ColourKit(KitSteps(ammonia_ppm=[0, 0.5, 1.5]), noise_share=0)
    tank = simulated()
    assert kit.reading(tank, 0.1, NOW)["ammonia_ppm"] == 1.5
    assert kit.reading(tank, 0.1, NOW)["off_scale"] == ["ammonia"]
    assert kit.reading(tank, 30, NOW)["ammonia_ppm"] == 0
    noisy = {ColourKit(seed=s, noise_share=0.5).reading(tank, 0.1, NOW)["ammonia_ppm"] for s in range(12)}
    assert len(noisy) > 1
    drops = kit.reading(tank, 0.1, NOW)["kh_dkh"]
    assert drops == math.ceil(tank.water(0.1)["kh_dkh"])


def test_thermometer_and_probe_scatter_round_the_truth() -> None:
    tank = simulated(temperature_c=24)
    degrees = [Thermometer().reading(tank, d / 8, NOW)["temperature_c"] for d in range(24)]
    assert 23.3 < min(degrees) < max(degrees) < 24.7
    probe = [PhProbe(drift_ph_day=-0.05).reading(tank, d, NOW)["ph"] - tank.water(d)["ph"] for d in range(0, 11, 2)]
    assert probe[-1] == pytest.approx(-0.5, abs=0.1)


def test_the_usual_tank_is_kept_fed_and_never_left_to_stall() -> None:
    tank = usual_tank(30)
    assert len(tank.doses) > 2
    assert tank.water(30)["kh_dkh"] > 0.5
    assert all(d.raise_mg_n_l > 0 for d in tank.doses)


@pytest.mark.parametrize("kind", ["test-kit", "thermometer", "ph-probe", "flow-meter", "smart-plug"])
def test_every_stand_in_sends_keys_of_its_own_in_order(kind: str) -> None:
    sent = readings_of(kind, NOW, 10, 600)
    assert len({r["key"] for r in sent}) == len(sent) > 1
    times = [datetime.fromisoformat(r["at"]) for r in sent]
    assert times == sorted(times)


def test_readings_are_written_in_the_degrees_their_keeper_reads_and_come_back_as_they_were() -> None:
    body = {"kind": "reading", "basis": "ion", "ammonia_ppm": 0.25, "temperature_c": 25.6}
    with formatting.in_units(formatting.Units(temperature="°F")):
        text = "".join(csv_parts([(NOW, entry(1, body, NOW).body)]))
    assert "temperature_f" in text.splitlines()[0]
    assert "temperature_c" not in text
    assert ",78.08," in text
    found, wrong = read_csv(text, NOW)
    assert wrong == []
    assert found[0].body.temperature_c == 25.6
    mapped = read_mapped(MappedCsv(text=text), NOW)
    assert mapped.faults == []
    assert mapped.entries[0][1].body.temperature_c == pytest.approx(25.6, abs=0.01)
