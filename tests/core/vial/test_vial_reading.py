"""Vials read beside their card on simulated pictures: right, and never surely zero where there is poison."""

from typing import Any

import numpy as np
import pytest
from pydantic import ValidationError

from reedmace.core.computations import compute
from tests.support.bounds import bounded
from tests.support.vials import CARDS, nearest_without_card, picture

PICTURES = bounded(2000, 250)


def flat(r: int, g: int, b: int, count: int = 9) -> list[dict[str, int]]:
    return [{"r": r, "g": g, "b": b}] * count


CARD: list[dict[str, Any]] = [
    {"figure_on_card": 0, "pixels": flat(232, 214, 90)},
    {"figure_on_card": 0.5, "pixels": flat(170, 190, 90)},
    {"figure_on_card": 1, "pixels": flat(110, 165, 95)},
    {"figure_on_card": 2, "pixels": flat(60, 130, 85)},
]
WHITE = flat(240, 240, 236)


def read(vial: list[dict[str, int]], **more: object):
    return compute("vial-reading", {"white": WHITE, "steps": CARD, "vial": vial, **more})


def test_simulated_pictures_are_read_to_the_right_step_or_its_neighbour() -> None:
    right = near = held = surely_zero = by_colour_alone = 0
    for seed in range(PICTURES):
        made = picture(seed)
        answer = compute("vial-reading", made.question)
        figures = CARDS[made.card][0]
        step = round(float(np.interp(answer.figure_on_card, figures, range(len(figures)))))
        right += step == round(made.place)
        near += abs(step - round(made.place)) <= 1
        held += answer.low_on_card <= made.figure <= answer.high_on_card
        by_colour_alone += nearest_without_card(made) == round(made.place)
        surely_zero += figures[0] == 0 and answer.zero and made.place >= 1
    assert near / PICTURES >= 0.99
    assert right / PICTURES >= 0.85
    assert held / PICTURES >= 0.9
    assert surely_zero == 0
    assert by_colour_alone < 0.6 * right


def test_a_step_itself_is_read_as_its_figure() -> None:
    for step in CARD:
        answer = read(step["pixels"])
        assert answer.figure_on_card == pytest.approx(step["figure_on_card"], abs=0.03)
        assert answer.nearest_on_card == step["figure_on_card"]
        assert answer.low_on_card <= step["figure_on_card"] <= answer.high_on_card


def test_between_two_steps_it_lies_between_their_figures() -> None:
    answer = read(flat(140, 178, 92))
    assert 0.5 < answer.figure_on_card < 1
    assert answer.sure
    assert "between" in answer.verdict


def test_a_zero_is_one_only_where_all_of_its_range_is() -> None:
    assert read(CARD[0]["pixels"]).zero
    assert not read(flat(205, 204, 90)).zero


def test_what_may_be_poison_is_never_logged_as_nothing() -> None:
    doubtful = read(CARD[0]["pixels"], white=flat(60, 58, 55))
    assert not doubtful.zero
    assert float(doubtful.to_log.split("-")[-1]) > 0
    assert read(CARD[0]["pixels"]).to_log == "0"


def test_what_it_gives_to_the_test_line_is_its_range_and_the_last_step_is_open() -> None:
    between = read(flat(140, 178, 92))
    found = compute("read-test-line", {"text": f"a {between.to_log}"}).between[0]
    assert found.low_ppm == pytest.approx(between.low_on_card, rel=0.06)
    assert found.high_ppm == pytest.approx(between.high_on_card, rel=0.06)
    assert read(CARD[-1]["pixels"]).to_log == "2+"


@pytest.mark.parametrize("top", [1, 10, 160])
def test_round_figures_are_logged_as_they_are(top: float) -> None:
    steps = [{**s, "figure_on_card": s["figure_on_card"] / 2 * top} for s in CARD]
    for step in steps[1:]:
        answer = compute("vial-reading", {"white": WHITE, "vial": step["pixels"], "steps": steps})
        line = compute("read-test-line", {"text": f"a {answer.to_log}" if top < 100 else f"no3 {answer.to_log}"})
        read_as = line.nitrate_ppm if line.ammonia_ppm is None else line.ammonia_ppm
        assert read_as == pytest.approx(step["figure_on_card"], rel=0.12)


def test_another_lamp_changes_nothing_while_the_card_stands_in_it() -> None:
    def lit(pixels: list[dict[str, int]]) -> list[dict[str, int]]:
        return [{"r": p["r"], "g": round(p["g"] * 0.85), "b": round(p["b"] * 0.6)} for p in pixels]

    steps = [{"figure_on_card": s["figure_on_card"], "pixels": lit(s["pixels"])} for s in CARD]
    plain = read(flat(140, 178, 92))
    warm = compute("vial-reading", {"white": lit(WHITE), "vial": lit(flat(140, 178, 92)), "steps": steps})
    assert warm.figure_on_card == pytest.approx(plain.figure_on_card, abs=0.1)


@pytest.mark.parametrize(
    ("more", "says"),
    [
        ({"white": flat(255, 255, 255)}, "burnt out"),
        ({"white": flat(60, 58, 55)}, "too dark"),
        ({"vial": flat(40, 40, 200)}, "like no step"),
        ({"vial": flat(140, 178, 92, 6) + flat(250, 250, 250, 4)}, "Glare or shadow lies on the vial"),
        ({"steps": [CARD[0], {"figure_on_card": 0.2, "pixels": flat(231, 213, 90)}, *CARD[1:]]}, "look alike"),
    ],
    ids=["burnt out", "dark", "another colour", "glare", "steps alike"],
)
def test_what_cannot_be_told_is_said_and_nothing_is_called_sure(more: dict, says: str) -> None:
    answer = compute("vial-reading", {"white": WHITE, "vial": flat(140, 178, 92), "steps": CARD, **more})
    assert says in " ".join(answer.doubts)
    assert not answer.sure
    assert not answer.zero


def test_figures_that_do_not_rise_are_refused() -> None:
    with pytest.raises(ValidationError, match="above the one before"):
        read(flat(1, 2, 3), steps=[CARD[1], CARD[0], CARD[2]])
