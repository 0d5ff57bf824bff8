"""From entries to the cycle's log: what each kind becomes, what is due, the register of spares, what devices write."""

from datetime import UTC, date, datetime, timedelta
from typing import Any

import pytest

from reedmace.core.computations import compute
from reedmace.core.cycle import CycleAdviceQuestion, cycle_advice
from reedmace.logbook.care.due import cycle_due, due
from reedmace.logbook.care.spare_sponges import seeds
from reedmace.logbook.replay.animals import animals_in, daily_load
from reedmace.logbook.replay.cycle_log import care_log, cycle_log, kit_of
from reedmace.logbook.replay.device_readings import DeviceReading, entry_of
from reedmace.logbook.replay.entries import Entry
from reedmace.logbook.replay.state import LogbookState, replay
from reedmace.logbook.stages.stage_rows import stage_rows

START = datetime(2026, 5, 1, 8, 0, tzinfo=UTC)
PLAN = {"kind": "cycle-plan", "started_at": START.isoformat(), "start_kh_dkh": 5, "start_ph": 7.4}
STOCK = {"kind": "stock-plan", "animals": [{"species_id": "zebra-danio", "count": 10}]}


def at(day: float) -> datetime:
    return START + timedelta(days=day)


def stand(*rows: tuple[float, dict[str, Any]], supersedes: dict[int, int] | None = None) -> LogbookState:
    """The state of entries (day, body), numbered from 1; supersedes: entry number to the number it replaces."""
    replaced = supersedes or {}
    return replay(
        Entry.model_validate(
            {
                "id": n, "key": f"entry-{n:04d}", "at": at(day), "written_at": at(day), "body": body,
                "supersedes": replaced.get(n),
            }
        )
        for n, (day, body) in enumerate(rows, start=1)
    )  # fmt: skip


def log_of(*rows: tuple[float, dict[str, Any]], now: float = 20, plan: dict[str, Any] | None = None):
    return cycle_log(stand((0, {**PLAN, **(plan or {})}), *rows), at(now))


def test_without_a_plan_there_is_no_log() -> None:
    assert cycle_log(stand((0, {"kind": "note", "text": "x"})), at(1)) is None


def test_readings_come_as_nitrogen_by_their_own_basis() -> None:
    log = log_of(
        (2, {"kind": "reading", "ammonia_ppm": 1, "nitrite_ppm": 1, "nitrate_ppm": 10, "phosphate_ppm": 0.5}),
        (3, {"kind": "reading", "ammonia_ppm": 1, "basis": "N"}),
        (-0.5, {"kind": "reading", "ammonia_ppm": 0.2, "nitrite_ppm": 0}),
        (-3, {"kind": "reading", "ammonia_ppm": 9}),
    )
    by_day = {round(r.day, 2): r for r in log.readings}
    assert set(by_day) == {0, 2, 3}
    assert by_day[2].ammonia_mg_n_l == pytest.approx(0.7765, rel=1e-3)
    assert by_day[2].nitrite_mg_n_l == pytest.approx(0.3045, rel=1e-3)
    assert by_day[2].nitrate_mg_n_l == pytest.approx(2.259, rel=1e-3)
    assert by_day[2].phosphate_ppm == 0.5
    assert by_day[3].ammonia_mg_n_l == 1


def test_a_stop_lasts_until_the_filter_runs_again_or_until_now() -> None:
    off, on = {"kind": "outage", "running": False}, {"kind": "outage", "running": True}
    closed = log_of((4, off), (4.25, off), (4.5, on), (9, on))
    assert [(o.day, o.hours) for o in closed.outages] == [(pytest.approx(4), pytest.approx(12))]
    assert closed.filter_running
    still = log_of((19, off), now=20)
    assert still.outages[0].hours == pytest.approx(24)
    assert not still.filter_running


@pytest.mark.parametrize(
    ("what", "becomes"),
    [
        ("rinsed", "rinsed-tank-water"), ("rinsed-tap", "rinsed-tap"), ("replaced", "replaced"), ("dried", "dried"),
        ("seed-added", "seed-added"), ("moved", "seed-added"), ("new-filter", "new-filter"),
    ],
)  # fmt: skip
def test_media_work_keeps_its_kind_and_share(what: str, becomes: str) -> None:
    (media,) = log_of((5, {"kind": "media-work", "what": what, "share": 0.3})).media
    assert (media.what, media.share, media.day) == (becomes, 0.3, 5)


def test_conditioner_belongs_to_the_changes_before_it() -> None:
    raw = {"kind": "water-change", "share": 0.3, "treated": False}
    changes = log_of((5, raw), (5.2, {"kind": "conditioner"}), (9, raw)).changes
    assert [(c.day, c.treated, c.conditioned) for c in changes] == [(5, False, True), (9, False, False)]


