"""Whether the compiled kernels on disk match this program and machine, checked without loading them."""

import hashlib
import platform
import sys
from importlib.metadata import version
from pathlib import Path

import reedmace

_MARK = "compiled"


def fingerprint() -> str:
    """Fingerprint of what compiled kernels depend on: source, compiler, Python and processor."""
    found = hashlib.sha256()
    here = Path(reedmace.__file__).parent
    for path in sorted([*(here / "core").rglob("*.py"), *(here / "standins").rglob("*.py")]):
        found.update(path.read_bytes())
    for text in (version("numba"), version("llvmlite"), sys.version, platform.machine(), _processor()):
        found.update(text.encode())
    return found.hexdigest()


def _processor() -> str:
    try:
        lines = Path("/proc/cpuinfo").read_text().splitlines()
    except OSError:
        return platform.processor()
    return "".join(line for line in lines if line.startswith(("model name", "flags")))


def record_fingerprint(folder: Path, what: str) -> None:
    """Record that all kernels are compiled there. folder: of the cache; what: their fingerprint."""
    folder.mkdir(parents=True, exist_ok=True)
    (folder / _MARK).write_text(what)


def is_current(folder: Path) -> bool:
    """Whether all kernels are compiled there. folder: of the cache."""
    try:
        return (folder / _MARK).read_text() == fingerprint()
    except OSError:
        return False
