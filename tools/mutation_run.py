"""How many small faults put into a module its tests find: `./reedmace mutation-run [GROUP...] [--sample N]`.

Cosmic Ray makes the faults (a sign turned, a number one off, a branch left out); each is put into a copy of the tree,
the group's tests run with `-x`, and a fault no test fails on is printed as a diff. A sample drawn by `--seed` is enough
for a share. Left out: type unions (`A | B`), `is` in place of `==` and decorators, on which nothing can fail, and the
ranges of schemas (`Annotated[...]`), which the description of the interface holds.
"""

import argparse
import itertools
import json
import os
import random
import shutil
import sys
import tempfile
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from queue import Queue
from typing import NamedTuple

from cosmic_ray.ast import ast_nodes, get_ast_from_path
from cosmic_ray.mutating import apply_mutation
from cosmic_ray.plugins import get_operator, operator_names
from cosmic_ray.testing import run_tests
from cosmic_ray.work_item import TestOutcome

ROOT = Path(__file__).parents[1]
CORE = "src/reedmace/core"
# Per group: the modules that are mutated, and the tests that are asked.
GROUPS: dict[str, tuple[list[str], list[str]]] = {
    "chemistry": (
        [f"{CORE}/chemistry/*.py"],
        ["tests/core/chemistry", "tests/reference/test_chemistry.py", "tests/reference/test_carbonate.py"],
    ),
    "proof": ([f"{CORE}/cycle/record/proof.py"], ["tests/core/cycle/record"]),
    "losses": ([f"{CORE}/cycle/record/film_losses.py"], ["tests/core/cycle/record"]),
    "emergency": ([f"{CORE}/cycle/animals/emergency*.py"], ["tests/core/cycle/animals"]),
    "air": ([f"{CORE}/air/network.py"], ["tests/core/air", "tests/reference/test_room_air.py"]),
}
EQUIVALENT = ("BitOr", "_Is", "_IsNot", "RemoveDecorator")
TIMEOUT_S = 240
COPIED = ("src", "tests", "pyproject.toml", "docs", "frontend/src", "reedmace", "README.md")


class Fault(NamedTuple):
    """One fault: the `occurrence`-th place of an operator in a module."""

    module: str
    operator: str
    occurrence: int
    line: int


class Result(NamedTuple):
    """What became of a fault, and the line it stood in."""

    fault: Fault
    found: bool
    changed: str


def faults_of(module: str) -> Iterator[Fault]:
    """Every fault Cosmic Ray knows for a module, without those nothing can fail on."""
    tree, lines = get_ast_from_path(Path(module)), Path(module).read_text().splitlines()
    for name in operator_names():
        if name.endswith(EQUIVALENT) or "BitOr" in name or get_operator(name).arguments():
            continue
        operator = get_operator(name)()
        positions = itertools.chain.from_iterable(operator.mutation_positions(node) for node in ast_nodes(tree))
        for occurrence, (start, _end) in enumerate(positions):
            if "Annotated[" in lines[start[0] - 1]:
                continue
            yield Fault(module, name, occurrence, start[0])


def make_copy(folder: Path) -> Path:
    """A copy of what the tests read, with nothing of the original's caches."""
    for name in COPIED:
        source, target = ROOT / name, folder / name
        target.parent.mkdir(parents=True, exist_ok=True)
        if source.is_dir():
            shutil.copytree(source, target, ignore=shutil.ignore_patterns("__pycache__", "*.nb?"))
        else:
            shutil.copy(source, target)
    return folder


def fails(copy: Path, tests: list[str]) -> bool:
    """Whether the tests fail in a copy as it stands."""
    environment = f"PYTHONPATH={copy}/src:{copy} REEDMACE_ROOT={copy} NUMBA_CACHE_DIR={copy}/numba"
    pytest = f"{sys.executable} -m pytest -x -q -p no:xdist --rootdir {copy} -c {copy}/pyproject.toml"
    outcome, _ = run_tests(f"env -C {copy} {environment} {pytest} {' '.join(tests)}", TIMEOUT_S)
    return outcome is not TestOutcome.SURVIVED


def try_fault(copy: Path, fault: Fault, tests: list[str]) -> Result:
    """Put one fault into a copy, ask its tests, and mend the copy again."""
    path = copy / fault.module
    before = path.read_text()
    try:
        apply_mutation(path, get_operator(fault.operator)(), fault.occurrence)
        after = path.read_text()
        found = fails(copy, tests)
    finally:
        path.write_text(before)
    pairs = itertools.zip_longest(before.splitlines(), after.splitlines(), fillvalue="")
    changed = " / ".join(f"{old.strip()}  ->  {new.strip()}" for old, new in pairs if old != new)
    return Result(fault, found, changed)


def run_group(name: str, sample: int, seed: int, copies: "Queue[Path]", workers: int) -> list[Result]:
    """The results of a sample of a group's faults, printed as they come."""
    patterns, tests = GROUPS[name]
    modules = sorted(str(p.relative_to(ROOT)) for pattern in patterns for p in ROOT.glob(pattern))
    every = [fault for module in modules for fault in faults_of(module)]
    chosen = every if sample >= len(every) else random.Random(seed).sample(every, sample)  # noqa: S311  a sample, no secret

    def one(fault: Fault) -> Result:
        copy = copies.get()
        try:
            result = try_fault(copy, fault, tests)
        finally:
            copies.put(copy)
        if not result.found:
            print(f"{fault.module}:{fault.line} {fault.operator}: {result.changed}", flush=True)
        return result

    with ThreadPoolExecutor(workers) as pool:
        if any(pool.map(lambda copy: fails(copy, tests), list(copies.queue))):
            raise SystemExit(f"{name}: its tests fail without any fault, so nothing can be said")
        results = list(pool.map(one, chosen))
    found = sum(result.found for result in results)
    print(f"{name}: {found} of {len(results)} found ({found / len(results):.0%}); {len(every)} possible", flush=True)
    return results


def main() -> None:
    """Read the command line, run the groups, and write every result as a line of JSON where asked."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("groups", nargs="*", default=list(GROUPS), metavar="GROUP", help=", ".join(GROUPS))
    parser.add_argument("--sample", type=int, default=150, help="faults a group (150)")
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--workers", type=int, default=os.cpu_count() or 1)
    parser.add_argument("--out", type=Path, help="a file of JSON lines")
    asked = parser.parse_args()
    os.chdir(ROOT)
    with tempfile.TemporaryDirectory() as folder:
        copies: Queue[Path] = Queue()
        for k in range(asked.workers):
            copies.put(make_copy(Path(folder) / str(k)))
        for name in asked.groups:
            results = run_group(name, asked.sample, asked.seed, copies, asked.workers)
            if asked.out:
                with asked.out.open("a") as out:
                    for result in results:
                        out.write(json.dumps([*result.fault, result.found, result.changed]) + "\n")


if __name__ == "__main__":
    main()
