"""Ranking of every filter that fits this tank, alone or as a pair, by the keeper's priorities, with reasons."""

import pytest

from reedmace.core.computations import compute
from reedmace.core.filter.site.site import Priorities
from reedmace.core.filter.typical import is_typical
from reedmace.demo.sample_boxes import SAMPLE_BOXES
from tests.support.ranking import ROOM, rank

SMALL = [
    f.model_dump()
    for f in SAMPLE_BOXES
    if f.id
    in (
        "millrace-60",
        "ferryman-70",
        "sweetflag-800",
        "lockgate-700",
        "watermint-60",
        "culvert-35",
        "sedgewall-45",
        "millpond-60",
    )
]


def small(**changes):
    return rank(own_filters=SMALL, **changes)


def test_every_filter_is_either_ranked_or_excluded_with_a_reason_and_a_remedy() -> None:
    answer = rank()
    assert (
        len(answer.ranked) + len(answer.excluded) == len(SAMPLE_BOXES) == answer.fitting_count + answer.excluded_count
    )
    assert all(e.reason and e.remedy for e in answer.excluded)
    assert all(c.reason for c in answer.ranked)


def test_scores_fall_and_are_the_sum_of_their_contributions() -> None:
    answer = rank()
    scores = [c.score for c in answer.ranked]
    assert scores == sorted(scores, reverse=True)
    for c in answer.ranked:
        assert c.score == pytest.approx(sum(p.points for p in c.contributions))


def test_a_hang_on_without_wall_gap_is_out_and_the_gap_brings_it_back() -> None:
    tight, roomy = rank(), rank(site={**ROOM, "behind_cm": 20})
    out = {e.filter_id: e for e in tight.excluded}
    assert "needs 9 cm behind" in out["millrace-60"].reason
    assert "3 cm further off the wall" in out["millrace-60"].remedy
    assert "millrace-60" in {c.filter_id for c in roomy.ranked}


@pytest.mark.parametrize(
    "priorities",
    [{}, {"hidden": 5, "quiet": 4}, {"price": 5, "hidden": 0}, {"flood_safety": 5, "easy_clean": 1, "clear_water": 4}],
    ids=["usual", "hidden", "cheap", "dry floor"],
)
def test_the_smallest_single_change_is_the_one_trying_everything_finds(priorities: dict) -> None:
    start = {**Priorities().model_dump(), **priorities}
    answer = small(priorities=start)
    standing = answer.ranked[0].filter_id
    found: dict[str, tuple[float, str, float]] = {}

    def see(cost: float, key: str, then: float, **changes) -> None:
        ranked = small(**{"priorities": start, **changes}).ranked
        if ranked and ranked[0].filter_id != standing and cost < found.get(ranked[0].filter_id, (1e9,))[0]:
            found[ranked[0].filter_id] = (cost, key, then)

    for key, now in start.items():
        for then in range(6):
            if key != "redundant" and then != now:
                see(abs(then - now), key, then, priorities={**start, key: then})
    for key, most in (("behind_cm", 20), ("beneath_cm", 75)):
        for then in range(int(ROOM[key]) + 1, most):
            see((then - ROOM[key]) / 5, key, then, site={**ROOM, key: then})
    see(6, "overflow_box", 1, site={**ROOM, "overflow_box": True})
    said = {c.filter_id: (c.input, c.then) for c in answer.changes}
    runners_up = [c.filter_id for c in answer.ranked[1:5]]
    kinds_in = {c.kind for c in answer.ranked}
    out = [e.filter_id for e in answer.excluded if e.kind not in kinds_in]
    expected = {i: found[i] for i in [*runners_up, *out] if i in found}
    assert {i: (key, then) for i, (_, key, then) in expected.items()} == said


def test_each_change_that_is_said_brings_that_filter_first() -> None:
    answer = rank()
    assert answer.changes
    assert answer.single_change == answer.changes[0].text
    for change in answer.changes:
        if change.input in ROOM or change.input == "overflow_box":
            after = rank(site={**ROOM, change.input: change.then}, priorities=answer.priorities)
        else:
            after = rank(priorities={**answer.priorities.model_dump(), change.input: int(change.then)})
        assert after.ranked[0].filter_id == change.filter_id != answer.ranked[0].filter_id


