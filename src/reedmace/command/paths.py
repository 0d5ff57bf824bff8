"""Paths of the program and its data, and messages of the launcher."""

import os
import sys
from pathlib import Path

ROOT = Path(os.environ.get("REEDMACE_ROOT", Path(__file__).resolve().parents[3]))
FRONT = ROOT / "frontend"
VAR = Path(os.environ.get("REEDMACE_VAR", ROOT / "var"))


def say(text: str) -> None:
    """Print one line to the terminal. text: of the line."""
    print(f"reedmace: {text}", file=sys.stderr, flush=True)
