"""A ninth kind is one Python file and one drawing: added to a copy of the source, it goes through all stages."""

import json
import os
import shutil
import subprocess
import sys
from pathlib import Path
from typing import Any

import pytest

ROOT = Path(__file__).resolve().parents[4]
KIND = ROOT / "tests" / "support" / "ninth_kind" / "moving_bed.py"


@pytest.fixture(scope="module")
def said(tmp_path_factory: pytest.TempPathFactory) -> dict[str, Any]:
    source = tmp_path_factory.mktemp("nine")
    # With modification times, so that the compiled kernels beside the source are found again.
    shutil.copytree(ROOT / "src" / "reedmace", source / "reedmace")
    shutil.copy2(KIND, source / "reedmace" / "core" / "filter" / "kinds")
    done = subprocess.run(
        [sys.executable, "-m", "tests.support.ninth_kind.six_stages"],
        env={**os.environ, "PYTHONPATH": f"{source}{os.pathsep}{ROOT}"},
        cwd=source,
        capture_output=True,
        text=True,
    )
    assert done.returncode == 0, done.stderr[-2000:]
    found: dict[str, Any] = json.loads(done.stdout)
    return found


def test_it_is_one_of_nine_and_asks_for_a_drawing(said: dict[str, Any]) -> None:
    assert len(said["kinds"]) == 9
    assert said["kinds"][-1] == "moving-bed"
    # Without that file the front end does not compile.
    assert said["drawing"]


def test_it_is_judged_fitted_bought_and_kept(said: dict[str, Any]) -> None:
    assert said["fault"] is None
    assert said["ranked"] == ["tumbler"]
    assert "Tumbler" in json.dumps(said["filter"]["hanging"])
    assert "internal-power" in json.dumps(said["fit"])
    assert "Tumbler" in json.dumps(said["shopping"])
    assert "Tumbler" in json.dumps(said["keep"]["filters"])
    assert said["stock"]
    assert said["cycle"]
    assert said["today"]
