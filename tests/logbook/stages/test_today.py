"""Today over living animals: what is said first, and whether it cannot wait; one row a situation (common practice)."""

from datetime import timedelta
from typing import NamedTuple

import pytest

from reedmace.core.cycle import CycleAdviceAnswer
from reedmace.logbook.care.upkeep_log import care
from reedmace.logbook.stages import in_danger, keep_view, today_view
from tests.support.lives import NOW, SIZES, Row, change, lived, read, tank, unnamed


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
        "where a settled tank has none",
        "feed-little",
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


SALT: list[Row] = [
    *tank(300, "ocellaris-clownfish", 2),
    (300, {"kind": "cycle-plan", "started_at": "2025-08-01T00:00:00Z", "method": "mature-rock", "salinity_g_kg": 35}),
]
ZERO = {"ammonia_ppm": 0, "nitrite_ppm": 0}


def gasp(count: int, *signs: str) -> Row:
    return 0.05, {"kind": "ailing", "signs": list(signs or ("gasping",)), "count": count}


NOTED = [
    Case("settled shrimp, a trace of ammonia", [*tank(200, "cherry-shrimp", 20), read(ammonia_ppm=0.5, ph=7.2)],
         "0.5 ppm of ammonia, where a settled tank has none", "feed-little", False),
    Case("settled, a trace of nitrite", [*OLD, read(ammonia_ppm=0, nitrite_ppm=0.25)], "where a settled tank has none",
         "feed-little", False),
    Case("a trace a week old", [*OLD, read(7, ammonia_ppm=0, nitrite_ppm=0.25)], "Running", None, False),
    Case("an ammonia kit's first step", [*OLD, read(ammonia_ppm=0.25, nitrite_ppm=0)], "Running", None, False),
    Case("summer warmth", [*OLD, read(temperature_c=29)], "warmer than they like", "cool", False),
    Case("a cool room", [*OLD, read(temperature_c=16)], "cooler than they like", "warm", False),
    Case("half a degree over", [*OLD, read(temperature_c=26.5)], "Running", None, False),
    Case("an axolotl at 24", [*tank(200, "axolotl", 1), read(temperature_c=24)], "too hot for them", "aerate"),
    Case("shrimp at 31", [*tank(200, "cherry-shrimp", 20), read(temperature_c=31)], "too hot for them", "aerate"),
    Case("seven degrees down in a day", [*OLD, read(1, temperature_c=25), read(0.05, temperature_c=18)],
         "fell from 25 to 18 °C within a day", "test", False),
    Case("three degrees in an hour", [*OLD, read(0.09, temperature_c=22), read(0.05, temperature_c=25)],
         "rose from 22 to 25 °C", "test", False),
    Case("three degrees in a day", [*OLD, read(1, temperature_c=22), read(0.05, temperature_c=25)],
         "Running", None, False),
    Case("pH up by 1.3 in a day", [*OLD, read(1, ph=6.6), read(0.05, ph=7.9)], "pH went from 6.6 to 7.9", "test",
         False),
    Case("pH by two kits", [*OLD, read(1, ph=7.4), read(0.05, ph=7.8)], "Running", None, False),
    Case("pH 8.8 for danios", [*OLD, read(ph=8.8)], "pH 8.8 is not what they like", "test", False),
    Case("pH 5.6 for neon tetras", [*tank(200, "neon-tetra", 10), read(ph=5.6)], "Running", None, False),
    Case("salinity up", [*SALT, read(salinity_g_kg=38)], "water has evaporated", None, False),
    Case("salinity down", [*SALT, read(salinity_g_kg=30)], "the next changes bring it back", None, False),
    Case("salinity as kept", [*SALT, read(salinity_g_kg=35.4)], "Running", None, False),
    Case("a reef at 30 °C", [*SALT, read(temperature_c=30)], "warmer than they like", "cool", False),
    Case("ammonia on a reef", [*SALT, read(ammonia_ppm=1, ph=8.2)], "Ammonia is above", "bind-ammonia"),
    Case("both poisons", [*OLD, read(ammonia_ppm=4, nitrite_ppm=5, ph=7.6)], "Ammonia and nitrite are", "change-water"),
    Case("ammonia 1 at pH 8.4", [*tank(200, "fancy-goldfish", 2), read(ammonia_ppm=1, nitrite_ppm=0, ph=8.4)],
         "Ammonia is above", "bind-ammonia"),
    Case("ammonia half at pH 8.2", [*OLD, read(ammonia_ppm=0.5, nitrite_ppm=0, ph=8.2)], "Ammonia is above",
         "bind-ammonia"),
    Case("gasping, both zero", [*OLD, read(**ZERO, ph=7.6, temperature_c=25), gasp(4)], "too little oxygen first",
         None),
    Case("gasping, nothing tested", [*OLD, gasp(4)], "too little oxygen first", None),
    Case("gasping over ammonia", [*NEW, read(ammonia_ppm=2, ph=8), gasp(4)], "Ammonia is above", "bind-ammonia"),
    Case("two with spots", [*OLD, read(**ZERO), gasp(2, "spots")], "a parasite first", None, False),
    Case("all are lost", [*OLD, (0.2, {"kind": "stocking", "species_id": "zebra-danio", "count": -8})],
         "All of them are lost", None),
    Case("one lost, both zero", [*OLD, (1, {"kind": "stocking", "species_id": "zebra-danio", "count": -1}),
         read(**ZERO)], "a single animal's own end first", None, False),
    Case("as many again came today", [*OLD, (0.2, {"kind": "stocking", "species_id": "zebra-danio", "count": 8})],
         "Animals are in", "test", False),
    Case("filter off for half an hour", [*OLD, (0.02, {"kind": "outage", "running": False})], "has stood still", None),
    Case("filter was off for three hours", [*OLD, (0.3, {"kind": "outage", "running": False}),
         (0.17, {"kind": "outage", "running": True})], "Running", None, False),
    Case("media dried", [*OLD, (0.3, {"kind": "media-work", "what": "dried", "share": 1})], "media dried out", "test",
         False),
    Case("a third of the media replaced", [*OLD, (0.3, {"kind": "media-work", "what": "replaced", "share": 0.3})],
         "media were replaced", "test", False),
    Case("both halves squeezed in two days", [*OLD, (1, {"kind": "media-work", "what": "rinsed", "share": 0.5}),
         (0.2, {"kind": "media-work", "what": "rinsed", "share": 0.5})], "Running", None, False),
    Case("nine tenths changed, treated", [*OLD, change(0.2, 0.9)], "Running", None, False),
    Case("an alarm of yesterday, zero today", [*OLD, read(1, ammonia_ppm=3), change(0.9, 0.5), read(**ZERO)],
         "Within the limits", "feed-little", False),
    Case("new, half a ppm at pH 7", [*NEW, read(ammonia_ppm=0.5, nitrite_ppm=0, ph=7)], "Within", "feed-little", False),
    Case("three weeks in, nitrite 1", [*tank(20), read(ammonia_ppm=0, nitrite_ppm=1, ph=7.6)], "Nitrite is above",
         "change-water"),
    Case("KH 1 and pH steady", [*OLD, read(30, ph=7.4, kh_dkh=4), read(ph=7.4, kh_dkh=1)], "Running", None, False),
]  # fmt: skip
BRACKISH: list[Row] = [
    *tank(200, "guppy", 6),
    (200, {"kind": "cycle-plan", "started_at": "2025-11-01T00:00:00Z", "method": "measured-ammonia",
           "salinity_g_kg": 8}),
]  # fmt: skip


