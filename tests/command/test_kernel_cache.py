"""Compiled kernels are those of the sources that stand there."""

from pathlib import Path

import pytest

import reedmace
from reedmace.command.kernel_cache import clear_stale, fingerprint, is_current, kernel_sources, record_fingerprint


@pytest.fixture
def package(tmp_path: Path) -> Path:
    folder = tmp_path / "pond"
    (folder / "water").mkdir(parents=True)
    files = {
        "__init__.py": "",
        "water/__init__.py": "",
        "water/solve_kernel.py": "from numba import njit\nfrom pond.water import losses\n",
        "water/losses.py": "from pond.constants import GRAVITY\n",
        "constants.py": "GRAVITY = 9.81\n",
        "words.py": "HELLO = 1\n",
    }
    for name, text in files.items():
        (folder / name).write_text(text)
    return folder


def test_what_a_kernel_imports_counts_however_indirectly(package: Path) -> None:
    found = {path.relative_to(package).as_posix() for path in kernel_sources(package)}
    assert found == {"water/__init__.py", "water/solve_kernel.py", "water/losses.py", "constants.py"}


def test_every_kernel_of_the_program_is_among_them() -> None:
    here = Path(reedmace.__file__).parent
    names = {path.name for path in kernel_sources(here)}
    assert {path.name for path in here.rglob("*_kernel.py")} <= names
    assert "network.py" in names
    assert "english.py" not in names


def test_a_changed_constant_makes_the_cache_stale_and_it_is_emptied(
    package: Path, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(reedmace, "__file__", str(package / "__init__.py"))
    cache = tmp_path / "numba"
    assert not is_current(cache)
    clear_stale(cache)
    record_fingerprint(cache, fingerprint())
    (cache / "water_1").mkdir()
    (cache / "water_1" / "solve.nbc").write_text("compiled")
    (package / "words.py").write_text("HELLO = 2\n")
    clear_stale(cache)
    assert (cache / "water_1" / "solve.nbc").exists()
    (package / "constants.py").write_text("GRAVITY = 9.80665\n")
    assert not is_current(cache)
    clear_stale(cache)
    assert list(cache.iterdir()) == []
