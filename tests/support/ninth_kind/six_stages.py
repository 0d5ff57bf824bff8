"""A tank with a filter of the ninth kind through all six stages. Prints what each says of it, as JSON."""

import json
from datetime import UTC, datetime

from reedmace.command.generated import generated_drawings
from reedmace.core.computations import compute
from reedmace.core.filter.filter_box import Filter
from reedmace.core.filter.kinds import KINDS
from reedmace.demo.sample_boxes import SAMPLE_BOXES
from reedmace.logbook.stages import (
    cycle_start_view,
    filter_view,
    fit_view,
    keep_view,
    rows_or_fault,
    stock_view,
    tank_view,
    today_view,
)
from reedmace.logbook.stages.fit import shopping_list_view
from tests.support.tanks import state_of

NOW = datetime(2026, 11, 29, 12, tzinfo=UTC)
internal = next(f for f in SAMPLE_BOXES if f.kind == "internal" and (f.tank_up_to_l or 0) >= 100)
box = Filter(**{**internal.model_dump(), "id": "tumbler", "name": "Tumbler", "kind": "moving-bed"})
state = state_of(
    {"kind": "tank-plan", "tank": {"length_cm": 80, "width_cm": 35, "height_cm": 40}},
    {"kind": "stock-plan", "animals": [{"species_id": "guppy", "count": 6}]},
    {"kind": "filter-plan", "filters": [{"key": "f1", "filter": box.model_dump()}]},
)
stages, fault = rows_or_fault(state, NOW)
site = {"net_l": 90, "length_cm": 80, "width_cm": 35, "water_depth_cm": 36}
ranked = compute("rank-filters", {"site": site, "own_filters": [box.model_dump()]})
print(
    json.dumps(
        {
            "kinds": [kind.name for kind in KINDS],
            "drawing": "./moving-bed" in generated_drawings(),
            "fault": fault,
            "tank": tank_view(state).model_dump(mode="json") is not None,
            "stock": stock_view(state).verdict,
            "filter": filter_view(state).model_dump(mode="json"),
            "fit": fit_view(state, NOW).model_dump(mode="json"),
            "cycle": cycle_start_view(state, NOW).model_dump(mode="json"),
            "keep": keep_view(state, NOW).model_dump(mode="json"),
            "today": today_view(state, NOW)[0].model_dump(mode="json"),
            "shopping": shopping_list_view(state).model_dump(mode="json"),
            "ranked": [r.filter_id for r in ranked.ranked] + [e.filter_id for e in ranked.excluded],
        },
        default=str,
    )
)