def with_tap(**tap: object) -> Row:
    """A plan whose tap was tested."""
    plan = {"kind": "cycle-plan", "started_at": "2025-11-01T00:00:00Z", "method": "measured-ammonia", "tap": tap}
    return 199, plan


KINDS = [
    Case("brackish, nitrite 3", [*BRACKISH, read(nitrite_ppm=3)], "3 ppm of nitrite", "feed-little", False),
    Case("brackish, ammonia 1 at pH 8", [*BRACKISH, read(ammonia_ppm=1, ph=8)], "Ammonia is above", "change-water"),
    Case("a slider at 16", [*tank(200, "slider", 1), read(temperature_c=16)], "too cold for them", "warm"),
    Case("frogs, nitrite 2", [*tank(200, "african-dwarf-frog", 4), read(nitrite_ppm=2)], "Nitrite is", "change-water"),
    Case("an axolotl, ammonia 1", [*tank(200, "axolotl", 1), read(ammonia_ppm=1, ph=7.4, temperature_c=17)],
         "1 ppm of ammonia", "feed-little", False),
    Case("ammonia 8 at pH 6 is bound up, and too much", [*OLD, read(ammonia_ppm=8, nitrite_ppm=0, ph=6)],
         "Ammonia is above", "change-water"),
    Case("ammonia 2 in acid water", [*tank(200, "neon-tetra", 10), read(ammonia_ppm=2, nitrite_ppm=0, ph=6.4)],
         "Ammonia is above", "change-water"),
    Case("an ammonia kit at its end", [*OLD, read(ammonia_ppm=8, off_scale=["ammonia"], ph=7.4)], "Ammonia is above",
         "change-water"),
    Case("the kit's first step at pH 8.4, once", [*OLD, read(ammonia_ppm=0.25, nitrite_ppm=0, ph=8.4)],
         "0.25 ppm of ammonia", "feed-little", False),
    Case("the kit's first step at pH 8.4, twice", [*OLD, read(1, ammonia_ppm=0.25, nitrite_ppm=0, ph=8.4),
         read(ammonia_ppm=0.25, nitrite_ppm=0, ph=8.4)], "Ammonia is above", "bind-ammonia"),
    Case("nobody named, ammonia zero", [*unnamed("running", 800), read(ammonia_ppm=0)], "Running", None, False),
    Case("nobody named, gasping", [*unnamed("running", 800), gasp(3)], "too little oxygen first", None),
    Case("nobody named, pH down and KH gone", [*unnamed("running", 800), read(20, ph=7.4), read(ph=5.9, kh_dkh=0)],
         "turning sour", "change-water"),
    Case("untreated water from a well", [*OLD, with_tap(chlorine="none"), change(0.2, 0.5, treated=False)], "Running",
         None, False),
    Case("untreated, then treated", [*OLD, change(0.2, 0.5, treated=False), (0.1, {"kind": "conditioner"})],
         "The film was hurt", "test", False),
    Case("untreated days ago, nothing tested", [*OLD, change(2.5, 0.5, treated=False)], "The film was hurt", "test",
         False),
    Case("33 °C and gasping", [*OLD, read(temperature_c=33), gasp(5)], "too hot for them", "aerate"),
    Case("nitrate 100 on a reef", [*SALT, read(**ZERO, nitrate_ppm=100)], "Nitrate has piled up",
         "change-water", False),
    Case("nitrate 80, and 40 from the tap", [*OLD, with_tap(nitrate_mg_n_l=9), read(**ZERO, nitrate_ppm=80)],
         "Nitrate has piled up", "change-water", False),
    Case("an ammonia kit alone, zero for ten days", [*tank(12), *(read(d, ammonia_ppm=0) for d in range(10)),
         read(0.1, ammonia_ppm=0)], "Animals are in", "test", False),
    Case("one more danio among eight", [*OLD, (0.2, {"kind": "stocking", "species_id": "zebra-danio", "count": 1})],
         "Running", None, False),
    Case("KH 3 at pH 7", [*OLD, read(kh_dkh=3, ph=7)], "Running", None, False),
]  # fmt: skip
SEEN = read(20, ammonia_ppm=1, nitrite_ppm=1)


