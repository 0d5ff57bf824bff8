"""List of packages that ship with Reedmace and their licences, written to docs and checked."""

import json
import re
from collections.abc import Iterator
from importlib.metadata import distribution
from pathlib import Path
from typing import Any

from reedmace.command.paths import ROOT

LIST = ROOT / "docs" / "packages.md"
FREE = frozenset(
    {
        "0BSD",
        "Apache-2.0",
        "Apache-2.0 WITH LLVM-exception",
        "BSD",
        "BSD-2-Clause",
        "BSD-3-Clause",
        "CC0-1.0",
        "ISC",
        "MIT",
        "MIT-0",
        "MIT-CMU",
        "OFL-1.1",
        "PSF-2.0",
        "Unlicense",
        "ZPL-2.1",
        "Zlib",
    }
)
"""Licences under which a part may be redistributed with Apache-2.0 code, with its own text."""
STATED = {"peewee": "MIT", "scipy": "BSD-3-Clause"}
"""Licences read from the licence file, where a package's metadata has none."""
_AS_SPDX = {"MIT License": "MIT", "BSD License": "BSD", "ZPL 2.1": "ZPL-2.1", "The Unlicense (Unlicense)": "Unlicense"}


def shipped() -> Iterator[tuple[str, str, str]]:
    """Name, kind and licence of every package at run time, sorted. An unknown licence is an empty text."""
    lines = (ROOT / "requirements" / "app.txt").read_text().splitlines()
    for line in lines:
        if found := re.match(r"([A-Za-z0-9._-]+)(\[[a-z,]+\])?==", line):
            yield found[1], "Python", _of_python(found[1])
    lock = json.loads((ROOT / "frontend" / "package-lock.json").read_text())
    for where, package in sorted(lock["packages"].items()):
        if where and not package.get("dev"):
            yield where.rpartition("node_modules/")[2], "page", package.get("license", "")


def _of_python(name: str) -> str:
    metadata: Any = distribution(name).metadata
    said = STATED.get(name) or metadata.get("License-Expression") or metadata.get("License") or ""
    if not said:
        kinds = [c.rpartition(" :: ")[2] for c in metadata.get_all("Classifier") or [] if c.startswith("License")]
        said = kinds[0] if kinds else ""
    return _AS_SPDX.get(said, said)


def is_free(licence: str) -> bool:
    """Whether all of a licence's parts, or one of its alternatives, are on the list. licence: as SPDX writes it."""
    bare = licence.strip("()")
    choices = re.split(r"\s+OR\s+", bare)
    return any(all(part.strip("() ") in FREE for part in re.split(r"\s+(?:AND|and)\s+", one)) for one in choices)


def table() -> str:
    """The list as in docs."""
    rows = sorted(set(shipped()), key=lambda row: (row[1], row[0].lower()))
    return "\n".join(
        [
            "# What ships with Reedmace",
            "",
            (
                "Every package that runs with keepers, and its licence; `./reedmace check` holds the list to what is"
                " locked and each licence"
            ),
            (
                "to those that may be passed on with Apache-2.0 code. Versions stand in `requirements/app.txt` and"
                " `frontend/package-lock.json`."
            ),
            (
                "MariaDB, Chromium (tests alone) and nginx (tests, and a sample) are Debian's packages and are not"
                " passed on. `./reedmace licences`"
            ),
            "writes this anew.",
            "",
            "| package | runs in | licence |",
            "|---|---|---|",
            *(f"| {name} | {kind} | {licence} |" for name, kind, licence in rows),
            "",
        ]
    )


def faults(kept: Path = LIST) -> list[str]:
    """Faults of the list. kept: its file."""
    wrong = [f"{name}: {licence or 'no licence said'}" for name, _, licence in shipped() if not is_free(licence)]
    if not kept.exists() or kept.read_text() != table():
        wrong.append(f"{kept.relative_to(ROOT)} is not what is locked: run ./reedmace licences")
    return wrong


def write() -> int:
    """Write the list."""
    LIST.write_text(table())
    return 0
