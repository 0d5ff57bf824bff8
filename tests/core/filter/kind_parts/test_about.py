"""The page of each kind."""

import pytest

from reedmace.core.filter.kinds import KINDS


@pytest.mark.parametrize("kind", KINDS, ids=lambda kind: kind.name)
def test_a_page_says_all_it_is_read_for(kind) -> None:
    page = kind.about
    assert all(getattr(page, part) for part in ("how", "good", "poor", "picked_for", "argued", "cleaning", "costs"))
    assert page.in_box


@pytest.mark.parametrize("kind", KINDS, ids=lambda kind: kind.name)
def test_other_words_are_lower_case_and_the_longest_is_tried_first(kind) -> None:
    called = kind.about.called
    assert [word.lower() for word in called] == list(called)
    # A shorter word inside a longer one may not be found before it.
    assert not [(a, b) for i, a in enumerate(called) for b in called[i + 1 :] if a in b]


def test_no_word_names_two_kinds() -> None:
    words = [word for kind in KINDS for word in kind.about.called]
    assert len(words) == len(set(words))
