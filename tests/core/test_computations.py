"""Computations by name, from plain data."""

import pytest
from pydantic import ValidationError

from reedmace.core.computations import COMPUTATIONS, compute


def test_an_answer_is_of_the_class_its_computation_names() -> None:
    answer = compute("tank-volume", {"length_cm": 60, "width_cm": 30, "height_cm": 36})
    assert type(answer) is COMPUTATIONS["tank-volume"].answer


def test_unknown_names_and_figures_out_of_range_are_refused() -> None:
    with pytest.raises(KeyError):
        compute("no-such-sum", {})
    with pytest.raises(ValidationError):
        compute("tank-volume", {"length_cm": -1, "width_cm": 30, "height_cm": 36})


def test_the_registry_cannot_be_written_from_outside() -> None:
    with pytest.raises(TypeError):
        COMPUTATIONS["tank-volume"] = None  # type: ignore[index]
