"""The verbs test, check and types."""

import json
import os
import subprocess
import sys
from pathlib import Path

from reedmace.api import Settings, create_app
from reedmace.command.licences import faults
from reedmace.command.paths import ROOT

FRONT = ROOT / "frontend"
LONGEST = 400
"""Maximum module length in lines."""
TYPES = FRONT / "src" / "api" / "types.ts"


def test(rest: list[str]) -> int:
    """Run pytest over everything, or over what is named.

    Three processes on two cores: browsers and servers wait much of the time.
    """
    environment = {**os.environ, "COLUMNS": "120"}
    # Longest files first, so that no process is left alone with one of them at the end.
    rooms = [f"tests/{room}" for room in ("browser", "faults", "agreement", "api", "reference", "core")]
    # Compiled once, before three processes each find an empty cache.
    if subprocess.run([sys.executable, "-m", "reedmace.command.warm_kernels"], cwd=ROOT, env=environment).returncode:
        return 1
    everything = ["-n", "3", "--dist", "loadfile", "--no-loadscope-reorder", *rooms]
    return subprocess.run([sys.executable, "-m", "pytest", *(rest or everything)], cwd=ROOT, env=environment).returncode


def description() -> str:
    """The OpenAPI description as JSON text."""
    app = create_app(Settings(database_url="mysql://nobody@127.0.0.1:1/none", secret_key="none"))  # noqa: S106 - never served
    return json.dumps(app.spec, indent=1, ensure_ascii=False)


def generated_types() -> str:
    """TypeScript types of the API description."""
    spec = (
        Path(os.environ["REEDMACE_VAR"]) / "openapi.json"
        if "REEDMACE_VAR" in os.environ
        else ROOT / "var" / "openapi.json"
    )
    spec.parent.mkdir(parents=True, exist_ok=True)
    spec.write_text(description())
    out = spec.with_suffix(".ts")
    subprocess.run(
        ["npx", "--no-install", "openapi-typescript", str(spec), "-o", str(out), "--default-non-nullable", "false"],
        cwd=FRONT,
        check=True,
        capture_output=True,
    )
    return out.read_text()


def types() -> int:
    """Write the front end's types."""
    TYPES.write_text(generated_types())
    return 0


def _lines(path: Path) -> int:
    return len(path.read_text().splitlines())


def check() -> int:
    """Every check; the exit code is 1 if any failed, and each failure is printed."""
    python = sys.executable
    steps: list[tuple[str, list[str], Path]] = [
        ("ruff", [python, "-m", "ruff", "check", "src", "tests"], ROOT),
        ("ruff format", [python, "-m", "ruff", "format", "--check", "src", "tests"], ROOT),
        ("mypy", [python, "-m", "mypy"], ROOT),
        ("import-linter", [str(Path(python).parent / "lint-imports")], ROOT),
        ("tsc", ["npx", "--no-install", "tsc", "--noEmit"], FRONT),
        ("ESLint", ["npx", "--no-install", "eslint", "src", "--max-warnings", "0"], FRONT),
        ("Prettier", ["npx", "--no-install", "prettier", "--check", "src"], FRONT),
    ]
    failed = 0
    for name, command, folder in steps:
        done = subprocess.run(command, cwd=folder, capture_output=True, text=True)
        print(f"{name:20} {'ok' if done.returncode == 0 else 'FAILED'}", flush=True)
        if done.returncode:
            failed += 1
            print(done.stdout[-6000:], done.stderr[-2000:])
    long = [
        f"{p.relative_to(ROOT)}: {n} lines" for p in sorted((ROOT / "src").rglob("*.py")) if (n := _lines(p)) > LONGEST
    ]
    print(f"{'module length':20} {'ok' if not long else 'FAILED: ' + '; '.join(long)}")
    failed += bool(long)
    fresh = TYPES.exists() and TYPES.read_text() == generated_types()
    print(f"{'generated types':20} {'ok' if fresh else 'FAILED: run ./reedmace types'}")
    wrong = faults()
    print(f"{'licences':20} {'ok' if not wrong else 'FAILED: ' + '; '.join(wrong)}")
    return 1 if failed or wrong or not fresh else 0
