"""The cycle model of one tank as SBML Level 3 Version 1."""

from xml.etree import ElementTree as ET

import pytest

from reedmace.formats import cycle_sbml
from tests.support.cycling import METHODS, busy_log


@pytest.mark.parametrize("method", METHODS)
def test_the_sbml_names_every_state_and_every_event(method: str) -> None:
    log = busy_log(method)
    root = ET.fromstring(cycle_sbml(log, name=f"{method} <& tank>"))  # noqa: S314 - our own text
    space = {"s": "http://www.sbml.org/sbml/level3/version1/core"}
    rated = {r.get("variable") for r in root.iterfind(".//s:rateRule", space)}
    assert rated == {"TAN", "NO2", "NO3", "ALK", "FILM_A", "FILM_B", "PLANT_N", "ASLEEP"}
    assert root.find("s:model", space).get("name") == f"{method} <& tank>"
    events = list(root.iterfind(".//s:event", space))
    assert len(events) >= len(log.doses) + len(log.changes) + len(log.alkalinity)