def proof(ago: float, nitrate: float = 40) -> list[Row]:
    """A dose of 0.6 mg N/L, seen and gone a day later, so many days ago."""
    return [
        dose(ago + 1, 0.6),
        read(ago + 0.95, ammonia_ppm=0.5, nitrite_ppm=0),
        read(ago, **ZERO, nitrate_ppm=nitrate),
    ]


START = [*EMPTY, planned(35), dose(35), SEEN]
COMING = [
    Case("dosed, never tested", [*EMPTY, planned(1), dose(0.9)], "begin with a test", "test", False),
    Case("dosed to 5 ppm, never tested", [*EMPTY, planned(2), dose(1, 3.9)], "begin with a test", "test", False),
    Case("nitrite off the scale for a fortnight", [*EMPTY, planned(30), dose(30),
         *(read(d, ammonia_ppm=0, nitrite_ppm=5) for d in (14, 10, 6, 2, 0.1))], "On its way", "stop-dosing", False),
    Case("proved once", [*START, read(3, **ZERO, nitrate_ppm=40, ph=7.4, kh_dkh=4), *proof(0.1)], "prove it",
         "dose-ammonia", False),
    Case("proved twice", [*START, read(3, **ZERO, nitrate_ppm=40, ph=7.4, kh_dkh=4), *proof(1.1), *proof(0.05)],
         "You may add fish", "change-water", False),
    Case("proved three weeks ago, unfed since", [*EMPTY, planned(60), dose(60), read(40, ammonia_ppm=1, nitrite_ppm=1),
         read(23, **ZERO, nitrate_ppm=40, ph=7.4, kh_dkh=4), *proof(21.1), *proof(20.05)], "prove it", "test", False),
    Case("nitrate stood still through five doses", [*EMPTY, planned(20), dose(20, 0.6),
         read(19.9, ammonia_ppm=0.5, nitrite_ppm=0, nitrate_ppm=5), *proof(5, 5), *proof(3.5, 5),
         *proof(2, 5), *proof(0.9, 5)],
         "nitrate did not rise", "dose-ammonia", False),
    Case("the filter stands", [*WAIT, read(ammonia_ppm=1, nitrite_ppm=1), (0.2, {"kind": "outage", "running": False})],
         "On its way", "start-filter", False),
    Case("pH fell to 6, KH unknown", [*WAIT, read(8, ammonia_ppm=2, nitrite_ppm=0.5, ph=7.6),
         read(ammonia_ppm=1, nitrite_ppm=1, ph=6)], "On its way", "test", False),
    Case("fish food on day 5", [*EMPTY, planned(5, "fish-food"), read(ammonia_ppm=0.5, nitrite_ppm=0)],
         "Waiting for the first bacteria", "feed-tank", False),
    Case("a seeded filter on its first day", [*EMPTY, planned(1, "seeded-filter", seed_share=1), read(**ZERO)],
         "First meal", "dose-ammonia", False),
    Case("a seeded filter after a week of zeros", [*EMPTY, planned(8, "seeded-filter", seed_share=1),
         *(read(d, **ZERO, nitrate_ppm=13 - d) for d in (8, 7, 6, 5, 4, 3, 2, 1, 0.1))], "You may add fish",
         "change-water", False),
    Case("mature rock, a trace a week ago", [*EMPTY, planned(14, "mature-rock", salinity_g_kg=35),
         read(7, ammonia_ppm=0.5, nitrite_ppm=0.25), read(**ZERO, nitrate_ppm=5)], "Nearly there", "dose-ammonia",
         False),
    Case("plants that grow", [*EMPTY, planned(20, "planted", plants="many"), (6, {"kind": "plant-growth"}),
         read(**ZERO)], "the weeks are counting", "watch-growth", False),
]  # fmt: skip


