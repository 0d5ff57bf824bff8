"""Air for a room: one outlet by hand, more air never less for anyone, valves that balance, what one more and a failure
take.
"""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from reedmace.core.air import RoomAirQuestion, room_air
from reedmace.core.errors import CannotAnswer


def outlet(key: str, node: str = "a", **more: object) -> dict:
    return {
        "key": key,
        "name": f"Tank {key}",
        "node": node,
        "depth_cm": 30,
        "wanted_l_min": 1,
        "tube_bore_mm": 18,
        **more,
    }


def room(*outlets: dict, pumps: list[dict] | None = None, mains: list[dict] | None = None) -> RoomAirQuestion:
    nodes = sorted({o["node"] for o in outlets})
    line = [{"start": a, "end": b, "length_m": 1.5} for a, b in zip(["pump", *nodes], nodes, strict=False)]
    return RoomAirQuestion(
        pumps=pumps or [{"key": "p", "name": "Pump", "l_min": 20, "kpa": 25}],
        mains=line if mains is None else mains,
        outlets=list(outlets),
    )


def air(question: RoomAirQuestion) -> np.ndarray:
    return np.array([o.air_l_min for o in room_air(question).outlets])


def test_one_outlet_at_the_pump_is_what_its_two_straight_lines_say() -> None:
    # A wide valve and a short line cost next to nothing: the pump stands at the depth and the check valve.
    one = outlet("1", node="pump", line_bore_mm=20, line_length_m=0.05)
    answer = room_air(room(one, mains=[]))
    kpa = answer.outlets[0].node_kpa
    assert answer.outlets[0].air_l_min == pytest.approx(20 * (1 - kpa / 25), rel=1e-6)
    valve = 250 * (answer.outlets[0].air_l_min / 2) ** 2
    assert kpa * 1000 == pytest.approx(998.2 * 9.80665 * 0.3 + 1000 + valve, rel=0.01)


@settings(max_examples=40, deadline=None)
@given(
    depths=st.lists(st.floats(10, 60), min_size=2, max_size=8),
    rate=st.floats(3, 40),
    grows=st.floats(1.01, 3),
)
def test_a_stronger_pump_never_gives_any_outlet_less(depths: list[float], rate: float, grows: float) -> None:
    some = [outlet(str(i), f"n{i}", depth_cm=d) for i, d in enumerate(depths)]

    def of(flow: float) -> np.ndarray:
        return air(room(*some, pumps=[{"key": "p", "name": "P", "l_min": flow, "kpa": 25}]))

    assert (of(rate * grows) >= of(rate) - 1e-5).all()


def test_the_openings_it_names_give_every_outlet_the_same_share() -> None:
    some = [outlet(str(i), f"n{i}", depth_cm=20 + 8 * i, wanted_l_min=0.5 + 0.4 * i) for i in range(5)]
    before = room_air(room(*some, pumps=[{"key": "p", "name": "P", "l_min": 9, "kpa": 18}]))
    assert not before.carries
    opened = [s | {"open_share": o.balanced_open_share} for s, o in zip(some, before.outlets, strict=True)]
    after = room_air(room(*opened, pumps=[{"key": "p", "name": "P", "l_min": 9, "kpa": 18}]))
    shares = [o.got_share for o in after.outlets]
    assert max(o.got_share for o in before.outlets) > 1.5 * min(o.got_share for o in before.outlets)
    assert shares == pytest.approx([before.fair_share] * 5, rel=0.01)


def test_enough_pump_with_the_valves_as_named_and_the_rest_let_off_gives_what_is_wanted() -> None:
    some = [outlet(str(i), f"n{i}", depth_cm=20 + 5 * i) for i in range(4)]
    answer = room_air(room(*some))
    assert answer.carries
    assert answer.bleed_l_min > 0
    opened = [s | {"open_share": o.balanced_open_share} for s, o in zip(some, answer.outlets, strict=True)]
    assert air(room(*opened)) == pytest.approx(np.ones(4), rel=0.35)


