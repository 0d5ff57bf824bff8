"""Every source has a provenance, and those published can be found."""

from typing import get_args

from reedmace.core.sources import SOURCES, Provenance


def test_keys_are_their_own_and_provenances_known() -> None:
    assert all(key == source.key for key, source in SOURCES.items())
    assert {source.provenance for source in SOURCES.values()} == set(get_args(Provenance))


def test_no_two_sources_are_one_work() -> None:
    titles = [source.title for source in SOURCES.values()]
    assert len(set(titles)) == len(titles)