def animals_in(age: float, *more: Row) -> list[Row]:
    """A cycle with animals in from its first day."""
    return [*tank(age), planned(age, "animals-in"), *more]


WEEKS = (40, 37, 33, 30, 26, 23, 20, 16, 13, 9, 6, 2)
UNSEEN = [
    Case("animals in, tested on the first day alone", animals_in(60, read(59.5, **ZERO, ph=7.4, kh_dkh=4)),
         "the water is today decides", "test", False),
    Case("animals in, tested for two weeks of nine", animals_in(
         63, *(read(d, **ZERO, ph=7.4, kh_dkh=4) for d in (62, 58, 55, 50))),
         "the water is today decides", "test", False),
    Case("animals in, nitrite never read late", animals_in(
         60, read(59, **ZERO, ph=7.4, kh_dkh=4), read(3, ammonia_ppm=0)), "the water is today decides", "test", False),
]  # fmt: skip


@pytest.mark.parametrize("case", UNSEEN, ids=lambda case: case.name)
def test_a_cycle_nobody_saw_end_is_watched(case: Case) -> None:
    test_what_a_careful_practitioner_says_first(case)
    state = lived(*case.rows)
    assert "Running" not in today_view(state, NOW)[0].verdict


@pytest.mark.parametrize("rows", [
    animals_in(60, *(read(d, **ZERO, ph=7.4, kh_dkh=4) for d in WEEKS)),
    animals_in(60, read(59, **ZERO), read(3, **ZERO, ph=7.4, kh_dkh=4)),
    animals_in(100, read(99, **ZERO, ph=7.4, kh_dkh=4)),
])  # fmt: skip
def test_a_cycle_seen_to_end_is_a_settled_tank(rows: list[Row]) -> None:
    view, _ = today_view(lived(*rows), NOW)
    assert not view.urgent
    assert view.advice is None or is_stable_view(rows)