def test_putting_a_spare_in_to_seed_is_no_work_on_this_tanks_media() -> None:
    assert log_of((5, {"kind": "media-work", "what": "seeding-started"})).media == []


def test_animals_are_counted_in_and_out_and_make_their_own_load() -> None:
    rows: list[tuple[float, dict[str, Any]]] = [
        (0, STOCK),
        (8, {"kind": "stocking", "species_id": "zebra-danio", "count": 6}),
        (9, {"kind": "stocking", "species_id": "zebra-danio", "count": -2}),
        (10, {"kind": "stocking", "species_id": "a-fish-nobody-lists", "count": 3}),
    ]
    state = stand((0, PLAN), *rows)
    assert {a.species_id: a.count for a in animals_in(state)} == {"zebra-danio": 4, "a-fish-nobody-lists": 3}
    log = cycle_log(state, at(20))
    assert log.animals_in_mg_n_l_day == pytest.approx(0.4 * daily_load(state))
    assert log.stocked_day == pytest.approx(10)
    assert log.animals_are_in()
    assert not log.settled()
    assert cycle_log(state, at(60)).settled()


def test_animals_in_from_the_start_load_as_planned_until_they_are_written_down() -> None:
    log = log_of((0, STOCK), plan={"method": "animals-in"})
    assert log.animals_in_mg_n_l_day == pytest.approx(log.planned_load_mg_n_l_day)
    assert log.stocked_day is None


def test_the_kit_runs_out_on_its_day() -> None:
    kit = {"kind": "kit-plan", "kit": {"ammonia_ppm": [0, 0.5, 3]}, "expires_on": date(2026, 5, 10).isoformat()}
    state = stand((0, kit))
    assert not kit_of(state, at(8)).expired
    assert kit_of(state, at(11)).expired
    assert kit_of(state, at(8)).ammonia_ppm == [0, 0.5, 3]
    assert kit_of(LogbookState(), at(8)).ammonia_ppm[1] == 0.25


def test_growth_counts_from_when_it_was_first_seen() -> None:
    log = log_of(
        (9, {"kind": "plant-growth"}), (14, {"kind": "plant-growth"}), plan={"method": "planted", "plants": "many"}
    )
    assert log.plants_growing_day == pytest.approx(9)


def test_a_canister_is_closed_and_a_sponge_is_not() -> None:
    from reedmace.demo.sample_boxes import SAMPLE_BOXES

    for f in (next(f for f in SAMPLE_BOXES if f.kind == kind) for kind in ("canister", "sponge")):
        log = log_of((0, {"kind": "filter-plan", "chosen": f.model_dump(mode="json")}))
        assert log.filter_closed == (f.kind == "canister")


def test_the_log_as_it_stood_leaves_out_what_came_later() -> None:
    log = log_of(
        (2, {"kind": "reading", "ammonia_ppm": 2}), (12, {"kind": "reading", "ammonia_ppm": 0}),
        (3, {"kind": "dose", "raise_mg_n_l": 1}), (13, {"kind": "dose", "raise_mg_n_l": 1}),
        (11, {"kind": "plant-growth"}),
    )  # fmt: skip
    then = log.as_of(10)
    assert (len(then.readings), len(then.doses), then.plants_growing_day, then.day_now) == (1, 1, None, 10)


def test_a_superseded_reading_no_longer_counts() -> None:
    rows = ((0, PLAN), (2, {"kind": "reading", "ammonia_ppm": 8}), (2.1, {"kind": "reading", "ammonia_ppm": 2}))
    log = cycle_log(stand(*rows, supersedes={3: 2}), at(5))
    assert [r.ammonia_mg_n_l for r in log.readings] == [pytest.approx(2 * 0.7765, rel=1e-3)]


def test_what_comes_next_has_its_days() -> None:
    rows = [(d, {"kind": "reading", "ammonia_ppm": a, "nitrite_ppm": 1, "kh_dkh": kh}) for d, a, kh in
            ((1, 2, 5), (4, 1, 4.2), (7, 0.5, 3.2), (8.9, 0.25, 2.4))]  # fmt: skip
    state = stand((0, PLAN), (0, {"kind": "dose", "raise_mg_n_l": 1.5}), *rows)
    log = cycle_log(state, at(9))
    advice = cycle_advice(CycleAdviceQuestion(log=log))
    forecast = compute("cycle-forecast", {"log": log.model_dump(), "draws": 1000})
    found = {d.title: d for d in cycle_due(state, at(9), advice, forecast)}
    assert at(12) < found["KH runs out"].at < at(15)
    assert found["Ready, earliest day"].at == START + timedelta(days=forecast.pass_day_p10)
    assert found["Ready, latest likely day"].at > found["Ready, earliest day"].at
    assert all(d.stage == "cycle" and d.key for d in found.values())
    assert any(d.title.startswith(("Test", "Dose")) for d in found.values())
    without = cycle_due(state, at(9), advice, None)
    assert all(not d.title.startswith("Ready") for d in without)
    # Animals without a cycle plan: what is advised today, and no date of a cycle.
    unplanned = cycle_due(LogbookState(), at(9), advice, forecast)
    assert unplanned
    assert all(d.key.startswith("cycle-") and not d.title.startswith("Ready") for d in unplanned)


