"""Whole photographs of three vials, drawn and touched as on the page, and read by the computation."""

import base64
from typing import Any

import numpy as np
from playwright.sync_api import Page

from reedmace.core.computations import compute
from tests.support.bounds import bounded
from tests.support.vials import CARDS, whole_picture

PICTURES = bounded(667, 16)
PATCHES = """async ([picture, places]) => {
    const canvas = document.createElement("canvas");
    const blob = await (await fetch(`data:image/jpeg;base64,${picture}`)).blob();
    await modules.cardTouches.draw(blob, canvas);
    return places.map(([x, y]) => modules.cardTouches.pixelsAt(canvas, x, y));
}"""


def test_three_vials_of_a_photograph_are_read_to_the_right_step_or_its_neighbour(bare: Page) -> None:
    right = near = held = surely_zero = again = 0
    for seed in range(PICTURES):
        jpeg, vials = whole_picture(seed)
        places = [place for one in vials for place in (one.white, one.vial, one.beside, *one.steps)]
        patches: list[Any] = bare.evaluate(PATCHES, [base64.b64encode(jpeg).decode(), places])
        for one in vials:
            figures = CARDS[one.card][0]
            white, vial, beside, *card = (patches.pop(0) for _ in range(3 + len(figures)))
            steps = [{"figure_on_card": f, "pixels": p} for f, p in zip(figures, card, strict=True)]
            answer = compute("vial-reading", {"white": white, "vial": vial, "steps": steps})
            if "like no step" in answer.verdict:
                # It says that it cannot tell; then a keeper touches beside the light.
                assert not answer.zero
                again += 1
                answer = compute("vial-reading", {"white": white, "vial": beside, "steps": steps})
            step = round(float(np.interp(answer.figure_on_card, figures, range(len(figures)))))
            right += step == round(one.place)
            near += abs(step - round(one.place)) <= 1
            held += answer.low_on_card <= one.figure <= answer.high_on_card
            surely_zero += figures[0] == 0 and answer.zero and one.place >= 1
    count = 3 * PICTURES
    assert near / count >= 0.99
    assert right / count >= 0.85
    assert held / count >= 0.9
    assert surely_zero == 0
    assert again / count < 0.1
