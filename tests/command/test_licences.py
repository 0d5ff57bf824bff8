"""What ships may be passed on: the list is whole, and a licence that asks for more is caught."""

import pytest

from reedmace.command import licences
from reedmace.command.paths import ROOT


@pytest.mark.parametrize(
    ("licence", "free"),
    [
        ("MIT", True),
        ("BSD-3-Clause AND 0BSD AND MIT AND Zlib AND CC0-1.0", True),
        ("BSD-2-Clause AND Apache-2.0 WITH LLVM-exception", True),
        ("Apache-2.0 OR GPL-2.0-only", True),
        ("(MIT OR CC0-1.0)", True),
        ("GPL-3.0-or-later", False),
        ("MIT AND GPL-2.0-only", False),
        ("AGPL-3.0", False),
        ("", False),
    ],
)
def test_a_licence_is_free_when_each_part_of_one_choice_is(licence: str, free: bool) -> None:
    assert licences.is_free(licence) is free


def test_a_package_of_another_licence_and_an_old_list_are_named(monkeypatch: pytest.MonkeyPatch) -> None:
    old = ROOT / "docs" / "using.md"
    monkeypatch.setattr(
        licences, "shipped", lambda: iter([("reeds", "Python", "GPL-3.0-only"), ("rush", "page", "ISC")])
    )
    wrong = licences.faults(old)
    assert wrong[0] == "reeds: GPL-3.0-only"
    assert "run ./reedmace licences" in wrong[1]
    assert len(wrong) == 2
