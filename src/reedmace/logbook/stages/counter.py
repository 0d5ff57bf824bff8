"""The counter: does this box do for that tank? Litres, animals and up to four labels in, yes or no out."""

from collections.abc import Sequence
from typing import Annotated

from pydantic import Field

from reedmace.core.contract import Answer, Litres, NetLitres, Question, number
from reedmace.core.filter.box_label import BoxLabel
from reedmace.core.filter.choice.kind_map import TypeAndSizeAnswer
from reedmace.core.filter.learned import LearnedRelation
from reedmace.core.filter.shelf_box import ShelfBox, ShelfItem
from reedmace.core.filter.site.site import Priorities, RoomKind
from reedmace.core.quantity import formatting
from reedmace.core.stock import Animals
from reedmace.core.stock.species import Water, find_species
from reedmace.logbook.plans.plan_kinds import FilterPlan, StockPlan, Surroundings
from reedmace.logbook.replay.arrival import box_of
from reedmace.logbook.replay.rank_question import rank_question
from reedmace.logbook.replay.state import LogbookState
from reedmace.logbook.stages.draft import Draft, with_draft
from reedmace.logbook.stages.kind_sizes import types_for
from reedmace.logbook.stages.shelf_rows import ShelfRow, shelf_on_tank
from reedmace.logbook.stages.stock import stock_view

MOST_BOXES = 4
_USUAL = Surroundings()
_SALTIEST_FIRST: tuple[Water, ...] = ("salt", "brackish")


class CounterQuestion(Question):
    """A tank by its litres, its animals, and the boxes on the counter."""

    litres: NetLitres
    animals: Annotated[list[Animals], Field(max_length=60)] = Field(default_factory=list)
    boxes: Annotated[list[BoxLabel], Field(max_length=MOST_BOXES)] = Field(default_factory=list)
    room: RoomKind = "living"
    water: Water | None = Field(default=None, description="Left out, as its animals live in")
    behind_cm: Annotated[float, number("cm", 0, 300, "Back glass to wall; left out, as usual")] | None = None
    priorities: Priorities | None = None


class CounterAnswer(Answer):
    """The verdict begins with yes or no where boxes were given; `ask_for` is what any shop can fill."""

    why: str
    boxes: list[ShelfRow] = Field(description="In the order given; numbered from 1")
    ask_for: str
    ask_why: str
    clashes: list[str] = Field(description="What no filter mends: animals that do not go together, or not in this tank")
    asked_low_lph: Annotated[float, number("L/h", 0, 1e6)]
    net_l: Litres
    assumed: list[str]
    types: TypeAndSizeAnswer


def counter_view(question: CounterQuestion, learned: Sequence[LearnedRelation] = ()) -> CounterAnswer:
    """Whether boxes do for a tank; as a tank with the same facts would say.

    question: litres, animals and labels; learned: how typical boxes differ from memory, learned where this runs.
    """
    q = question
    water = q.water or _water_of(q.animals)
    surroundings = Surroundings(
        room=q.room, water=water, behind_cm=_USUAL.behind_cm if q.behind_cm is None else q.behind_cm
    )
    draft = Draft(
        tank_plan=box_of(q.litres).model_copy(update={"surroundings": surroundings}),
        stock_plan=StockPlan(kind="stock-plan", animals=q.animals) if q.animals else None,
        filter_plan=FilterPlan(kind="filter-plan", priorities=q.priorities),
    )
    state = with_draft(LogbookState(), draft)
    shelf = [ShelfItem(id=n, box=ShelfBox(label=label)) for n, label in enumerate(_named(q.boxes), 1)]
    asked = rank_question(state)
    types = types_for(asked, learned)
    rows = sorted(shelf_on_tank(asked, shelf).rows, key=lambda row: row.id)
    verdict, why = _verdict(rows, types)
    return CounterAnswer(
        verdict=verdict,
        working=types.working,
        why=why,
        boxes=rows,
        ask_for=types.verdict,
        ask_why=types.why,
        clashes=[one.text for one in stock_view(state).load.clashes] if q.animals else [],
        asked_low_lph=types.asked_low_lph,
        net_l=asked.site.net_l,
        assumed=_assumed(q, water),
        types=types,
    )


def _water_of(animals: list[Animals]) -> Water:
    """The saltiest water that any of the animals lives in. animals: of known species; fresh without any."""
    waters = [find_species(a.species_id, "animals").water for a in animals]
    return next((water for water in _SALTIEST_FIRST if water in waters), "fresh")


def _named(boxes: list[BoxLabel]) -> list[BoxLabel]:
    """Labels with a name to tell them apart by; one left at its default is numbered."""
    default = BoxLabel.model_fields["name"].default
    return [
        label if label.name != default else label.model_copy(update={"name": f"Box {n}"})
        for n, label in enumerate(boxes, 1)
    ]


def _verdict(rows: list[ShelfRow], types: TypeAndSizeAnswer) -> tuple[str, str]:
    if not rows:
        return types.verdict, types.why
    able = [row for row in rows if row.answer == "yes"]
    if types.too_many is not None:
        return f"No filter makes up for it: {formatting.inside(types.too_many)}", types.why
    if len(rows) == 1:
        words = {"yes": "Yes", "no": "No", "depends": "It depends on its kind"}[rows[0].answer]
        return f"{words}: {rows[0].name}. {rows[0].words}", _speaks(rows[0]) if able else types.verdict
    if not able:
        asked = [row for row in rows if row.answer == "depends"]
        if asked:
            return f"It depends on the kind of {asked[0].name}. {asked[0].words}", types.verdict
        return "No: none of these does.", f"Ask for {formatting.inside(types.verdict)}"
    best = max(able, key=lambda row: row.as_kinds[0].score)
    unsaid = [row.name for row in rows if row.answer == "depends"]
    if unsaid:
        some = "does" if len(able) == 1 else "suits best"
        verdict = f"Yes: {best.name} {some}; {' and '.join(unsaid)} may do, by its kind."
    elif len(able) == 1:
        verdict = f"Yes: {best.name}, of these {len(rows)} alone."
    else:
        verdict = f"Yes: {len(able)} of {len(rows)} do; {best.name} suits best."
    return verdict, f"{best.words} {_speaks(best)}"


def _speaks(row: ShelfRow) -> str:
    return f"{formatting.opening(row.as_kinds[0].speaks)}."


def _assumed(q: CounterQuestion, water: Water) -> list[str]:
    found = [f"the sizes of a usual tank of {formatting.litres(q.litres)}"]
    if not q.animals:
        found.append("a community, until animals are named")
    if q.water is None:
        found.append(f"{water} water")
    if q.behind_cm is None:
        found.append(f"{formatting.cm(_USUAL.behind_cm)} to the wall")
    return found
