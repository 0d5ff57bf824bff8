"""A fish room's air supply as a network."""

import pytest

from reedmace.core.air.plan import (
    L_MIN,
    L_MIN_PER_OUTLET,
    L_MIN_PER_W,
    LEAST_OPEN,
    NEVER_PA,
    USUAL_KPA,
    RoomAirQuestion,
    RoomOutlet,
    RoomPump,
    is_estimated,
    is_known,
    network_of,
    outlet_line,
    pump_figures,
)
from reedmace.core.errors import CannotAnswer

PUMP = {"key": "p", "name": "Pump", "l_min": 10, "kpa": 20}
OUTLET = {"key": "a", "name": "Left", "node": "pump", "depth_cm": 30, "wanted_l_min": 1}


def room(**changes) -> RoomAirQuestion:
    return RoomAirQuestion.model_validate({"pumps": [PUMP], "outlets": [OUTLET], **changes})


def pump(**known) -> RoomPump:
    return RoomPump.model_validate({"key": "p", "name": "Pump", **known})


@pytest.mark.parametrize(
    ("known", "free", "estimates"),
    [
        ({"l_min": 12, "kpa": 25}, 12, 0),
        ({"l_min": 12}, 12, 1),
        ({"watts": 5}, 5 * L_MIN_PER_W, 2),
        ({"outlets_count": 4}, 4 * L_MIN_PER_OUTLET, 2),
        # Watts tell more than the number of outlets a box speaks of.
        ({"watts": 5, "outlets_count": 40}, 5 * L_MIN_PER_W, 2),
    ],
)
def test_a_pump_is_known_by_what_its_box_says_and_estimates_are_told(known: dict, free: float, estimates: int) -> None:
    assumed: list[str] = []
    found = pump_figures(pump(**known), assumed)
    assert found == pytest.approx((free, known.get("kpa", USUAL_KPA)))
    assert len(assumed) == estimates
    assert is_known(pump(**known))
    assert is_estimated(pump(**known)) == ("l_min" not in known)


def test_a_pump_nothing_is_known_of_is_asked_about_and_never_guessed() -> None:
    assert not is_known(pump())
    with pytest.raises(CannotAnswer, match="nothing is known of this pump") as error:
        pump_figures(pump(), [])
    assert "time a jug" in error.value.remedy


def test_a_deeper_outlet_a_stone_and_a_closing_valve_take_more_pressure() -> None:
    def line(**changes):
        return outlet_line(RoomOutlet.model_validate({**OUTLET, **changes}))

    # 10 cm of water more are 980 Pa more (hydrostatics).
    assert line(depth_cm=40)[0] - line()[0] == pytest.approx(980, rel=0.01)
    assert line(stone=True)[0] > line()[0]
    assert line(open_share=0.5)[3] == pytest.approx(4 * line()[3])
    assert line(open_share=LEAST_OPEN / 2)[0] == NEVER_PA


def test_the_network_has_every_node_once_in_si() -> None:
    mains = [{"start": "pump", "end": "shelf", "bore_mm": 16, "length_m": 2}]
    net, names = network_of(room(mains=mains, outlets=[{**OUTLET, "node": "shelf"}]), [(10, 20)])
    assert names == {"pump": 0, "shelf": 1}
    assert net.nodes == 2
    assert net.ends.tolist() == [[0, 1]]
    assert net.pipes.tolist() == [[0.016, 2]]
    assert net.at.tolist() == [1]
    assert net.pumps[0] == pytest.approx([10 * L_MIN, 20_000])


@pytest.mark.parametrize(
    ("changes", "where", "words"),
    [
        ({"outlets": [OUTLET, OUTLET]}, "outlets", "share the key"),
        ({"outlets": [{**OUTLET, "node": "cellar"}]}, "outlets", "hangs on no pump"),
        ({"mains": [{"start": "a", "end": "b", "length_m": 1}]}, "mains", "hangs on no pump"),
    ],
)
def test_what_does_not_hang_together_is_named(changes: dict, where: str, words: str) -> None:
    with pytest.raises(CannotAnswer, match=words) as error:
        network_of(room(**changes), [(10, 20)])
    assert error.value.where == where