def test_one_more_takes_from_the_rest_and_what_it_says_is_carried_is_carried() -> None:
    some = [outlet(str(i), f"n{i}") for i in range(6)]
    pump = [{"key": "p", "name": "P", "l_min": 12, "kpa": 20}]
    answer = room_air(room(*some, pumps=pump))
    assert answer.one_more_share < min(o.got_share for o in answer.outlets)
    assert 0 < answer.more_count < 200
    more = [outlet(f"m{i}", "n5") for i in range(answer.more_count)]
    assert room_air(room(*some, *more, pumps=pump)).carries
    assert not room_air(room(*some, *more, outlet("over", "n5"), pumps=pump)).carries


def test_a_second_pump_keeps_something_going_when_the_first_fails() -> None:
    some = [outlet(str(i), f"n{i}") for i in range(4)]
    two = [{"key": k, "name": k, "node": n, "l_min": 10, "kpa": 22} for k, n in (("a", "pump"), ("b", "n3"))]
    both, one = room_air(room(*some, pumps=two)), room_air(room(*some, pumps=two[:1]))
    assert one.pumps[0].without_share == 0
    assert one.remedies[-1].startswith("One pump feeds all")
    # Without the second the least keeps what it has on the first alone.
    alone = min(o.got_share for o in one.outlets)
    assert both.pumps[1].without_share == pytest.approx(alone, rel=1e-3)


def test_an_outlet_that_should_bubble_and_does_not_is_named_blocked() -> None:
    some = [outlet("1", "a"), outlet("2", "b", seen="none"), outlet("3", "c")]
    answer = room_air(room(*some))
    assert [o.key for o in answer.outlets if o.blocked] == ["2"]
    assert "Tank 2" in answer.verdict
    weak = room_air(room(*some, pumps=[{"key": "p", "name": "P", "l_min": 0.5, "kpa": 6}]))
    assert not any(o.blocked for o in weak.outlets)


def test_a_shut_valve_gives_nothing_and_leaves_its_air_to_the_others() -> None:
    some = [outlet("1", "a"), outlet("2", "b")]
    whole, less = air(room(*some)), air(room(some[0], some[1] | {"open_share": 0}))
    assert less[1] == 0
    assert less[0] > whole[0]


@pytest.mark.parametrize(
    ("known", "words"),
    [({"watts": 10}, "by its 10 W"), ({"outlets_count": 20}, "by the 20 outlets")],
    ids=["watts", "outlets"],
)
def test_a_pump_known_by_little_is_estimated_and_says_so(known: dict, words: str) -> None:
    answer = room_air(room(outlet("1"), pumps=[{"key": "p", "name": "Pump", **known}]))
    assert any(words in a for a in answer.assumed)
    assert answer.outlets[0].air_l_min > 0


@pytest.mark.parametrize(
    ("question", "where", "words"),
    [
        (room(outlet("1", "a"), mains=[]), "outlets", "hangs on no pump"),
        (
            room(
                outlet("1"),
                mains=[{"start": "pump", "end": "a", "length_m": 1}, {"start": "x", "end": "y", "length_m": 1}],
            ),
            "mains",
            "hangs on no pump",
        ),
        (room(outlet("1"), outlet("1")), "outlets", "share the key"),
        (room(outlet("1"), pumps=[{"key": "p", "name": "P"}]), "pumps.p", "nothing is known"),
    ],
    ids=["an outlet nowhere", "a piece nowhere", "a key twice", "a pump of which nothing is known"],
)
def test_a_room_that_does_not_hang_together_is_refused_with_the_remedy(question, where: str, words: str) -> None:
    with pytest.raises(CannotAnswer, match=words) as caught:
        room_air(question)
    assert caught.value.where == where
    assert caught.value.remedy


def test_ten_times_the_watts_are_ten_decibels_more_and_two_alike_three() -> None:
    def noise(*watts: float) -> float:
        pumps = [{"key": f"p{i}", "name": "P", "node": f"p{i}", "watts": w} for i, w in enumerate(watts)]
        mains = [{"start": p["node"], "end": "a", "length_m": 1} for p in pumps]
        outlets = [{"key": "1", "name": "One", "node": "a", "depth_cm": 30, "wanted_l_min": 1}]
        return room_air(RoomAirQuestion.model_validate({"pumps": pumps, "mains": mains, "outlets": outlets})).noise_db

    assert noise(40) - noise(4) == pytest.approx(10)
    assert noise(10, 10) - noise(10) == pytest.approx(3.01, abs=0.01)
