"""What is said of a room's air."""

import pytest

from reedmace.core.air.room_air_words import OutletAir, PumpAir, air_notes, air_verdict


def outlet(name: str, got: float, *, blocked: bool = False) -> OutletAir:
    return OutletAir(
        key=name, name=name, air_l_min=got, wanted_l_min=1, got_share=got, water_lph=None, node_kpa=5,
        balanced_open_share=1, blocked=blocked,
    )  # fmt: skip


def pump(name: str, l_min: float = 4, without: float = 0.5) -> PumpAir:
    return PumpAir(key=name, name=name, l_min=l_min, kpa=8, without_share=without, noise_db=35)


def verdict(*outlets: OutletAir, carries: bool = True, fair: float = 1.0) -> str:
    return air_verdict(list(outlets), [pump("Pump")], carries, fair, 3)


def test_a_blocked_stone_is_named_before_anything_else() -> None:
    said = verdict(outlet("Left", 0.1, blocked=True), outlet("Right", 0.2), carries=False, fair=0.3)
    assert said.startswith("Left: a blocked stone or line")


def test_enough_for_all_says_how_much_and_how_many_more() -> None:
    said = verdict(outlet("A", 1), outlet("B", 1.2))
    assert said == "All 2 outlets get their air, 4.0 L/min in all; 3 more would too."
    assert verdict(outlet("A", 1)).startswith("The one outlet gets its air")


@pytest.mark.parametrize(
    ("names", "words"),
    [("A", "A gets too little"), ("AB", "A and B get too little"), ("ABC", "A, B and C get too little"),
     ("ABCD", "4 outlets get too little")],
)  # fmt: skip
def test_where_the_valves_alone_are_wrong_the_short_ones_are_named(names: str, words: str) -> None:
    said = verdict(*(outlet(name, 0.4) for name in names), outlet("Z", 2))
    assert said.startswith(words)
    assert "set the valves" in said


def test_too_little_air_says_what_each_would_get() -> None:
    said = verdict(outlet("A", 0.5), outlet("B", 0.5), carries=False, fair=0.55)
    assert said == "Too little air for 2 outlets: with the valves balanced each gets 55% of what it wants."


def test_notes_tell_a_bleed_and_a_second_pump_only_where_there_is_one() -> None:
    alone = air_notes([pump("One")], 35, 0.8, 0.0)
    assert [n for n in alone if "bleed" in n.lower() or "fails" in n] == []
    both = air_notes([pump("One"), pump("Two", without=0.6)], 38, 0.8, 1.5)
    assert any("1.5 L/min off" in n for n in both)
    assert "If Two fails, every outlet keeps at least 60% of its air." in both
