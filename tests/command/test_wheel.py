"""The project as a wheel: built from a copy, installed by itself, asked from another folder, without a database."""

import json
import os
import shutil
import subprocess
import sys
from pathlib import Path

import pytest

QUESTION = {"length_cm": 90, "width_cm": 40, "height_cm": 45}


@pytest.fixture(scope="module")
def installed(tmp_path_factory: pytest.TempPathFactory, root: Path) -> Path:
    """The wheel's own folder: nothing of the checkout is on its path."""
    work = tmp_path_factory.mktemp("wheel")
    shutil.copytree(root / "src", work / "copy" / "src", ignore=shutil.ignore_patterns("__pycache__", "*.egg-info"))
    shutil.copy(root / "pyproject.toml", work / "copy")
    pip = [sys.executable, "-m", "pip", "--disable-pip-version-check", "-q"]
    alone = ["--no-deps", "--no-build-isolation", "--no-index"]
    subprocess.run([*pip, "wheel", *alone, "-w", str(work), str(work / "copy")], check=True)
    (wheel,) = work.glob("reedmace-*.whl")
    subprocess.run([*pip, "install", "--no-deps", "--no-index", "--target", str(work / "site"), str(wheel)], check=True)
    return work / "site"


def run(installed: Path, *command: str, text: str = "") -> str:
    environment = {k: v for k, v in os.environ.items() if not k.startswith(("REEDMACE", "PYTHONPATH"))}
    environment |= {"PYTHONPATH": str(installed), "NUMBA_CACHE_DIR": str(installed / "sums")}
    done = subprocess.run(
        command, input=text, capture_output=True, text=True, cwd=installed, env=environment, timeout=120, check=False
    )
    assert done.returncode == 0, done.stderr
    return done.stdout


def test_the_command_answers_a_sum_and_knows_every_one(installed: Path) -> None:
    command = str(installed / "bin" / "reedmace")
    answer = json.loads(run(installed, command, "compute", "tank-volume", text=json.dumps(QUESTION)))
    assert answer["gross_l"] == pytest.approx(162, rel=0.2)
    named = run(installed, command, "compute", "--list")
    assert all(name in named for name in ("rank-filters", "shared-sump", "evaporation"))


def test_ones_own_code_uses_the_core_with_its_types_and_tables(installed: Path) -> None:
    code = (
        "from reedmace.core.computations import compute; from reedmace.core.filter.kinds import KINDS; import reedmace,"
        " pathlib; here = pathlib.Path(reedmace.__file__).parent; print((here / 'py.typed').exists(), len(KINDS) >="
        " 8, compute('waste-load', {'net_l': 100, 'animals': [{'species_id': 'zebra-danio', 'count':"
        " 6}]}).ammonia_mg_n_day > 0, str(here))"
    )
    typed, table, load, where = run(installed, sys.executable, "-c", code).split()
    assert (typed, table, load) == ("True", "True", "True")
    assert where.startswith(str(installed))
