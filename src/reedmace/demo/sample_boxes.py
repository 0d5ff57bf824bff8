"""The demo keeper's shelf: invented boxes of all kinds and sizes, also used by tests and by the bench."""

import json
from importlib import resources

from reedmace.core.filter import Filter


def _read() -> tuple[Filter, ...]:
    text = resources.files(__package__).joinpath("sample_boxes.json").read_text(encoding="utf-8")
    return tuple(Filter(**row) for row in json.loads(text))


SAMPLE_BOXES: tuple[Filter, ...] = _read()
