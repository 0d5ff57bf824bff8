"""Redundant pairs of filters: together they carry the flow, each alone carries the load."""

from reedmace.core.computations import compute
from reedmace.demo.sample_boxes import SAMPLE_BOXES


def test_no_pair_of_canisters_wider_than_the_tank_is_ranked() -> None:
    wide = {f.id: f.width_cm for f in SAMPLE_BOXES if f.kind == "canister"}

    def widths(length: float) -> list[float]:
        room = {
            "net_l": 60,
            "length_cm": length,
            "width_cm": 40,
            "water_depth_cm": 38,
            "behind_cm": 3,
            "beneath_cm": 70,
        }
        found = compute(
            "rank-filters",
            {
                "site": room,
                "animals": [{"species_id": "fancy-goldfish", "count": 2}],
                "own_filters": [f.model_dump() for f in SAMPLE_BOXES],
            },
        )
        return [sum(wide[i] for i in p.filter_ids) for p in found.pairs if all(i in wide for i in p.filter_ids)]

    short, roomy = widths(33), widths(45)
    assert short
    assert max(short) <= 33 < max(roomy) <= 45
