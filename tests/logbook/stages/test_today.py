"""Today over living animals: what is said first, and whether it cannot wait; one row a situation (common practice)."""

from datetime import timedelta
from typing import NamedTuple

import pytest
from tests.support.lives import NOW, SIZES, Row, change, lived, read, tank, unnamed

from reedmace.core.cycle import CycleAdviceAnswer
from reedmace.logbook.care.upkeep_log import care
from reedmace.logbook.stages import in_danger, keep_view, today_view


class Case(NamedTuple):
    """A situation, words of the verdict, and the first thing to do; urgent unless said otherwise."""

    name: str
    rows: list[Row]
    says: str
    first: str | None
    urgent: bool = True


OLD, NEW = tank(200), tank(5)
HARM = [
    Case("ammonia alone, settled", [*OLD, read(ammonia_ppm=4)], "ammonia is above", "bind-ammonia"),
    Case("nitrite alone, settled", [*OLD, read(nitrite_ppm=5)], "Nitrite is above", "change-water"),
    Case("ammonia alone, new", [*NEW, read(ammonia_ppm=4, ph=8.2)], "ammonia is above", "bind-ammonia"),
    Case("nitrite alone, new", [*NEW, read(nitrite_ppm=2)], "Nitrite is above", "change-water"),
    Case(
        "ammonia today, nitrite three days old",
        [*NEW, read(3, ammonia_ppm=0, nitrite_ppm=0), read(ammonia_ppm=4, ph=8.2)],
        "ammonia is above",
        "bind-ammonia",
    ),
    Case("ammonia 1 and no pH: taken for 8", [*NEW, read(ammonia_ppm=1)], "Ammonia is above", "change-water"),
    Case("ammonia two days old and nothing done", [*NEW, read(2, ammonia_ppm=4)], "ammonia is above", "bind-ammonia"),
    Case("heat from a probe", [*OLD, read(temperature_c=38)], "At 38 °C it is too hot for them", "aerate"),
    Case("cold from a probe", [*OLD, read(temperature_c=12)], "At 12 °C it is too cold for them", "warm"),
    Case("heat, nobody named", [*unnamed("running", 800), read(temperature_c=38)], "too hot for any fish", "aerate"),
    Case("cold, nobody named", [*unnamed("running", 800), read(temperature_c=8)], "too cold for any fish", "warm"),
    Case("pH 9.6", [*OLD, read(ph=9.6)], "pH 9.6 is higher than they bear", "change-water"),
    Case("pH 4.4", [*unnamed("running", 800), read(ph=4.4)], "pH 4.4 is lower than they bear", "change-water"),
    Case(
        "KH used up and pH fallen",
        [*OLD, read(40, ph=7.8, kh_dkh=4), read(ph=5.6, kh_dkh=0)],
        "KH is used up and pH has fallen from 7.8 to 5.6",
        "change-water",
    ),
    Case("half changed untreated, settled", [*OLD, change(0.2, 0.5, treated=False)], "Untreated water", "treat-water"),
    Case("a third changed untreated, new", [*NEW, change(0.2, 0.3, treated=False)], "Untreated water", "treat-water"),
    Case("ammonia, nobody named", [*unnamed("running", 800), read(ammonia_ppm=2)], "Ammonia is above", "bind-ammonia"),
    Case("nitrite, nobody named, new", [*unnamed("animals-in", 4), read(nitrite_ppm=2)], "Nitrite is", "change-water"),
    Case(
        "a salt tank bears ten times the nitrite, not more",
        [*tank(200, "ocellaris-clownfish", 2), (200, {"kind": "cycle-plan", "started_at": "2025-11-01T00:00:00Z",
         "method": "mature-rock", "salinity_g_kg": 35}), read(nitrite_ppm=8)],
        "Nitrite is above",
        "change-water",
    ),
]  # fmt: skip
WELL = [
    Case("38 °C read two months ago", [*OLD, read(60, temperature_c=38)], "Running", None, urgent=False),
    Case("pH 9.6 read two months ago", [*OLD, read(60, ph=9.6)], "Running", None, urgent=False),
    Case(
        "ammonia 4 three weeks ago, never tested again",
        [*OLD, read(21, ammonia_ppm=4)],
        "what the water is today",
        "test",
        urgent=False,
    ),
    Case("settled, both zero", [*OLD, read(ammonia_ppm=0, nitrite_ppm=0, ph=7.6)], "Running", None, urgent=False),
    Case("settled, ammonia kit alone, zero", [*OLD, read(ammonia_ppm=0)], "Running", None, urgent=False),
    Case("settled, warmth as they like it", [*OLD, read(temperature_c=25)], "Running", None, urgent=False),
    Case("changed and treated", [*OLD, change(0.2, 0.5)], "Running", None, urgent=False),
    Case(
        "soft-water fish live without alkalinity",
        [*tank(200, "neon-tetra", 10), read(30, ph=6.8, kh_dkh=1), read(ph=6.1, kh_dkh=0)],
        "Running",
        None,
        urgent=False,
    ),
    Case("goldfish in the cool", [*tank(200, "fancy-goldfish", 2), read(temperature_c=15)], "", None, urgent=False),
    Case("new, both zero", [*NEW, read(ammonia_ppm=0, nitrite_ppm=0, ph=7.6)], "Within", "feed-little", urgent=False),
    Case("new, nothing tested", NEW, "Animals are in", "test", urgent=False),
]


