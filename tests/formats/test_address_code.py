"""Codes of addresses, read back by another library as a camera would."""

import re

import pytest
import zxingcpp
from PIL import Image, ImageDraw

from reedmace.formats.address_code import BORDER, AddressCode, address_code


def picture(code: AddressCode, cell: int = 6) -> Image.Image:
    """The code drawn by its path, black on white."""
    image = Image.new("L", (code.side * cell, code.side * cell), 255)
    draw = ImageDraw.Draw(image)
    for x, y, wide in (map(int, found) for found in re.findall(r"M(\d+) (\d+)h(\d+)v1h-\d+z", code.path)):
        draw.rectangle((x * cell, y * cell, (x + wide) * cell - 1, (y + 1) * cell - 1), fill=0)
    return image


@pytest.mark.parametrize(
    "address",
    ["http://192.168.1.20:8420/tanks/7/cycle", f"https://{'reed.' * 30}example/tanks/9007199254740992/cycle", "ü"],
)
def test_a_camera_reads_the_address_back_upright_turned_and_stained(address) -> None:
    code = address_code(address)
    image = picture(code)
    stained = image.copy()
    middle = stained.width // 2
    ImageDraw.Draw(stained).ellipse((middle - 14, middle - 14, middle + 14, middle + 14), fill=255)
    for seen in (image, image.rotate(90), stained):
        (found,) = zxingcpp.read_barcodes(seen)
        assert found.text == address


def test_the_border_is_light_all_round() -> None:
    code = address_code("http://reed.example/tanks/1/cycle")
    places = [(int(x), int(y), int(w)) for x, y, w in re.findall(r"M(\d+) (\d+)h(\d+)", code.path)]
    assert min(x for x, _, _ in places) == min(y for _, y, _ in places) == BORDER
    assert max(x + w for x, _, w in places) == max(y + 1 for _, y, _ in places) == code.side - BORDER
