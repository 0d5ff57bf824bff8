"""Which filter or set is shown first."""

from typing import Any, cast

from reedmace.core.filter.choice.candidates import Candidate, Pair
from reedmace.core.filter.choice.margins import Margin
from reedmace.core.filter.choice.verdict import LITTLE_SHORT, first_of

WELL = Margin(about="movement", level="enough", share=1.1, words="Well.")


def short(share: float = 0.5, *, slow: bool = False) -> Margin:
    return Margin(about="movement", level="short", share=share, words="Slow.", slow=slow)


class One:
    """A candidate or pair as the choice reads it."""

    def __init__(self, name: str, *margins: Margin, score: float = 0.5, by_film: bool = False) -> None:
        self.filter_id, self.filter_ids = name, [name, name]
        self.margins, self.score, self.enough_by_film = list(margins), score, by_film


def first(singles: list[One], pairs: list[One]) -> list[str]:
    return first_of(cast(list[Candidate], cast(Any, singles)), cast(list[Pair], cast(Any, pairs)))


def test_a_single_without_fault_stands_first_whatever_a_pair_scores() -> None:
    assert first([One("a", WELL)], [One("p", WELL, score=0.9)]) == ["a"]
    assert first([One("a", short(LITTLE_SHORT))], [One("p", WELL, score=0.9)]) == ["a"]
    assert first([One("a", short(slow=True), by_film=True)], [One("p", WELL, score=0.9)]) == ["a"]


def test_where_the_best_single_lacks_something_a_better_pair_without_fault_does() -> None:
    assert first([One("a", short())], [One("p", WELL, score=0.9)]) == ["p", "p"]
    assert first([One("a", short())], [One("p", WELL, score=0.4)]) == ["a"]
    assert first([One("a", short())], [One("p", short(), score=0.9)]) == ["a"]


def test_without_singles_the_best_pair_and_without_anything_nothing() -> None:
    assert first([], [One("p", short())]) == ["p", "p"]
    assert first([], []) == []


def test_straining_alone_is_no_reason_for_two() -> None:
    murky = Margin(about="clarity", level="short", share=0.2, words="Strains little.")
    assert first([One("a", WELL, murky)], [One("p", WELL, score=0.9)]) == ["a"]