@pytest.mark.parametrize("case", [*HARM, *WELL], ids=lambda case: case.name)
def test_what_a_careful_practitioner_says_first(case: Case) -> None:
    view, _ = today_view(lived(*case.rows), NOW)
    assert case.says in view.verdict
    assert view.urgent is case.urgent
    assert (view.advice.first.do if view.advice else None) == case.first


@pytest.mark.parametrize("case", HARM, ids=lambda case: case.name)
def test_every_screen_says_the_same_of_harm(case: Case) -> None:
    state = lived(*case.rows)
    view, _ = today_view(state, NOW)
    danger = in_danger(state, NOW)
    assert isinstance(danger, CycleAdviceAnswer)
    assert danger.verdict == view.verdict
    assert keep_view(state, NOW).verdict.startswith(view.verdict)
    # The plan for settled tanks asks for no test of its own beside the emergency's.
    plan = care(state, NOW)
    assert plan is None or not {"test", "change", "soda"} & {task.what for task in plan.tasks}


@pytest.mark.parametrize("case", [*HARM, *WELL], ids=lambda case: case.name)
def test_now_comes_before_tonight_and_tonight_before_tomorrow(case: Case) -> None:
    view, _ = today_view(lived(*case.rows), NOW)
    whens = [a.when for a in ([view.advice.first, *view.advice.then] if view.advice else [])]
    assert whens == sorted(whens, key=("now", "tonight", "tomorrow", "later").index)


EMPTY: list[Row] = [(30, SIZES), (30, {"kind": "stock-plan", "animals": [{"species_id": "zebra-danio", "count": 8}]})]


def planned(days: float, method: str = "measured-ammonia", **more: object) -> Row:
    """A cycle begun so many days ago."""
    since = (NOW - timedelta(days=days)).isoformat()
    return days, {"kind": "cycle-plan", "started_at": since, "method": method, **more}


def dose(ago: float, mg_n_l: float = 1.5) -> Row:
    return ago, {"kind": "dose", "raise_mg_n_l": mg_n_l}


