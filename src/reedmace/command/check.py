"""The verb check: everything about the source that a machine can hold."""

import ast
import subprocess
import sys
from collections.abc import Callable, Iterator
from pathlib import Path

from vulture import Vulture

from reedmace.command import generated, licences
from reedmace.command.paths import FRONT, ROOT

LONGEST_MODULE, LONGEST_KIND = 350, 400
"""Maximum lengths in lines: of a module, and of a kind of filter, which is one file (docs/decisions/3-kinds.md)."""
KINDS = ROOT / "src/reedmace/core/filter/kinds"


CALLED_BY_FRAMEWORKS = (
    "@blueprint.*",
    "@app.*",
    "@model_validator",
    "@field_validator",
    "@computed_field",
    "@computation",
)
READ_BY_FRAMEWORKS = [
    "handle_DATA",
    "__doc__",
    "Meta",
    "connect_params",
    "content_type",
    "db_value",
    "get_id",
    "max_content_length",
    "permanent",
    "python_value",
    "rollback",
    "session_protection",
    "computed_field_is_required",
    "writeable",
    "request_id",
    "units_token",
    "idempotent_answer",
    "_memo",
    "added_n",
    "added_alkalinity",
    "parser_class",
]
"""Names that Flask, peewee, NumPy, the compilers of our models or `getattr` read, and the balance of simulated tanks,
which tests read."""


def _tools() -> list[tuple[str, list[str], Path]]:
    """(name, command, folder) of each outside tool; its exit code tells."""
    python = sys.executable
    npx = ["npx", "--no-install"]
    return [
        ("ruff", [python, "-m", "ruff", "check", "src", "tests", "tools"], ROOT),
        ("ruff format", [python, "-m", "ruff", "format", "--check", "src", "tests", "tools"], ROOT),
        ("mypy", [python, "-m", "mypy"], ROOT),
        ("import-linter", [str(Path(python).parent / "lint-imports")], ROOT),
        ("tsc", [*npx, "tsc", "--noEmit"], FRONT),
        ("ESLint", [*npx, "eslint", "src", "unit", "--max-warnings", "0"], FRONT),
        ("Prettier", [*npx, "prettier", "--check", "src", "unit"], FRONT),
        ("knip", [*npx, "knip"], FRONT),
    ]


def _modules() -> Iterator[Path]:
    return iter(sorted((ROOT / "src").rglob("*.py")))


def _long_modules() -> list[str]:
    sized = ((path, len(path.read_text().splitlines())) for path in _modules())
    return [
        f"{path.relative_to(ROOT)}: {lines} lines"
        for path, lines in sized
        if lines > (LONGEST_KIND if path.parent == KINDS else LONGEST_MODULE)
    ]


LONGEST_FUNCTION = 60


def _long_functions() -> list[str]:
    return [
        f"{path.relative_to(ROOT)}: {node.name} has {lines} lines"
        for path in _modules()
        for node in ast.walk(ast.parse(path.read_text()))
        if isinstance(node, ast.FunctionDef) and (lines := _length(node)) > LONGEST_FUNCTION
    ]


def _length(node: ast.FunctionDef) -> int:
    return (node.end_lineno or node.lineno) - node.lineno + 1


def _broken_docstrings() -> list[str]:
    """Docstrings whose first line breaks off: it ends in a colon, a comma or a word that wants another."""
    broken = []
    for path in _modules():
        for node in ast.walk(ast.parse(path.read_text())):
            if isinstance(node, ast.Module | ast.FunctionDef | ast.ClassDef):
                first = (ast.get_docstring(node) or ".").splitlines()[0]
                if first.endswith((":", ",")):
                    broken.append(f"{path.relative_to(ROOT)}: {first}")
    return broken


def _unused_code() -> list[str]:
    """Functions, classes, attributes and constants nobody uses; fields of answers are read by clients."""
    vulture = Vulture(ignore_decorators=CALLED_BY_FRAMEWORKS, ignore_names=READ_BY_FRAMEWORKS)
    vulture.scavenge([str(ROOT / "src")])
    return [
        f"{Path(item.filename).relative_to(ROOT)}:{item.first_lineno} {item.name}"
        for item in vulture.get_unused_code()
        if item.typ != "variable" or item.name.isupper()
    ]


OWN_TESTS = ("core", "logbook", "store", "formats")
"""Packages whose modules each have a test file of their own name in the same folder of tests."""


def _missing_tests() -> list[str]:
    """Modules of those packages without a test file of their own."""
    source, tests = ROOT / "src/reedmace", ROOT / "tests"
    return [
        str(path.relative_to(source))
        for package in OWN_TESTS
        for path in sorted((source / package).rglob("*.py"))
        if path.stem != "__init__" and not (tests / path.relative_to(source).parent / f"test_{path.name}").exists()
    ]


OWN_CHECKS: dict[str, Callable[[], list[str]]] = {
    "unused code": _unused_code,
    "module length": _long_modules,
    "function length": _long_functions,
    "docstrings": _broken_docstrings,
    "tests of their own": _missing_tests,
    "generated files": generated.stale,
    "licences": licences.faults,
}


def check() -> int:
    """Every check; the exit code is 1 if any failed, and each failure is printed."""
    failed = 0
    for name, command, folder in _tools():
        done = subprocess.run(command, cwd=folder, capture_output=True, text=True)
        print(f"{name:20} {'FAILED' if done.returncode else 'ok'}", flush=True)
        if done.returncode:
            failed += 1
            print(done.stdout[-6000:], done.stderr[-2000:])
    for name, faults in OWN_CHECKS.items():
        found = faults()
        print(f"{name:20} {'FAILED: ' + '; '.join(found) if found else 'ok'}", flush=True)
        failed += bool(found)
    return 1 if failed else 0
