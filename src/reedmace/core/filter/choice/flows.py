"""Flows of a table of boxes on a tank, what hangs there with its own plumbing and media."""

import numpy as np

from reedmace.core.filter.choice.candidates import RankFiltersQuestion
from reedmace.core.filter.filter_table import FilterTable, Floats
from reedmace.core.filter.water_path import Delivered, deliver


def flows_here(q: RankFiltersQuestion, table: FilterTable, feed: float | Floats) -> Delivered:
    """Flows of a table on this tank; what hangs there with its own plumbing and media.

    q: the question; table: n filters, some perhaps more than once; feed: food in g/day, of all or of each (n,).
    """
    got = deliver(table, q.site, q.plumbing, feed, q.temperature_c, days=q.days_since_cleaning, hose_m=q.hose_m or None)
    for one in q.installed:
        rows = np.array([i for i, f in enumerate(table.filters) if f.id == one.filter_id], dtype=np.int64)
        if not len(rows):
            continue
        packed = {one.filter_id: one.media} if one.media else None
        fed = feed if isinstance(feed, float | int) else feed[rows]
        own = deliver(
            table.taken(rows), q.site, one.plumbing, fed, q.temperature_c, days=q.days_since_cleaning, packed=packed
        )
        for mine, theirs in zip(vars(got).values(), vars(own).values(), strict=True):
            mine[rows] = theirs
    return got