WAIT = [*EMPTY, planned(10), dose(10)]
CYCLING = [
    Case("day 0, nothing tested", [*EMPTY, planned(0.01)], "begin with a test of the bare water", "test", urgent=False),
    Case(
        "ammonia stands, ten days in",
        [*WAIT, read(ammonia_ppm=2, nitrite_ppm=0)],
        "Waiting for the first",
        "test",
        False,
    ),
    Case(
        "nitrite off the scale",
        [*EMPTY, planned(20), dose(20), dose(10), read(ammonia_ppm=0.5, nitrite_ppm=5, off_scale=["nitrite"])],
        "On its way",
        "stop-dosing",
        urgent=False,
    ),
    Case(
        "stalled for want of alkalinity",
        [
            *EMPTY,
            planned(20),
            dose(20),
            read(10, ammonia_ppm=1, nitrite_ppm=2, kh_dkh=3, ph=7.2),
            read(5, ammonia_ppm=1, nitrite_ppm=2),
            read(ammonia_ppm=1, nitrite_ppm=2, kh_dkh=0.5, ph=6.2),
        ],
        "used up the alkalinity",
        "raise-kh",
    ),
    Case("cold", [*WAIT, read(ammonia_ppm=2, nitrite_ppm=0, temperature_c=17)], "Waiting", "warm", urgent=False),
    Case("too hot", [*WAIT, read(ammonia_ppm=2, nitrite_ppm=0, temperature_c=37)], "Waiting", "cool", urgent=False),
    Case("8 ppm of ammonia", [*WAIT, read(ammonia_ppm=8, nitrite_ppm=0)], "Waiting", "change-water", urgent=False),
    Case(
        "untreated water went in",
        [*EMPTY, planned(20), dose(20), read(1, ammonia_ppm=1, nitrite_ppm=1), change(0.1, 0.3, treated=False)],
        "On its way",
        "treat-water",
        urgent=False,
    ),
    Case(
        "a dead bottle",
        [
            *EMPTY,
            planned(12),
            *(dose(d) for d in (12, 9, 6)),
            *(read(d, ammonia_ppm=0, nitrite_ppm=0) for d in (11.9, 8.9, 5.9, 1, 0.1)),
        ],
        "None of the ammonia dosed has ever shown",
        "test",
        urgent=False,
    ),
    Case(
        "zeros, and nothing was ever dosed",
        [*EMPTY, planned(20), read(10, ammonia_ppm=0, nitrite_ppm=0), read(ammonia_ppm=0, nitrite_ppm=0)],
        "First meal",
        "dose-ammonia",
        urgent=False,
    ),
    Case(
        "nitrite was never tested",
        [*EMPTY, planned(20), dose(20), read(3, ammonia_ppm=1), read(ammonia_ppm=0.5)],
        "test nitrite too",
        "test",
        urgent=False,
    ),
    Case(
        "plants that do not grow yet",
        [*EMPTY, planned(20, "planted", plants="many"), read(ammonia_ppm=0, nitrite_ppm=0)],
        "Waiting for new growth",
        "watch-growth",
        urgent=False,
    ),
]
SETTLED = [
    Case(
        "a filter rinsed under the tap",
        [*OLD, (0.5, {"kind": "media-work", "what": "rinsed-tap", "share": 1})],
        "The film was hurt: media were rinsed in tap water",
        "test",
        urgent=False,
    ),
    Case(
        "all media replaced",
        [*OLD, (0.5, {"kind": "media-work", "what": "replaced", "share": 1})],
        "The film was hurt: media were replaced",
        "test",
        urgent=False,
    ),
    Case(
        "half of it squeezed in tank water",
        [*OLD, (0.5, {"kind": "media-work", "what": "rinsed", "share": 0.5})],
        "Running",
        None,
        urgent=False,
    ),
    Case(
        "nitrate piled up",
        [*OLD, read(ammonia_ppm=0, nitrite_ppm=0, nitrate_ppm=160)],
        "Nitrate has piled up",
        "change-water",
        urgent=False,
    ),
    Case(
        "ammonia a quarter at pH 7", [*OLD, read(ammonia_ppm=0.25, nitrite_ppm=0, ph=7)], "Running", None, urgent=False
    ),
    Case(
        "goldfish, ammonia 1 at pH 7.2",
        [*tank(200, "fancy-goldfish", 2), read(ammonia_ppm=1, ph=7.2)],
        "",
        None,
        urgent=False,
    ),
    Case(
        "a slider, ammonia 4", [*tank(200, "slider", 1), read(ammonia_ppm=4, ph=7.6)], "mmonia is above", "bind-ammonia"
    ),
    Case(
        "filter off since five hours", [*OLD, (5 / 24, {"kind": "outage", "running": False})], "has stood still", None
    ),
    Case(
        "filter off for three days, on again",
        [*OLD, (4, {"kind": "outage", "running": False}), (1, {"kind": "outage", "running": True})],
        "stood still",
        None,
    ),
    Case(
        "six of eight gasp",
        [*OLD, (0.05, {"kind": "ailing", "signs": ["gasping"], "count": 6})],
        "too little oxygen first",
        None,
    ),
    Case(
        "one died",
        [*OLD, (0.1, {"kind": "stocking", "species_id": "zebra-danio", "count": -1})],
        "Test ammonia and nitrite before anything else",
        None,
        urgent=False,
    ),
    Case(
        "five died at once",
        [*OLD, (0.1, {"kind": "stocking", "species_id": "zebra-danio", "count": -5})],
        "5 of 8 at once",
        None,
    ),
    Case("nothing was ever tested", unnamed("running", 800), "Running", None, urgent=False),
]