def is_stable_view(rows: list[Row]) -> bool:
    """Whether the care plan, not the cycle, asks for the next test."""
    plan = care(lived(*rows), NOW)
    return plan is not None and "test" in {task.what for task in plan.tasks}


@pytest.mark.parametrize("case", [*CYCLING, *SETTLED, *NOTED, *KINDS, *COMING], ids=lambda case: case.name)
def test_what_is_said_first_of_a_cycle_and_of_a_tank_that_runs(case: Case) -> None:
    test_what_a_careful_practitioner_says_first(case)


@pytest.mark.parametrize("case", NOTED, ids=lambda case: case.name)
def test_keep_and_care_agree_with_what_tests_show(case: Case) -> None:
    state = lived(*case.rows)
    view, _ = today_view(state, NOW)
    kept = keep_view(state, NOW)
    if case.first is not None and not case.urgent and view.advice is not None:
        assert kept.verdict.startswith(view.verdict) or not view.advice.verdict.startswith(
            ("where a settled tank has none", "At ", "pH ")
        )
        # One test is asked for, not the note's and the plan's.
        plan = care(state, NOW)
        assert plan is None or "test" not in {task.what for task in plan.tasks}


def test_a_trace_is_believed_at_once_where_film_was_hurt_or_the_kit_is_coarse() -> None:
    trace = read(ammonia_ppm=0.25, nitrite_ppm=0, ph=8.4)
    hurt = lived(*OLD, (0.5, {"kind": "media-work", "what": "rinsed-tap", "share": 1}), trace)
    assert today_view(hurt, NOW)[0].urgent
    kit: Row = (9, {"kind": "kit-plan", "kit": {"ammonia_ppm": [0, 1, 2, 4]}})
    assert today_view(lived(*OLD, kit, read(ammonia_ppm=1, nitrite_ppm=0, ph=8.2)), NOW)[0].urgent


def test_who_replaces_half_of_the_animals_begins_a_watch() -> None:
    lost = (60, {"kind": "stocking", "species_id": "zebra-danio", "count": -5})
    came = (0.2, {"kind": "stocking", "species_id": "zebra-danio", "count": 5})
    view, _ = today_view(lived(*OLD, lost, came), NOW)
    assert view.verdict.startswith("Animals are in")


def test_a_new_tank_hears_of_warmth_and_swings_beside_its_own_advice() -> None:
    zero = read(0.1, **ZERO, ph=7.4, temperature_c=18)
    view, _ = today_view(lived(*NEW, read(1, temperature_c=25), zero), NOW)
    assert "fell from 25 to 18 °C" in view.verdict
    assert not view.urgent


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


def test_keep_says_of_a_stalled_cycle_what_today_says() -> None:
    rows = [*WAIT, read(8, ammonia_ppm=2, nitrite_ppm=0.5, ph=7.2, kh_dkh=2),
            read(4, ammonia_ppm=2, nitrite_ppm=1, ph=6.2, kh_dkh=0),
            read(ammonia_ppm=2, nitrite_ppm=1, ph=5.9, kh_dkh=0)]  # fmt: skip
    view, _ = today_view(lived(*rows), NOW)
    assert view.advice is not None
    assert view.advice.stalled
    kept = keep_view(lived(*rows), NOW)
    assert kept.verdict.startswith(view.verdict)
    assert "Running" not in kept.verdict
