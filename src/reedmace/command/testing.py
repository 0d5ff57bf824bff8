"""The verbs test and trials: which tests run in which order."""

import os
import subprocess
import sys
from pathlib import Path

import grimp

from reedmace.command.mariadb import die_with_parent
from reedmace.command.paths import ROOT

QUICK = ("core", "logbook", "formats", "test_guide.py")
"""Run first, so that a fault shows within a minute."""
LONGEST = ("unit", "browser", "faults")
"""Begun before the others of the second phase, for the longest files end it."""
PARALLEL = ["-n", "3", "--dist", "loadfile", "--no-loadscope-reorder", "--max-worker-restart", "0"]
"""Three processes on two cores: browsers and servers wait much of the time. A process that dies ends the run: started
anew, it would wait for good."""


def run_tests(rest: list[str], *, whole: bool = False, changed: bool = False) -> int:
    """Run pytest; the exit code.

    rest: pytest's own arguments, everything without them; whole: every trial in full; changed: only test files that
    import a module changed since the last commit.
    """
    environment = {**os.environ, "COLUMNS": "120", **({"REEDMACE_WHOLE": "1"} if whole else {})}
    # Compiled once, before several processes each find an empty cache.
    if subprocess.run([sys.executable, "-m", "reedmace.command.warm_kernels"], cwd=ROOT, env=environment).returncode:
        return 1
    if rest:
        phases = [rest]
    elif changed:
        touched = tests_of_changes()
        print(f"{len(touched)} test files import what changed")
        phases = [[*PARALLEL, *touched]] if touched else []
    else:
        phases = [
            [*PARALLEL, *(["-m", "not slow"] if first else []), *(f"tests/{name}" for name in names)]
            for first, names in ((True, QUICK), (False, slow_folders()))
        ]
        phases.append([*PARALLEL, "-m", "slow", *(f"tests/{name}" for name in QUICK)])
    codes = [
        subprocess.run(
            [sys.executable, "-m", "pytest", *arguments],
            cwd=ROOT,
            env=environment,
            # Whatever ends this process, no test goes on without it.
            preexec_fn=die_with_parent,
        ).returncode
        for arguments in phases
    ]
    return next((code for code in codes if code), 0)


def coverage() -> int:
    """Branches of the core that its own tests and the logbook's take; the exit code, not 0 under what is asked.

    What is asked, and what is not counted, stands in pyproject.toml.
    """
    arguments = [*PARALLEL, "-m", "not slow", "--cov", "--cov-report=term", "tests/core", "tests/logbook"]
    return subprocess.run([sys.executable, "-m", "pytest", *arguments], cwd=ROOT, preexec_fn=die_with_parent).returncode


def slow_folders() -> list[str]:
    """Every folder of tests that is not run in the first phase, the longest first: none is left out by a list."""
    folders = {path.parent.relative_to(ROOT / "tests").parts[0] for path in (ROOT / "tests").glob("*/**/test_*.py")}
    return [*LONGEST, *sorted(folders.difference(QUICK, LONGEST))]


def tests_of_changes() -> list[str]:
    """Test files that import, directly or not, a module changed since the last commit."""
    listed = subprocess.run(["git", "status", "--porcelain"], cwd=ROOT, capture_output=True, text=True, check=True)
    changed = {Path(line[3:].split(" -> ")[-1]) for line in listed.stdout.splitlines()}
    sys.path.insert(0, str(ROOT))
    graph = grimp.build_graph("reedmace", "tests")
    modules = {
        ".".join(path.with_suffix("").parts[0 if path.parts[0] == "tests" else 1 :])
        for path in changed
        if path.suffix == ".py" and path.parts[0] in ("src", "tests")
    } & graph.modules
    reached = modules.union(*(graph.find_downstream_modules(module) for module in modules))
    return sorted(
        f"{module.replace('.', '/')}.py"
        for module in reached
        if module.startswith("tests.") and module.rsplit(".", 1)[-1].startswith("test_")
    )