@pytest.mark.parametrize("case", [*CYCLING, *SETTLED], ids=lambda case: case.name)
def test_what_is_said_first_of_a_cycle_and_of_a_tank_that_runs(case: Case) -> None:
    test_what_a_careful_practitioner_says_first(case)


def test_nitrate_asks_for_one_change_and_binds_nothing() -> None:
    view, _ = today_view(lived(*OLD, read(ammonia_ppm=0, nitrite_ppm=0, nitrate_ppm=160)), NOW)
    assert view.advice is not None
    does = [a.do for a in (view.advice.first, *view.advice.then)]
    assert does.count("change-water") == 1
    assert "bind-ammonia" not in does


ALARMS = [
    [*OLD, read(3, ammonia_ppm=3), change(2.9, 0.5), change(2.8, 0.5), read(2, ammonia_ppm=0, nitrite_ppm=0)],
    [*OLD, read(3, nitrite_ppm=3), change(2.9, 0.5), read(1.5, ammonia_ppm=0, nitrite_ppm=0)],
    [*OLD, change(3, 0.5, treated=False), (2.9, {"kind": "conditioner"}), read(2, ammonia_ppm=0, nitrite_ppm=0)],
]


@pytest.mark.parametrize("rows", ALARMS, ids=["ammonia", "nitrite", "untreated water"])
def test_after_an_alarm_a_settled_tank_is_tested_daily_for_a_week(rows: list[Row]) -> None:
    state = lived(*rows)
    view, _ = today_view(state, NOW)
    assert view.advice is not None
    assert view.advice.first.do == "test"
    assert view.advice.first.when == "now"
    assert not view.urgent
    plan = care(state, NOW)
    assert plan is None or "test" not in {task.what for task in plan.tasks}
    # A week later it is a settled tank again.
    quiet = lived(*[(ago + 8, body) for ago, body in rows], read(0.5, ammonia_ppm=0, nitrite_ppm=0))
    assert today_view(quiet, NOW)[0].advice is None


PAPER = unnamed("cycling", 21)


@pytest.mark.parametrize("planned", [False, True], ids=["no plan saved", "a plan saved"])
def test_a_cycle_kept_on_paper_is_judged_by_its_first_test(planned: bool) -> None:
    since = (NOW - timedelta(days=21)).isoformat()
    plan = [(0.2, {"kind": "cycle-plan", "started_at": since, "method": "measured-ammonia"})] if planned else []
    view, stages = today_view(lived(*PAPER, *plan, read(ammonia_ppm=0.25, nitrite_ppm=2, nitrate_ppm=20)), NOW)
    assert view.verdict.startswith("On its way: ammonia is being turned into nitrite")
    assert next(s.words for s in stages if s.stage == "cycle").startswith("day 21")


def test_the_poison_not_read_is_asked_for() -> None:
    view, _ = today_view(lived(*OLD, read(ammonia_ppm=4)), NOW)
    assert view.advice is not None
    assert "Test nitrite too" in [a.title for a in view.advice.then]


def test_a_tank_without_a_kit_is_told_what_to_do_without_one() -> None:
    view, _ = today_view(lived(*NEW), NOW)
    assert view.advice is not None
    blind = view.advice.then[-1]
    assert blind.share == pytest.approx(1 / 3)
    assert "no food today. Then get a kit" in blind.detail


def test_a_stop_whose_end_lies_ahead_still_lasts() -> None:
    off, on = (1.0, {"kind": "outage", "running": False}), (-1.0, {"kind": "outage", "running": True})
    view, _ = today_view(lived(*OLD, off, on), NOW)
    assert view.urgent
    assert view.stop is not None
    assert view.stop.first == "Get it running"
