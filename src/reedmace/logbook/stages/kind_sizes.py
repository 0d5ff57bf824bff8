"""Kinds and sizes of filter on a tank, kept while other things are tried."""

from collections.abc import Sequence
from functools import lru_cache

from reedmace.core.filter import RankFiltersQuestion, TypeAndSizeAnswer, type_and_size
from reedmace.core.filter.learned import LearnedRelation
from reedmace.core.quantity import formatting
from reedmace.logbook.replay.rank_question import rank_question
from reedmace.logbook.replay.state import LogbookState


@lru_cache(maxsize=64)
def _types(question: str, _units: formatting.Units) -> TypeAndSizeAnswer:
    """Kinds and sizes for a question. question: as JSON; _units: of its words."""
    return type_and_size(RankFiltersQuestion.model_validate_json(question))


def types_for(question: RankFiltersQuestion, learned: Sequence[LearnedRelation] = ()) -> TypeAndSizeAnswer:
    """Kinds and sizes for a tank, whatever boxes there are. question: the tank's; learned: relations moved here."""
    bare = question.model_copy(update={"own_filters": [], "installed": [], "running_ids": [], "learned": list(learned)})
    return _types(bare.model_dump_json(), formatting.chosen())


def ask_for_kind(state: LogbookState, kind: str, learned: Sequence[LearnedRelation] = ()) -> str:
    """What a shop is asked for, for one kind on this tank.

    state: the tank's; kind: its name; learned: relations moved here.
    """
    rows = types_for(rank_question(state), learned).kinds
    return next(row.ask_for.rstrip(".") for row in rows if row.kind == kind)
