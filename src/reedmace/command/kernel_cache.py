"""Whether the compiled kernels on disk match this program and machine, checked without loading them.

The compiler compiles a kernel anew when its own file has changed, but not when a kernel it calls or a constant it
imports has: a program brought up to date would go on with figures of the old one.
"""

import ast
import hashlib
import platform
import shutil
import sys
from importlib.metadata import version
from pathlib import Path

import reedmace

_MARK = "compiled"


def fingerprint() -> str:
    """Fingerprint of what compiled kernels depend on: source, compiler, Python and processor."""
    found = hashlib.sha256()
    for path in kernel_sources(Path(reedmace.__file__).parent):
        found.update(path.read_bytes())
    for text in (version("numba"), version("llvmlite"), sys.version, platform.machine(), _processor()):
        found.update(text.encode())
    return found.hexdigest()


def kernel_sources(package: Path) -> list[Path]:
    """Files of a package that hold kernels, and those they import from it, however indirectly, in order.

    package: its folder. Commands are left out: a bench imports the whole program.
    """
    found: set[Path] = set()
    files = [path for path in package.rglob("*.py") if path.relative_to(package).parts[0] != "command"]
    asked = [path for path in files if "from numba import" in path.read_text()]
    while asked:
        path = asked.pop()
        if path not in found:
            found.add(path)
            asked += _imported(path, package)
    return sorted(found)


def _imported(path: Path, package: Path) -> list[Path]:
    """Files of the package that one of its files imports from."""
    named = [
        name
        for node in ast.walk(ast.parse(path.read_text()))
        if isinstance(node, ast.ImportFrom) and node.module
        for name in (node.module, *(f"{node.module}.{alias.name}" for alias in node.names))
    ]
    inside = [package.parent.joinpath(*name.split(".")) for name in named if name.split(".")[0] == package.name]
    files = [file for at in inside for file in (at.with_suffix(".py"), at / "__init__.py")]
    return [file for file in files if file.is_file()]


def clear_stale(folder: Path) -> None:
    """Empty a cache whose kernels were compiled from other sources or for another machine. folder: of the cache."""
    if folder.is_dir() and not is_current(folder):
        for path in folder.iterdir():
            if path.is_dir():
                shutil.rmtree(path)
            else:
                path.unlink()


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
