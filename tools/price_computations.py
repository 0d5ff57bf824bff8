"""Processor time of every computation, for its example and for the largest input of its schema: docs/prices.md.

Lists are filled up to what the schema allows, in steps, until an answer takes over `ENOUGH_S` or the input is refused.
Run as `python tools/price_computations.py`; it takes some minutes.
"""

import json
import sys
import time
from collections.abc import Iterator
from pathlib import Path
from typing import Any

from pydantic import ValidationError
from tests.core.test_registry import EXAMPLES

from reedmace.api.concurrency import LONG_SUMS
from reedmace.core.computations import COMPUTATIONS
from reedmace.core.errors import CannotAnswer
from reedmace.core.registry import answered

TABLE = Path(__file__).resolve().parents[1] / "docs" / "prices.md"
LENGTHS = (3, 10, 30, 100, 300, 1000, 3000, 10_000)
ENOUGH_S, TURNS = 2.0, 3
LAST_DAY = 400.0
SPECIES = ("zebra-danio", "neon-tetra", "bronze-cory", "fancy-goldfish", "oscar")
HEAD = (
    "# What each computation costs\n\n"
    "Processor time in ms on one core, written by `tools/price_computations.py`: the example of the tests (the least of"
    " three), and an input whose lists are filled as far as the schema and the sum allow, with the longest list in it."
    " Lists whose elements name one another are not filled by the tool. A computation that can take over 100 ms waits"
    " for one of the turns of its process (`LONG_SUMS` in `api/concurrency.py`); a test holds that none in this table"
    " does without, and that every computation stands in it.\n\n"
    "| Computation | example, ms | largest, ms | longest list | takes turns |\n"
    "|---|---|---|---|---|\n"
)


def filled(schema: dict[str, Any], defs: dict[str, Any], name: str, at: float, length: int) -> Any:
    """A value of a schema with its lists `length` long. name: of the field; at: place in its list, 0 to 1."""
    if "$ref" in schema:
        schema = defs[schema["$ref"].rpartition("/")[2]]
    for key in ("anyOf", "oneOf"):
        if key in schema:
            some = next(one for one in schema[key] if one.get("type") != "null")
            return filled(some, defs, name, at, length)
    if "const" in schema or "enum" in schema:
        return schema.get("const", schema.get("enum", [None])[0])
    kind = schema.get("type")
    if kind == "array":
        many = min(length, schema.get("maxItems", length))
        return [filled(schema["items"], defs, name, n / max(many - 1, 1), length) for n in range(many)]
    if kind == "object":
        return dict(_fields(schema, defs, at, length))
    if kind == "string":
        return SPECIES[int(at * len(SPECIES)) % len(SPECIES)] if name == "species_id" else f"n{at:.6f}".replace(".", "")
    if kind == "boolean":
        return schema.get("default", False)
    low, high = schema.get("minimum", 0), schema.get("maximum", 100)
    if name.startswith("day"):
        return min(LAST_DAY if name == "day_now" else LAST_DAY * at, high)
    middle = min(max(1 + at, low), high)
    return int(middle) if kind == "integer" else middle


def _fields(schema: dict[str, Any], defs: dict[str, Any], at: float, length: int) -> Iterator[tuple[str, Any]]:
    """What an object must have, and its lists."""
    for name, one in schema.get("properties", {}).items():
        some = next((o for o in one.get("anyOf", [one]) if o.get("type") != "null"), one)
        if name in schema.get("required", ()) or some.get("type") == "array" or "$ref" in some:
            yield name, filled(one, defs, name, at, length)


def merged(example: Any, large: Any) -> Any:
    """The example with the lists of a large input; elements of its own are copied rather than made up."""
    if isinstance(example, dict) and isinstance(large, dict):
        return {**large, **{name: merged(value, large.get(name)) for name, value in example.items()}}
    if isinstance(example, list) and isinstance(large, list) and example and large:
        return [merged(example[n % len(example)], one) for n, one in enumerate(large)]
    return example


def price(name: str, data: Any) -> float | None:
    """Seconds of processor one answer takes; None where the input is refused."""
    began = time.thread_time()
    try:
        answered(COMPUTATIONS[name], data)
    except (ValidationError, CannotAnswer):
        return None
    return time.thread_time() - began


def longest(data: Any) -> int:
    """Elements of the longest list in some data."""
    if isinstance(data, dict):
        return max((longest(value) for value in data.values()), default=0)
    if isinstance(data, list):
        return max(len(data), *(longest(value) for value in data), 0)
    return 0


def row(name: str) -> str:
    """The line of one computation."""
    example = EXAMPLES[name]
    least = min(filter(None, (price(name, example) for _ in range(TURNS))), default=0.0)
    schema = COMPUTATIONS[name].schema()["input"]
    most, length = least, longest(example)
    for many in LENGTHS:
        made = filled(schema, schema.get("$defs", {}), "", 0.0, many)
        for data in (merged(example, made), _only_lists_of(example, made)):
            took = price(name, data)
            if took is not None and took >= most:
                most, length = took, longest(data)
        if most > ENOUGH_S:
            break
    return f"| `{name}` | {1000 * least:.1f} | {1000 * most:.0f} | {length} | {'yes' if name in LONG_SUMS else ''} |"


def _only_lists_of(example: Any, made: Any) -> Any:
    """The example with only its own lists lengthened."""
    if isinstance(example, dict) and isinstance(made, dict):
        return {name: _only_lists_of(value, made.get(name)) for name, value in example.items()}
    if isinstance(example, list) and isinstance(made, list) and example:
        return [json.loads(json.dumps(example[n % len(example)])) for n in range(len(made))]
    return example


def main() -> int:
    """Write the table."""
    names = sys.argv[1:] or sorted(COMPUTATIONS)
    rows = []
    for name in names:
        rows.append(row(name))
        print(rows[-1], flush=True)
    if not sys.argv[1:]:
        TABLE.write_text(HEAD + "\n".join(rows) + "\n")
    return 0


if __name__ == "__main__":
    sys.exit(main())
