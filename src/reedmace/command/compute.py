"""Named computations on the command line."""

import json
import os
import sys
from typing import Any

from pydantic import ValidationError

from reedmace.core.contract import Computation
from reedmace.core.errors import CannotAnswer
from reedmace.core.registry import answered, issues_of, named

LARGEST = 5_000_000


def main(name: str | None, *, list_names: bool, schema: str | None, lines: bool = False) -> int:
    """Print the answer; bad input is a message on standard error and exit code 2.

    lines: a question a line in, an answer a line out, in their order; a line that cannot be answered is answered by
    {"error": …}, and the exit code at the end is 2.
    """
    if list_names:
        from reedmace.core.computations import COMPUTATIONS

        return _print("\n".join(f"{c.name:20} {c.answers}" for c in COMPUTATIONS.values()))
    wanted = schema or name
    found = named(wanted) if wanted else None
    if found is None:
        return _refuse(
            f"there is no computation {wanted!r}; ./reedmace compute --list names them."
            if wanted
            else "name a computation; --list names them."
        )
    if schema:
        return _print(json.dumps(found.schema(), indent=2, ensure_ascii=False))
    if lines:
        return _lines(found)
    text = sys.stdin.read(LARGEST + 1)
    if len(text) > LARGEST:
        return _refuse("the input is over 5 MB.")
    try:
        data = json.loads(text)
    except (json.JSONDecodeError, RecursionError) as error:
        return _refuse(f"the input is not JSON: {error}.")
    try:
        answer = answered(found, data)
    except (ValidationError, CannotAnswer) as error:
        return _refuse("; ".join(str(c) for c in issues_of(error)))
    return _print(json.dumps(answer.model_dump(mode="json"), indent=2, ensure_ascii=False))


def _lines(asked: Computation[Any, Any]) -> int:
    """Answer JSON Lines in one process."""
    code = 0
    for line in sys.stdin:
        if not line.strip():
            continue
        try:
            if len(line) > LARGEST:
                raise ValueError("the line is over 5 MB.")
            answer = answered(asked, json.loads(line)).model_dump(mode="json")
        except (json.JSONDecodeError, RecursionError) as error:
            answer, code = {"error": f"the line is not JSON: {error}."}, 2
        except (ValidationError, CannotAnswer) as error:
            answer, code = {"error": "; ".join(str(c) for c in issues_of(error))}, 2
        except ValueError as error:
            answer, code = {"error": str(error)}, 2
        _print(json.dumps(answer, ensure_ascii=False))
    return code


def _print(text: str) -> int:
    try:
        print(text, flush=True)
    except BrokenPipeError:
        # The reader (such as head) has closed the pipe. Nothing is left to flush at exit.
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())
    return 0


def _refuse(message: str) -> int:
    print(f"reedmace compute: {message}", file=sys.stderr)
    return 2
