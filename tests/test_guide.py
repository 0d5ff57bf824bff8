"""The guide for one's own code says what is true."""

import doctest
from pathlib import Path


def test_every_example_of_the_guide_gives_what_it_says(root: Path) -> None:
    found = doctest.testfile(str(root / "docs" / "own-code.md"), module_relative=False)
    assert found.attempted >= 12
    assert found.failed == 0