def test_the_order_is_the_weighted_sum_worked_by_hand() -> None:
    weights = {"flow": 5, **Priorities().model_dump()}
    answer = small()
    by_hand = {
        c.filter_id: 100 * sum(weights[p.priority] * p.score for p in c.contributions) / sum(weights.values())
        for c in answer.ranked
    }
    assert [c.filter_id for c in answer.ranked] == sorted(by_hand, key=lambda i: -by_hand[i])
    for c in answer.ranked:
        assert c.score == pytest.approx(by_hand[c.filter_id])


def test_a_pair_never_carries_less_than_its_better_half_and_each_half_carries_the_load() -> None:
    answer = rank()
    assert answer.pairs
    one = {c.filter_id: c for c in answer.ranked} | {e.filter_id: e for e in answer.excluded}
    for pair in answer.pairs:
        halves = [one[i].delivered_lph for i in pair.filter_ids]
        assert pair.delivered_lph == pytest.approx(sum(halves))
        assert pair.delivered_lph >= max(halves)
        bought = [next(f for f in SAMPLE_BOXES if f.id == i) for i in pair.filter_ids]
        # Two sponges hang on one air pump: 8 and 4 a litre a minute.
        blown = sum(f.air_l_min or 0 for f in bought)
        assert pair.price == pytest.approx(sum(f.price for f in bought) + (8 + 4 * blown if blown else 0))


def test_where_no_single_filter_is_enough_a_pair_may_be() -> None:
    room = {**ROOM, "net_l": 500, "length_cm": 160, "width_cm": 60, "water_depth_cm": 60, "beneath_cm": 66}
    answer = rank(site=room, animals=[{"species_id": "common-goldfish", "count": 6}])
    assert answer.ranked == []
    assert "together" in answer.verdict
    assert answer.pairs[0].dirty_lph >= 0.7 * answer.asked_low_lph


def test_a_planted_lightly_stocked_tank_is_told_it_has_enough() -> None:
    light = [{"species_id": "cherry-shrimp", "count": 8}]
    planted = {**ROOM, "planted": True, "film_here_m2": 3}
    assert "hardly needs a filter" in rank(site=planted, animals=light).enough
    assert rank(site={**planted, "planted": False}, animals=light).enough is None
    assert rank(site=planted, animals=[{"species_id": "oscar", "count": 2}]).enough is None


def test_a_filter_that_runs_and_carries_the_stock_is_enough_and_a_weak_one_is_not() -> None:
    assert "already have enough" in rank(running_ids=["sweetflag-1200"]).enough
    # By the flow in service, as the page's own verdict is: one that has it only when clean is not called enough.
    slow = next(c for c in rank().ranked if c.dirty_lph < rank().asked_low_lph <= c.delivered_lph)
    assert rank(running_ids=[slow.filter_id]).enough is None
    assert rank(running_ids=["culvert-5"]).enough is None


def test_a_drilled_tank_or_an_overflow_box_lets_a_sump_in() -> None:
    assert "overflow box" in {e.filter_id: e.remedy for e in rank().excluded}["millpond-60"]
    for change in ({"drilled": True}, {"overflow_box": True}):
        assert "millpond-60" in {c.filter_id for c in rank(site={**ROOM, **change}).ranked}


def test_where_people_sleep_quiet_starts_higher_than_where_fish_are_bred() -> None:
    sleeps, breeds = (rank(site={**ROOM, "kind": kind}).priorities for kind in ("bedroom", "fish-room"))
    assert sleeps.quiet > breeds.quiet
    assert breeds.price > sleeps.price


