"""Where the program and its data stand, and how a start speaks."""

import os
import sys
from pathlib import Path

ROOT = Path(os.environ.get("REEDMACE_ROOT", Path(__file__).resolve().parents[3]))
VAR = Path(os.environ.get("REEDMACE_VAR", ROOT / "var"))


def say(text: str) -> None:
    """One line to who started it. text: of the line."""
    print(f"reedmace: {text}", file=sys.stderr, flush=True)
