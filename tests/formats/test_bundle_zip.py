"""A tank's bundle with its photographs as a zip, and what somebody else calls one."""

import io
import json
import zipfile

import pytest

from reedmace.core.errors import CannotAnswer
from reedmace.formats.bundle_zip import INDEX, MOST_PHOTO_BYTES, BundledPhoto, BundleZip, write_bundle_zip
from tests.support.fitting import NOW

PHOTOS = [(BundledPhoto(key=f"photo-{n:04d}", at=NOW, words=f"Day {n}"), bytes([n]) * 50) for n in range(3)]


def zipped(**members: bytes | str) -> io.BytesIO:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as packed:
        for name, content in members.items():
            packed.writestr(name.replace("__", "/").replace("_json", ".json").replace("_jpg", ".jpg"), content)
    out.seek(0)
    return out


def test_what_was_written_comes_back() -> None:
    out = io.BytesIO()
    write_bundle_zip(out, ["{", '"a": 1}'], PHOTOS)
    found = BundleZip(out)
    assert json.loads(found.bundle_text()) == {"a": 1}
    assert list(found.images()) == PHOTOS


@pytest.mark.parametrize(
    ("sent", "where"),
    [
        (io.BytesIO(b"no zip at all"), "zip"),
        (zipped(bundle_json="{}"), INDEX),
        (zipped(photos_json="[1]"), INDEX),
        (zipped(photos_json=json.dumps([PHOTOS[0][0].model_dump(mode="json")] * 2)), INDEX),
    ],
    ids=["no zip", "no index", "another index", "twice"],
)
def test_what_is_no_such_zip_is_refused_with_a_remedy(sent: io.BytesIO, where: str) -> None:
    with pytest.raises(CannotAnswer) as refused:
        BundleZip(sent)
    assert refused.value.where == where
    assert "Send a file as Reedmace writes it" in refused.value.remedy


def test_what_is_missing_cut_off_or_far_too_large_is_refused_as_it_is_read() -> None:
    with pytest.raises(CannotAnswer, match="missing"):
        BundleZip(zipped(photos_json="[]")).bundle_text()
    index = json.dumps([PHOTOS[0][0].model_dump(mode="json")])
    bomb = BundleZip(zipped(photos_json=index, **{"photos__photo-0000_jpg": bytes(MOST_PHOTO_BYTES + 1)}))
    with pytest.raises(CannotAnswer, match="is over 2 MB"):
        list(bomb.images())
    whole = zipped(photos_json=index, bundle_json="{}", **{"photos__photo-0000_jpg": bytes(range(250)) * 40}).getvalue()
    at = whole.index(b"photos/photo-0000.jpg") + 40
    spoilt = io.BytesIO(whole[:at] + b"\0" * 8 + whole[at + 8 :])
    with pytest.raises(CannotAnswer, match="cannot be unpacked"):
        list(BundleZip(spoilt).images())