def test_goldfish_are_kept_from_plates_and_small_boxes() -> None:
    room = {**ROOM, "net_l": 60}
    out = {
        e.filter_id: e.reason for e in rank(site=room, animals=[{"species_id": "fancy-goldfish", "count": 1}]).excluded
    }
    assert "clogs under goldfish" in out["shingle-60"]
    assert "within days under goldfish" in out["culvert-35"]


def test_more_food_shortens_the_interval_and_never_raises_the_flow() -> None:
    few, many = (
        {c.filter_id: c for c in rank(animals=[{"species_id": "zebra-danio", "count": n}]).ranked} for n in (6, 60)
    )
    for i in few.keys() & many.keys():
        assert many[i].service_day <= few[i].service_day
        assert many[i].dirty_lph <= few[i].dirty_lph * 1.6
        assert many[i].delivered_lph == pytest.approx(few[i].delivered_lph)


def test_evaporation_costs_a_hang_on_flow_and_a_canister_none() -> None:
    full, low = (
        {c.filter_id: c for c in rank(site={**ROOM, "behind_cm": 20, "rim_to_water_cm": r}).ranked} for r in (2, 6)
    )
    assert low["millrace-60"].delivered_lph < full["millrace-60"].delivered_lph
    assert low["sweetflag-800"].delivered_lph == pytest.approx(full["sweetflag-800"].delivered_lph)
    assert full["sweetflag-800"].rise_m == 0


def test_priorities_move_the_order() -> None:
    nothing = dict.fromkeys(
        (
            "price",
            "running_cost",
            "quiet",
            "easy_clean",
            "clear_water",
            "hidden",
            "room_in_tank",
            "flood_safety",
            "power_cut",
            "chemical",
        ),
        0,
    )
    assert rank(priorities={**nothing, "hidden": 5, "clear_water": 5}).ranked[0].kind == "canister"
    assert rank(priorities={**nothing, "price": 5, "flood_safety": 5, "power_cut": 5}).ranked[0].kind == "sponge"


def test_delivered_is_the_operating_point_of_the_same_plumbing() -> None:
    candidate = next(c for c in rank().ranked if c.filter_id == "sweetflag-800")
    f = next(f for f in SAMPLE_BOXES if f.id == "sweetflag-800")
    fittings = [
        {"kind": "strainer"},
        {"kind": "entrance"},
        {"kind": "u-bend", "count": 2},
        {"kind": "quick-valve"},
        {"kind": "spray-bar"},
        {"kind": "exit"},
    ]
    point = compute(
        "operating-point",
        {
            "pump": {"max_flow_lph": f.box_lph, "max_head_m": f.max_head_m},
            "hoses": [{"bore_mm": f.hose_bore_mm, "length_m": 2.8}],
            "fittings": fittings,
            "media": [{"media": "foam-20", "area_cm2": f.face_cm2, "depth_cm": f.foam_depth_cm}],
        },
    )
    assert candidate.delivered_lph == pytest.approx(point.delivered_lph, rel=1e-6)


def test_without_boxes_those_usually_made_are_ranked() -> None:
    answer = rank(own_filters=[])
    assert answer.ranked
    assert all(is_typical(c.filter_id) for c in answer.ranked)


@pytest.mark.parametrize(
    ("change", "filter_id", "words"),
    [
        ({"beneath_cm": 20}, "sweetflag-800", "38 cm high"),
        ({"water_depth_cm": 15}, "burreed-20", "outlet must stay under"),
        ({"sockets": 0}, "sweetflag-800", "no socket"),
        ({"rim_to_water_cm": 12, "behind_cm": 30}, "millrace-60", "near the rim"),
    ],
    ids=["no cabinet", "too shallow", "no socket", "water too low"],
)
def test_hard_limits_exclude_with_their_reason(change: dict, filter_id: str, words: str) -> None:
    out = {e.filter_id: e.reason for e in rank(site={**ROOM, **change}).excluded}
    assert words in out[filter_id]


def test_no_filter_at_all_is_an_answer() -> None:
    answer = rank(site={**ROOM, "net_l": 20000})
    assert answer.ranked == []
    assert "No filter here fits" in answer.verdict
