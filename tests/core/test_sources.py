"""Every source has a provenance, and those published can be found."""

import re
from typing import get_args

from reedmace.core.sources import SOURCES, Provenance


def test_keys_are_their_own_and_provenances_known() -> None:
    assert all(key == source.key for key, source in SOURCES.items())
    assert {source.provenance for source in SOURCES.values()} == set(get_args(Provenance))


def test_what_is_published_names_its_year() -> None:
    for source in SOURCES.values():
        if source.provenance == "published":
            assert re.search(r"(19|20)\d\d", f"{source.key} {source.title}"), source.key
