"""A fish room as a CSV table: one tank a line, its sizes, filter and animals."""

import csv
import io
from collections.abc import Iterable
from dataclasses import dataclass

from pydantic import ValidationError

from reedmace.core.errors import CannotAnswer
from reedmace.core.filter import Filter
from reedmace.core.filter.kinds import KINDS
from reedmace.core.filter.typical import typical_box
from reedmace.core.quantity import formatting
from reedmace.core.stock import SPECIES, Animals
from reedmace.core.tank import TankVolumeQuestion
from reedmace.logbook.plans.plan_kinds import FilterPlan, FittedFilter, StockPlan, Surroundings, TankPlan
from reedmace.logbook.replay.entries import Body, Situation

COLUMNS = ("name", "length_cm", "width_cm", "height_cm", "filter", "animals", "stands")
MOST = 200
"""Tanks of one table."""
MOST_DIGITS = 6
"""Of a count of animals."""
_SPECIES = {**{s.id: s.id for s in SPECIES.values()}, **{s.common_name.lower(): s.id for s in SPECIES.values()}}


@dataclass(frozen=True)
class TankRow:
    """One tank of the table: its name, its length for the shelf, and its entries."""

    name: str
    length_cm: float
    bodies: list[Body]


def read_room(text: str, boxes: Iterable[Filter] = ()) -> list[TankRow]:
    """The tanks of a table. Raises CannotAnswer with the line and the remedy.

    text: CSV with a header of `name` and the three sizes in cm; `filter` by the name of a box or of a kind; `animals`
    as "12 guppy; 6 cherry shrimp"; `stands` as empty, cycling, animals-in or running. boxes: the keeper's own.
    """
    known = {f.name.lower(): f for f in boxes}
    try:
        rows = list(csv.DictReader(io.StringIO(text.lstrip("\ufeff"), newline=""), skipinitialspace=True))
    except csv.Error as error:
        raise CannotAnswer(
            "text", f"cannot be read as a table: {error}.", "Save it as CSV, with a line for each tank."
        ) from error
    if not rows:
        raise CannotAnswer("text", "holds no tank.", f"Begin with a line {','.join(COLUMNS)} and give a tank a line.")
    if len(rows) > MOST:
        raise CannotAnswer("text", f"holds {len(rows)} tanks.", f"At most {MOST} at a time.")
    many = len(rows)
    return [
        _row(
            {(k or "").strip().lower(): (v or "").strip() if isinstance(v, str) else "" for k, v in row.items()},
            n,
            many,
            known,
        )
        for n, row in enumerate(rows, 2)
    ]


def _row(cells: dict[str, str], line: int, many: int, known: dict[str, Filter]) -> TankRow:
    where = f"line {line}"
    name = cells.get("name", "")
    if not name:
        raise CannotAnswer(where, "has no name.", "Give each tank one.")
    sizes = {key: _size(cells, key, where) for key in ("length_cm", "width_cm", "height_cm")}
    try:
        tank = TankPlan(
            kind="tank-plan",
            tank=TankVolumeQuestion(**sizes),
            surroundings=Surroundings(tanks_here_count=min(many, 200), room="fish-room"),
        )
        bodies: list[Body] = [tank, *_stock(cells, where), *_filters(cells, where, sizes, known), *_stands(cells)]
    except ValidationError as error:
        found = error.errors()[0]
        raise CannotAnswer(
            where, f"{'.'.join(map(str, found['loc']))}: {found['msg'].lower()}.", "Correct it."
        ) from error
    return TankRow(name[:80], sizes["length_cm"], bodies)


def _size(cells: dict[str, str], key: str, where: str) -> float:
    try:
        return float(cells.get(key, "").replace(",", "."))
    except ValueError as error:
        raise CannotAnswer(where, f"{key} is “{cells.get(key, '')}”.", "Give a figure in cm.") from error


def _stock(cells: dict[str, str], where: str) -> list[Body]:
    animals = []
    for part in filter(None, (p.strip() for p in cells.get("animals", "").split(";"))):
        count, _, name = part.partition(" ")
        species = _SPECIES.get(name.strip().lower())
        if not (count.isascii() and count.isdigit() and len(count) <= MOST_DIGITS) or species is None:
            raise CannotAnswer(
                where, f"“{part}” is not understood.", "Write a count and a name of the species list, as “12 guppy”."
            )
        animals.append(Animals(species_id=species, count=int(count)))
    return [StockPlan(kind="stock-plan", animals=animals)] if animals else []


def _filters(cells: dict[str, str], where: str, sizes: dict[str, float], known: dict[str, Filter]) -> list[Body]:
    name = cells.get("filter", "")
    if not name:
        return []
    found = known.get(name.lower()) or _usual(name, sizes["length_cm"] * sizes["width_cm"] * sizes["height_cm"] / 1000)
    if found is None:
        titles = ", ".join(formatting.inside(kind.title) for kind in KINDS)
        raise CannotAnswer(
            where, f"there is no filter “{name}”.", f"Use the name of a box on your shelf or a kind ({titles})."
        )
    return [FilterPlan(kind="filter-plan", filters=[FittedFilter(key="f1", filter=found, owned=True)])]


def _usual(name: str, litres: float) -> Filter | None:
    """The usual box of a kind for a tank; None for no kind. name: of the kind; litres: of the tank."""
    kind = next((k for k in KINDS if name.lower() in (k.name, k.title.lower())), None)
    if kind is None or kind.typical is None or litres <= 0:
        return None
    return typical_box(kind, kind.typical.size_of("tank_up_to_l", litres))


def _stands(cells: dict[str, str]) -> list[Body]:
    stands = cells.get("stands", "")
    return [Situation.model_validate({"kind": "situation", "stands": stands})] if stands else []
