"""Photographs are drawn anew: upright, small, without tags; what is no picture says what it is."""

import io

import numpy as np
import pytest
from PIL import Image, ImageDraw

from reedmace.core.errors import CannotAnswer
from reedmace.formats.photo import KEPT_BYTES, KEPT_SIDE, LARGEST, THUMB_SIDE, clean_photo

ORIENTATION, MAKE, GPS = 0x0112, 0x010F, 0x8825


def saved(picture: Image.Image, kind: str = "JPEG", **more: object) -> bytes:
    out = io.BytesIO()
    picture.save(out, kind, **more)
    return out.getvalue()


def landscape(width: int = 400, height: int = 300) -> Image.Image:
    picture = Image.new("RGB", (width, height), "navy")
    ImageDraw.Draw(picture).rectangle((0, 0, width // 4, height // 4), fill="red")
    return picture


def opened(image: bytes) -> Image.Image:
    return Image.open(io.BytesIO(image))


def test_place_and_every_other_tag_is_gone_and_it_stands_upright() -> None:
    exif = Image.Exif()
    exif[ORIENTATION], exif[MAKE] = 6, "A maker"
    exif.get_ifd(GPS)[2] = (51.0, 30.0, 0.0)
    sent = saved(landscape(), exif=exif)
    assert b"A maker" in sent
    kept = clean_photo(sent)
    picture = opened(kept.image)
    assert picture.size == (kept.width, kept.height) == (300, 400)
    assert dict(picture.getexif()) == {}
    assert b"A maker" not in kept.image
    # Turned a quarter to the right, its red corner is at the top right.
    red, _, blue = np.asarray(picture.convert("RGB"))[20, 280]
    assert red > 150 > blue


@pytest.mark.parametrize("size", [(4000, 3000), (3000, 4000), (1601, 200)])
def test_a_large_one_is_made_small(size: tuple[int, int]) -> None:
    kept = clean_photo(saved(landscape(*size)))
    assert max(opened(kept.image).size) == KEPT_SIDE
    assert max(opened(kept.thumb).size) == THUMB_SIDE
    assert len(kept.image) <= KEPT_BYTES


def test_what_does_not_press_well_is_kept_within_the_size_all_the_same() -> None:
    noise = Image.effect_noise((1600, 1600), 120).convert("RGB")
    assert len(clean_photo(saved(noise, quality=95)).image) <= KEPT_BYTES


@pytest.mark.parametrize("kind", ["PNG", "WEBP", "GIF", "BMP", "TIFF"])
def test_other_formats_come_out_as_jpeg(kind: str) -> None:
    assert opened(clean_photo(saved(landscape(), kind)).image).format == "JPEG"


def test_what_is_transparent_stands_on_white() -> None:
    clear = Image.new("RGBA", (50, 50), (0, 0, 0, 0))
    assert opened(clean_photo(saved(clear, "PNG")).image).getpixel((25, 25)) == (255, 255, 255)


def test_small_ones_are_not_blown_up() -> None:
    assert opened(clean_photo(saved(landscape(40, 30))).image).size == (40, 30)


@pytest.mark.parametrize(
    ("sent", "what"),
    [
        (b"", "no picture"),
        (b"Dear neighbour, the fish are well.", "no picture"),
        (b"<svg xmlns='http://www.w3.org/2000/svg'><script>alert(1)</script></svg>", "no picture"),
        (b"\x00\x00\x00\x18ftypheic\x00\x00\x00\x00", "HEIC"),
        (b"x" * (LARGEST + 1), "over 20 MB"),
        (saved(landscape())[:2000], "cut off"),
        (saved(landscape(), "PNG")[:300], "cut off"),
        (saved(Image.new("1", (30_000, 20)), "PNG"), "30,000 by 20"),
    ],
    ids=["empty", "text", "svg", "heic", "too many bytes", "cut jpeg", "cut png", "too wide"],
)
def test_what_is_no_picture_is_refused_with_its_reason_and_remedy(sent: bytes, what: str) -> None:
    with pytest.raises(CannotAnswer) as refused:
        clean_photo(sent)
    assert what in refused.value.what
    assert refused.value.remedy


def test_a_bomb_is_refused_before_it_is_unpacked() -> None:
    bomb = saved(Image.new("1", (15_000, 15_000)), "PNG")
    assert len(bomb) < 100_000
    with pytest.raises(CannotAnswer, match="pixels"):
        clean_photo(bomb)
