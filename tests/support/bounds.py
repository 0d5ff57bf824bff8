"""How many random cases a trial runs: bounded in the suite, all of them under `./reedmace trials`."""

import os

WHOLE = os.environ.get("REEDMACE_WHOLE") == "1"


def bounded(whole: int, suite: int) -> int:
    """Number of cases of a trial. whole: under `./reedmace trials`; suite: in the suite."""
    return whole if WHOLE else suite
