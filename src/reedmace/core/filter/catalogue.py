"""The invented catalogue of filters, read once from the table beside this file."""

import json
from importlib import resources

from reedmace.core.filter import kinds  # noqa: F401 - a row is checked against its kind
from reedmace.core.filter.filter_box import Filter


def _read() -> tuple[Filter, ...]:
    text = resources.files(__package__).joinpath("catalogue.json").read_text(encoding="utf-8")
    return tuple(Filter(**row) for row in json.loads(text))


CATALOGUE: tuple[Filter, ...] = _read()
