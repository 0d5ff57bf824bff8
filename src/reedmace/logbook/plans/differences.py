"""Differences between two versions of a plan, field by field, in words."""

import re
from collections import Counter
from collections.abc import Callable, Iterator, Mapping
from itertools import islice
from typing import Any

from pydantic import BaseModel

from reedmace.core.contract import Part
from reedmace.core.quantity import formatting
from reedmace.core.stock import SPECIES

MOST_SHOWN = 40
"""Most differences listed."""


class Difference(Part):
    """One field that differs between two versions of a plan."""

    field: str
    theirs: str
    mine: str


_WRITTEN: tuple[tuple[str, Callable[[float], str]], ...] = (
    ("_l_min", lambda v: f"{v:g} L/min"),
    ("_lph", lambda v: formatting.lph(v)),
    ("_cm", lambda v: formatting.cm(v)),
    ("_mm", lambda v: formatting.mm(v)),
    ("_kg", lambda v: formatting.kg(v, "g")),
    ("_kpa", lambda v: f"{v:g} kPa"),
    ("_m", lambda v: formatting.metres(v, "g")),
    ("_c", lambda v: formatting.celsius(v)),
    ("_l", lambda v: formatting.litres(v)),
    ("_dkh", lambda v: f"{v:g} dKH"),
    ("_ppm", lambda v: f"{v:g} ppm"),
    ("_share", lambda v: f"{100 * v:g} %"),
    ("_g_day", lambda v: f"{v:g} g a day"),
    ("_count", lambda v: f"{v:g}"),
)
"""Formats by the suffix of a field's name, its unit; the longest match wins."""
_NAMES = {species.id: species.common_name for species in SPECIES.values()}
_UNSAID = {"kind", "version", "key", "id"}
"""Fields that identify a part; a part of another kind is another part."""
# Names the parts of a list, so that a part is compared with itself wherever it is.
_NAMED_BY = ("key", "species_id", "id", "media", "kind", "name")


def differences(theirs: BaseModel, mine: BaseModel, filters: Mapping[str, str] | None = None) -> list[Difference]:
    """Fields in which two versions differ, at most forty.

    theirs: as saved; mine: as typed; both of one kind; filters: names of the tank's filters by key.
    """
    one, two = (_named(plan.model_dump(mode="json"), filters or {}) for plan in (theirs, mine))
    return list(islice(_walk(one, two, "", ""), MOST_SHOWN))


def _named(plan: dict[str, Any], filters: Mapping[str, str]) -> dict[str, Any]:
    """The plan with filter names instead of keys. plan: as written; filters: names by key."""
    if "places" not in plan:
        return plan
    alike = Counter(filters.values())
    said = {key: name if alike[name] == 1 else f"{name} ({key})" for key, name in filters.items()}
    return plan | {"places": [{"name": said.get(key, key), **place} for key, place in plan["places"].items()]}


def _walk(theirs: Any, mine: Any, owner: str, field: str) -> Iterator[Difference]:
    """Compare two values. owner: the list part they belong to, by name; field: theirs and mine are its values."""
    if theirs == mine:
        return
    if isinstance(theirs, dict) and isinstance(mine, dict):
        for name in [*theirs, *(n for n in mine if n not in theirs)]:
            if name not in _UNSAID:
                yield from _walk(theirs.get(name), mine.get(name), owner, name)
    elif _parts(theirs) or _parts(mine):
        yield from _lists(theirs or [], mine or [], owner)
    else:
        yield Difference(field=_title(owner, field), theirs=_words(field, theirs), mine=_words(field, mine))


def _parts(value: Any) -> bool:
    return isinstance(value, list) and any(isinstance(part, dict) for part in value)


def _lists(theirs: list[Any], mine: list[Any], owner: str) -> Iterator[Difference]:
    """Compare two lists: each part with itself, and parts only one of them has."""
    one, two = ({_called(part, n): part for n, part in enumerate(parts, start=1)} for parts in (theirs, mine))
    for name in [*one, *(n for n in two if n not in one)]:
        whose = f"{owner}, {name}" if owner else name
        if name in one and name in two:
            yield from _walk(one[name], two[name], whose, name)
        else:
            here, gone = "has it", "has it not"
            yield Difference(
                field=whose[:1].upper() + whose[1:],
                theirs=here if name in one else gone,
                mine=here if name in two else gone,
            )


def _called(part: dict[str, Any], place: int) -> str:
    """Name of a list part: a filter by the name on its box, an animal by its own."""
    box = part.get("filter")
    if isinstance(box, dict) and box.get("name"):
        return str(box["name"])
    name = next((str(part[key]) for key in _NAMED_BY if part.get(key)), str(place))
    return _NAMES.get(name, name)


def _bare(name: str) -> str:
    """A field's name without its unit, as words."""
    ending = next((end for end, _ in _WRITTEN if name.endswith(end)), "")
    return re.sub(r"[_-]", " ", name.removesuffix(ending)).strip()


def _title(owner: str, field: str) -> str:
    words = f"{owner}, {_bare(field)}" if owner else _bare(field)
    return words[:1].upper() + words[1:]


def _words(field: str, value: Any) -> str:
    """A value as text."""
    if value is None:
        return "not said"
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, list):
        return ", ".join(_words(field, one) for one in value) or "none"
    if isinstance(value, int | float):
        written = next((write for end, write in _WRITTEN if field.endswith(end)), None)
        return written(value) if written else f"{value:g}"
    return _NAMES.get(str(value), str(value).replace("-", " "))
