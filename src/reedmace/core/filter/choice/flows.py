"""Flows of a table of boxes on a tank, what hangs there with its own plumbing and media."""

import numpy as np

from reedmace.core.filter.choice.candidates import RankFiltersQuestion
from reedmace.core.filter.filter_table import FilterTable
from reedmace.core.filter.water_path import Delivered, deliver


def flows_here(q: RankFiltersQuestion, table: FilterTable, feed: float) -> Delivered:
    """Flows of a table on this tank; what hangs there with its own plumbing and media.

    q: the question; table: n filters; feed: food in g/day.
    """
    got = deliver(table, q.site, q.plumbing, feed, q.temperature_c, days=q.days_since_cleaning, hose_m=q.hose_m or None)
    for one in q.installed:
        at = next((i for i, f in enumerate(table.filters) if f.id == one.filter_id), None)
        if at is None:
            continue
        packed = {one.filter_id: one.media} if one.media else None
        row = table.taken(np.array([at]))
        own = deliver(row, q.site, one.plumbing, feed, q.temperature_c, days=q.days_since_cleaning, packed=packed)
        for mine, theirs in zip(vars(got).values(), vars(own).values(), strict=True):
            mine[at] = theirs[0]
    return got
