"""The picture of a tank in a mail."""

import io

import numpy as np
import pytest
from PIL import Image

from reedmace.core.quantity import formatting
from reedmace.notices.letter import Letter, TankPart
from reedmace.notices.links import Links
from reedmace.notices.message import MOST_PICTURES, letter_message
from reedmace.notices.picture import (
    ALARM,
    ANIMALS,
    HEIGHT,
    WATER,
    WIDTH,
    DrawnAnimals,
    DrawnFilter,
    Outline,
    draw,
    outline_of,
)
from tests.support.lives import lived, tank

TANK = Outline(60, 36, 33, 4)


def share_of(outline: Outline, colour: str) -> float:
    """Share of the picture in a colour, give or take what shading makes of it."""
    picture = Image.open(io.BytesIO(draw(outline))).convert("RGB")
    assert picture.size == (WIDTH, HEIGHT)
    wanted = [int(colour[n : n + 2], 16) for n in (1, 3, 5)]
    return float(np.mean(np.all(np.abs(np.asarray(picture, dtype=int) - wanted) < 12, axis=2)))


def test_water_is_drawn_to_scale() -> None:
    full, half = share_of(TANK, WATER), share_of(Outline(60, 36, 18.5, 4), WATER)
    assert full > 0.2
    assert half == pytest.approx(full / 2, rel=0.08)


def test_what_presses_shows_at_the_water_line() -> None:
    assert share_of(TANK, ALARM) == 0
    assert share_of(Outline(60, 36, 33, 4, urgent=True), ALARM) > 0.001


@pytest.mark.parametrize("place", ["water", "rim", "below"])
def test_every_place_of_a_filter_changes_the_picture_and_is_named(place) -> None:
    outline = Outline(60, 36, 33, 4, (DrawnFilter("Sponge", place, 0.3, bubbles=True),))
    assert draw(outline) != draw(TANK)
    assert outline.in_words("Landing") == "Landing from front and side: sponge"


def test_animals_are_drawn_at_their_length_and_counted() -> None:
    few, many, long = (
        Outline(60, 36, 33, 4, animals=(DrawnAnimals(length, count, "middle"),))
        for length, count in ((8, 3), (8, 6), (16, 3))
    )
    inked = [share_of(one, ANIMALS[0]) for one in (few, many, long)]
    assert inked[1] == pytest.approx(2 * inked[0], rel=0.25)
    assert inked[2] == pytest.approx(4 * inked[0], rel=0.25)
    assert many.in_words("Landing") == "Landing from front and side: no filter yet, 6 animals"


def test_a_tanks_own_sizes_stand_and_animals_are_in_it() -> None:
    outline = outline_of(lived(*tank(30)), urgent=False)
    assert (outline.length_cm, outline.width_cm, outline.height_cm) == (80, 35, 40)
    assert outline.sizes == ("80 cm", "35 cm", "40 cm")
    assert [(group.count, group.swims) for group in outline.animals] == [(8, "top")]
    with formatting.in_units(formatting.Units(length="in")):
        assert outline_of(lived(*tank(30)), urgent=False).sizes[0] == "31.5 in"


@pytest.mark.parametrize("size", [(5, 300), (1000, 5)])
def test_odd_tanks_are_drawn_as_well(size: tuple[float, float]) -> None:
    odd = Outline(size[0], size[1], 0, 60, tuple(DrawnFilter("Sponge", "below", 0, bubbles=False) for _ in range(9)))
    assert draw(odd)


def test_a_mail_carries_the_pictures_it_names_and_its_words_stand_without_them() -> None:
    parts = [TankPart(n, f"Tank {n}", "cycle", "Test tonight.", urgent=False, outline=TANK) for n in range(8)]
    parts[1] = TankPart(1, "Unmeasured", "tank", "Measure it.", urgent=False)
    message = letter_message(Letter("Today", "What is due", parts), 7, Links("secret", "https://reedmace.example"))
    pictures = {str(part["Content-ID"]) for part in message.walk() if part.get_content_type() == "image/png"}
    html = message.get_body(("html",)).get_content()
    assert len(pictures) == MOST_PICTURES
    assert all(f'src="cid:{name.strip("<>")}"' in html for name in pictures)
    assert html.count("<img") == MOST_PICTURES
    assert "TANK 7" in message.get_body(("plain",)).get_content()
    assert 'alt="Tank 0 from front and side: no filter yet"' in html
