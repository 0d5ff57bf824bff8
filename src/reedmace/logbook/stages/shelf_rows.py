"""The boxes of a shelf on one tank: which do, and a sentence on them all."""

from collections.abc import Sequence
from typing import Annotated, Literal

import numpy as np
from pydantic import Field

from reedmace.core.contract import Part, number
from reedmace.core.filter import RankFiltersQuestion
from reedmace.core.filter.box_label import BoxLabel
from reedmace.core.filter.choice.boxes_here import JudgedBox, boxes_here, judged_box
from reedmace.core.filter.filter_table import table_of
from reedmace.core.filter.kinds import kind_of
from reedmace.core.filter.shelf_box import ShelfItem, boxes_of
from reedmace.core.quantity import formatting

HEARD_APART_DB = 2.0
"""Difference in sound that is told apart (memory)."""
MOST_CLOSELY = 100
"""Boxes of a shelf whose currents are worked out and that are listed; nobody looks at more (a stated judgement)."""


class ShelfRow(Part):
    """One box of a shelf on a tank, as each kind it may be."""

    id: int
    name: str
    answer: Literal["yes", "no", "depends"]
    words: str
    as_kinds: list[JudgedBox]
    price: Annotated[float, number("money", 0, 1e5)] | None
    bought: bool
    seen_where: str


class ShelfVerdict(Part):
    """The shelf on a tank: the boxes that do first."""

    words: str = Field(description="One sentence on all of them; empty for an empty shelf")
    rows: list[ShelfRow] = Field(description="Of a long shelf, those that suit best")


def shelf_on_tank(question: RankFiltersQuestion, shelf: Sequence[ShelfItem]) -> ShelfVerdict:
    """Which boxes of a shelf do on a tank. question: the tank's; shelf: any number."""
    if not shelf:
        return ShelfVerdict(words="", rows=[])
    each = [boxes_of(item) for item in shelf]
    here = boxes_here(question, table_of([f for boxes in each for f in boxes]))
    first_rows = np.cumsum([0, *map(len, each)])
    # What moves water and fits is one pass over all; currents and sentences are worked out box by box.
    points = np.where(here.do(), 1000.0, 0.0) + here.r.scores
    best = np.maximum.reduceat(points, first_rows[:-1])
    closely = sorted(np.argsort(-best, kind="stable")[:MOST_CLOSELY].tolist())
    rows = [_row(shelf[n], [judged_box(here, i) for i in range(first_rows[n], first_rows[n + 1])]) for n in closely]
    order = {"yes": 0, "depends": 1, "no": 2}
    rows.sort(key=lambda row: (order[row.answer], -max(one.score for one in row.as_kinds), row.id))
    return ShelfVerdict(words=_in_a_sentence(rows, len(shelf)), rows=rows)


def _row(item: ShelfItem, judged: list[JudgedBox]) -> ShelfRow:
    able = [one for one in judged if one.does]
    answer: Literal["yes", "no", "depends"] = "yes" if len(able) == len(judged) else "depends" if able else "no"
    return ShelfRow(
        id=item.id,
        name=item.box.label.name,
        answer=answer,
        words=kinds_in_words(judged),
        as_kinds=judged,
        price=item.box.label.price,
        bought=item.box.bought,
        seen_where=item.box.seen_where,
    )


def kinds_in_words(judged: list[JudgedBox]) -> str:
    """The verdict on a box as each kind it may be. judged: one or more."""
    if len(judged) == 1 or len({one.words for one in judged}) == 1:
        return judged[0].words
    if all(one.does for one in judged) or not any(one.does for one in judged):
        return f"Whichever kind it is. As {_a_kind(judged[0])}: {formatting.inside(judged[0].words)}"
    said = [f"as {_a_kind(one)} {'yes' if one.does else f'no, {one.short}'}" for one in judged]
    return f"Which kind is it? {formatting.opening('; '.join(said))}."


def _a_kind(one: JudgedBox) -> str:
    title = formatting.inside(kind_of(one.kind).title)
    return f"an {title}" if title[0] in "aeiou" else f"a {title}"


def _in_a_sentence(rows: list[ShelfRow], count: int) -> str:
    """A sentence on the boxes judged closely. count: of all on the shelf, 1 or more."""
    able = [row for row in rows if row.answer == "yes"]
    asked = sum(row.answer == "depends" for row in rows)
    seen = "The box you have seen" if count == 1 else f"Of the {count:,} boxes you have seen"
    if count > len(rows):
        seen = f"Of the {len(rows)} that suit best among the {count:,} boxes here"
    more = f" {asked} wait{'s' if asked == 1 else ''} for its kind." if asked == 1 else ""
    more = f" {asked} wait for their kind." if asked > 1 else more
    if len(rows) == 1:
        return f"{seen} {'does' if able else 'may do: which kind is it?' if asked else 'does not do here'}.".replace(
            "?.", "?"
        )
    if not able:
        return f"{seen}, none does here.{more}"
    if len(able) == 1:
        return f"{seen}, one does: {able[0].name}.{more}"
    quiet = sorted(able, key=lambda row: row.as_kinds[0].noise_db)
    apart = quiet[1].as_kinds[0].noise_db - quiet[0].as_kinds[0].noise_db >= HEARD_APART_DB
    named = (
        f"; {quiet[0].name} is the {'quieter' if len(able) == 2 else 'quietest'}"
        if apart
        else f"; {able[0].name} suits best"
    )
    return f"{seen}, {len(able)} do{named}.{more}"


__all__ = ["BoxLabel", "ShelfRow", "ShelfVerdict", "kinds_in_words", "shelf_on_tank"]
