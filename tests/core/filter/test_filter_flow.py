"""Outlets of a filter: a bar's holes, a nozzle, a flared pipe."""

from reedmace.core.filter.filter_flow import outlet_of
from reedmace.core.filter.site.site import Plumbing
from reedmace.core.flow.operating_point_schemas import Fitting
from reedmace.demo.sample_boxes import SAMPLE_BOXES

CANISTER = next(f for f in SAMPLE_BOXES if f.kind == "canister")


def outlet(*kinds: str):
    fittings = [Fitting.model_validate({"kind": kind}) for kind in kinds]
    return outlet_of(CANISTER, Plumbing(hose_bore_mm=16, fittings=fittings), 800)


def test_a_flared_pipe_is_a_wide_slow_jet_a_nozzle_a_narrow_one_and_a_bar_many_small() -> None:
    flared, nozzle, bar = outlet("flared-pipe"), outlet("nozzle"), outlet("spray-bar")
    assert flared.bore_mm == 32
    assert nozzle.bore_mm == 14
    assert (bar.bore_mm, bar.holes_count) == (4, 14)
    # A bar is what the water leaves by, where both are fitted.
    assert outlet("flared-pipe", "spray-bar") == bar


def test_what_makes_no_jet_has_no_outlet() -> None:
    sponge = next(f for f in SAMPLE_BOXES if f.kind == "sponge")
    assert outlet_of(sponge, Plumbing(), 300) is None
    assert outlet_of(CANISTER, Plumbing(), 0.5) is None
