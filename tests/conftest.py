"""Fixtures every kind of test shares: one MariaDB for the session, in a folder of its own."""

import os
import tempfile
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from hypothesis import settings

from reedmace.command.mariadb import MariaDB
from tests.support.chromium import CONTEXT, LAUNCH

ROOT = Path(__file__).resolve().parents[1]

# A machine busy with other builds takes any time it likes: speed is the bench's business, never a test's.
settings.register_profile("reedmace", deadline=None)
settings.load_profile("reedmace")


@pytest.fixture(scope="session")
def mariadb() -> Iterator[MariaDB]:
    """A running server with the tables made."""
    with tempfile.TemporaryDirectory(prefix="reedmace-test-") as folder:
        server = MariaDB(Path(folder))
        server.start()
        yield server
        server.stop()


@pytest.fixture(scope="session")
def browser_type_launch_args() -> dict[str, Any]:
    """Debian's Chromium."""
    return LAUNCH


@pytest.fixture(scope="session")
def browser_context_args() -> dict[str, Any]:
    """A kitchen-table laptop."""
    return CONTEXT


@pytest.fixture(scope="session")
def root() -> Path:
    """The checkout."""
    return ROOT


@pytest.fixture(scope="session")
def command_environment() -> dict[str, str]:
    """What ./reedmace sets before it hands over to Python."""
    return {**os.environ, "PYTHONPATH": str(ROOT / "src")}
