"""The exported network names every part once, in the order of the water; its heads are checked in tests/reference."""

import re

import pytest

from reedmace.core.flow import OperatingPointQuestion
from reedmace.core.flow.overflow import OverflowCheckQuestion
from reedmace.formats.epanet import plumbing_inp

QUESTION = OperatingPointQuestion.model_validate(
    {
        "pump": {"max_flow_lph": 800, "max_head_m": 1.6},
        "hoses": [{"bore_mm": 16, "length_m": 3}],
        "fittings": [{"kind": "elbow", "count": 2}],
        "media": [
            {"media": "foam-20", "area_cm2": 200, "depth_cm": 5},
            {"media": "ceramic-rings", "area_cm2": 200, "depth_cm": 10},
        ],
    }
)


def sections(text: str) -> dict[str, list[str]]:
    parts = re.split(r"^\[(\w+)\]$", text, flags=re.M)
    return {name: body.strip().splitlines() for name, body in zip(parts[1::2], parts[2::2], strict=True)}


def test_from_the_tank_to_the_outlet_every_link_begins_where_the_last_ended() -> None:
    found = sections(plumbing_inp(QUESTION))
    links = [line.split()[:3] for name in ("PIPES", "PUMPS", "VALVES") for line in found[name]]
    assert len({name for name, _, _ in links}) == len(links)
    ends = {start: end for _, start, end in links}
    assert len(ends) == len(links)
    at, seen = "tank", []
    while at in ends:
        at = ends[at]
        seen.append(at)
    assert at == "outlet"
    assert len(seen) == len(links)
    assert {line.split()[0] for line in found["JUNCTIONS"]} == set(seen) - {"outlet"}


def test_dirt_lies_in_the_first_layer_and_half_of_it_after_a_service() -> None:
    curves = {s: sections(plumbing_inp(QUESTION, s))["CURVES"] for s in ("clean", "serviced", "dirty")}

    def lost(state: str, layer: str) -> float:
        return float([line for line in curves[state] if line.split()[0] == layer][-1].split()[2])

    layers = sorted({line.split()[0] for line in curves["clean"]} - {"pumpcurve"})
    first, other = layers
    clean, serviced, dirty = (lost(s, first) for s in ("clean", "serviced", "dirty"))
    assert serviced - clean == pytest.approx((dirty - clean) / 2)
    assert dirty > clean
    assert lost("dirty", other) == lost("clean", other)


def test_a_sump_has_its_drains_and_an_emergency_one_if_there_is_one() -> None:
    overflow = OverflowCheckQuestion.model_validate(
        {
            "return_lph": 1000,
            "drains_count": 2,
            "emergency_bore_mm": 32,
            "drain_fall_m": 0.9,
            "tank_surface_cm2": 3600,
            "sump_free_l": 30,
        }
    )
    found = sections(plumbing_inp(QUESTION, "clean", overflow))
    drains = [line.split()[0] for line in found["PIPES"] if "overflow" in line]
    assert drains == ["drain0", "drain1", "emergency"]
    assert " overflow 0.9" in [" " + line.strip() for line in found["RESERVOIRS"]]
