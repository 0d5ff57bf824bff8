"""Photographs as they are kept: decoded and drawn anew, so that nothing but the picture of what was sent remains."""

import hashlib
import io

from PIL import Image, ImageOps, UnidentifiedImageError

from reedmace.core.errors import CannotAnswer
from reedmace.logbook.photo import Photo

LARGEST = 20_000_000
"""Bytes of a photograph as it is sent."""
MOST_PIXELS, LONGEST_SIDE = 60_000_000, 16_000
"""Of a photograph as it is sent: what a phone takes, far below what exhausts a server's memory."""
KEPT_SIDE, KEPT_BYTES = 1600, 400_000
"""Longer side in pixels and size in bytes of a photograph as it is kept."""
THUMB_SIDE = 320
QUALITIES = (85, 75, 65, 55, 45, 35, 25)
"""JPEG qualities tried in turn until the size fits."""
READ = ("JPEG", "PNG", "WEBP", "GIF", "BMP", "TIFF")
_HEIC = (b"heic", b"heix", b"hevc", b"mif1", b"msf1", b"avif")
_LARGE = f"At most {MOST_PIXELS // 1_000_000} megapixels and {LONGEST_SIDE:,} pixels a side."
_REMEDY = "Send a JPEG, PNG or WebP, as phones and browsers make them."


def clean_photo(sent: bytes) -> Photo:
    """The photograph in what was sent. Raises CannotAnswer, with a remedy, for anything else."""
    if len(sent) > LARGEST:
        most = f"is over {LARGEST // 1_000_000} MB."
        raise CannotAnswer("photo", most, "Take it smaller, or cut it to what matters.")
    if sent[4:8] == b"ftyp" and sent[8:12] in _HEIC:
        raise CannotAnswer("photo", "is HEIC or AVIF, which is not read here.", _REMEDY)
    try:
        picture = Image.open(io.BytesIO(sent), formats=READ)
        _refuse_large(picture.size)
        # Smaller at once where the format can: a photograph of 48 megapixels is decoded at a quarter of it.
        picture.draft("RGB", (2 * KEPT_SIDE, 2 * KEPT_SIDE))
        upright = ImageOps.exif_transpose(picture)
        kept = _on_white(upright)
    except CannotAnswer:
        raise
    except UnidentifiedImageError:
        raise CannotAnswer("photo", "is no picture.", _REMEDY) from None
    except (Image.DecompressionBombError, Image.DecompressionBombWarning):
        raise CannotAnswer("photo", "has too many pixels.", _LARGE) from None
    except (OSError, ValueError, SyntaxError, EOFError):
        # What libraries of the formats raise for a file that is cut off or made to break them.
        raise CannotAnswer("photo", "is cut off or broken.", "Take or save it again.") from None
    image = b""
    for side in (KEPT_SIDE, KEPT_SIDE // 2, KEPT_SIDE // 4):
        kept.thumbnail((side, side), Image.Resampling.LANCZOS)
        image = _jpeg(kept)
        if len(image) <= KEPT_BYTES:
            break
    small = kept.copy()
    small.thumbnail((THUMB_SIDE, THUMB_SIDE), Image.Resampling.LANCZOS)
    return Photo(image, _jpeg(small), *kept.size, hashlib.sha256(image).hexdigest())


def _refuse_large(size: tuple[int, int]) -> None:
    if max(size) > LONGEST_SIDE or size[0] * size[1] > MOST_PIXELS:
        what = f"measures {size[0]:,} by {size[1]:,} pixels."
        raise CannotAnswer("photo", what, _LARGE)


def _on_white(picture: Image.Image) -> Image.Image:
    """The picture without transparency, palette and tags, in a new image."""
    if picture.mode in ("RGBA", "LA", "PA") or "transparency" in picture.info:
        layer = picture.convert("RGBA")
        ground = Image.new("RGB", layer.size, "white")
        ground.paste(layer, mask=layer.getchannel("A"))
        return ground
    plain = Image.new("RGB", picture.size)
    plain.paste(picture.convert("RGB"))
    return plain


def _jpeg(picture: Image.Image) -> bytes:
    """The picture as JPEG at the best quality that fits, or at the least."""
    out = io.BytesIO()
    for quality in QUALITIES:
        out = io.BytesIO()
        picture.save(out, "JPEG", quality=quality, optimize=True, progressive=True)
        if out.tell() <= KEPT_BYTES:
            break
    return out.getvalue()