def test_the_register_knows_seeding_on_the_way_moved_and_put_back() -> None:
    seed = {"kind": "seed", "name": "A", "media_share": 0.5}
    move = {"kind": "seed-move", "seed_key": "entry-0001", "travels": "wet-closed"}
    out, arrived, back = ({**move, "phase": p} for p in ("out", "in", "back"))
    (seeding,) = seeds(stand((0, seed)), at(15))
    assert (seeding.where, seeding.answer.grown_share, seeding.ready_at) == ("seeding", 0.5, at(30))
    (way,) = seeds(stand((0, seed), (30, out)), at(30) + timedelta(minutes=120))
    assert way.where == "on-the-way"
    assert way.answer.alive_share == pytest.approx(0.5)
    (moved,) = seeds(stand((0, seed), (30, out), (30 + 1 / 24, {**arrived, "to": "Spare"})), at(99))
    assert (moved.where, moved.moved_to, moved.question.minutes_out) == ("moved", "Spare", pytest.approx(60))
    (again,) = seeds(stand((0, seed), (30, out), (30.01, back)), at(40))
    assert (again.where, again.question.minutes_out) == ("seeding", 0)


def test_spares_are_due_when_they_are_ready_and_only_while_they_seed() -> None:
    seed = {"kind": "seed", "name": "A"}
    out = {"kind": "seed-move", "seed_key": "entry-0001", "phase": "out"}
    assert [d.at for d in due(stand((0, seed)), at(5))] == [at(30)]
    assert due(stand((0, seed), (29, out)), at(30)) == []


def test_the_list_of_stages_says_stocked_but_not_while_it_is_an_emergency() -> None:
    rows = ((0, STOCK), (1, {"kind": "stocking", "species_id": "zebra-danio", "count": 5}))
    words = {s.stage: s.words for s in stage_rows(stand((0, PLAN), *rows), at(9))}
    assert words["cycle"] == "stocked day 8"
    words = {s.stage: s.words for s in stage_rows(stand((0, {**PLAN, "method": "animals-in"}), *rows), at(9))}
    assert words["cycle"] == "day 9, not yet ready"


def sent(**figures: Any) -> DeviceReading:
    return DeviceReading.model_validate({"key": "device-0001", "at": at(5), **figures})


def test_a_probe_says_only_what_is_new() -> None:
    before = stand((4.9, {"kind": "reading", "temperature_c": 25.0}))
    assert entry_of("thermometer", sent(temperature_c=25.3), before, None) is None
    assert entry_of("thermometer", sent(temperature_c=25.5), before, None).temperature_c == 25.5
    old = stand((3.5, {"kind": "reading", "temperature_c": 25.0}))
    assert entry_of("thermometer", sent(temperature_c=25.0), old, None) is not None
    assert entry_of("ph-probe", sent(ph=7.1), before, None).ph == 7.1
    assert entry_of("ph-probe", sent(temperature_c=25), before, None) is None


def test_a_device_writes_only_what_is_its_own_to_read() -> None:
    everything = sent(ammonia_ppm=1, ph=7, temperature_c=25, flow_lph=500, watts=12)
    kit = entry_of("test-kit", everything, LogbookState(), None)
    assert (kit.ammonia_ppm, kit.ph, kit.temperature_c) == (1, 7, None)
    assert entry_of("thermometer", everything, LogbookState(), None).ph is None
    assert entry_of("flow-meter", everything, LogbookState(), 600).computed_lph == 600
    assert entry_of("test-kit", sent(), LogbookState(), None) is None
    assert entry_of("an unknown kind", everything, LogbookState(), None) is None


def test_the_newest_salinity_read_is_the_logs_and_without_a_plan_the_tap_stays_unknown() -> None:
    salt = {"kind": "cycle-plan", "started_at": at(0).isoformat(), "salinity_g_kg": 35, "method": "mature-rock"}
    read = {"kind": "reading", "salinity_g_kg": 33}
    assert cycle_log(stand((0, salt)), at(3)).salinity_g_kg == 35
    assert cycle_log(stand((0, salt), (2, read)), at(3)).salinity_g_kg == 33
    kept = stand((0, {"kind": "stocking", "species_id": "zebra-danio", "count": 6}))
    log = care_log(kept, at(3))
    assert log.tap.ph is None
    assert not log.litres_known
