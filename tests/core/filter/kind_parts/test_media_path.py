"""Every way through the media has its words."""

from typing import get_args

from reedmace.core.filter.kind_parts.media_path import COARSE_PLACE, PATH_WORDS, MediaPath


def test_no_path_is_without_words_or_a_place_for_the_coarse_foam() -> None:
    paths = set(get_args(MediaPath))
    assert set(PATH_WORDS) == set(COARSE_PLACE) == paths
    assert len(set(PATH_WORDS.values())) == len(paths)
