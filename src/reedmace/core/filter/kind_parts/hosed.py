"""Parts shared by kinds on hoses: space beneath the tank, taps, clamps and fittings."""

from collections.abc import Iterable

import numpy as np

from reedmace.core.filter.filter_box import Filter
from reedmace.core.filter.filter_table import FilterTable
from reedmace.core.filter.kind_parts.fitting import MishapDraft, Purchase
from reedmace.core.filter.kind_parts.limit import Bools, Limit
from reedmace.core.filter.kind_parts.placement import PlacedIssue, ResolvedLayout, issue_at
from reedmace.core.filter.kind_parts.traits import kind_traits
from reedmace.core.filter.site.site import Site
from reedmace.core.quantity import formatting


def stands_beneath(t: FilterTable, mine: Bools, site: Site, over_cm: float) -> Limit:
    """Limit: a body must fit its height under the tank.

    t: filters; mine: those it holds for; site: the tank's; over_cm: room over it for hoses and hands.
    """
    tall = np.where(mine, t.height_cm + over_cm, 0.0)
    return Limit(
        mine & (site.beneath_cm < tall),
        lambda i: (
            f"stands {formatting.cm(t.height_cm[i], 'g')} high and wants {formatting.cm(over_cm, 'g')} over it for the"
            f" hoses; there are {formatting.cm(site.beneath_cm, 'g')} under the tank"
        ),
        lambda i: f"find {formatting.cm(tall[i] - site.beneath_cm, 'g')} more height below or beside the tank",
        "beneath_cm",
        tall,
    )


def foot_most_cm(filters: Iterable[Filter], height_cm: float) -> float:
    """Highest foot at which every body under the tank keeps the space over it, cm.

    filters: on the tank; height_cm: free height under it with feet on the floor.

    >>> foot_most_cm([], 70.0)
    70.0
    """
    spaces = [
        height_cm - f.height_cm - over for f in filters if (over := kind_traits()[f.kind].space_over_cm) is not None
    ]
    return max(min(spaces, default=height_cm), 0.0)


def tap_fault(g: ResolvedLayout) -> list[PlacedIssue]:
    """Fault: a flow tap under the water line. g: the ground."""
    above = g.lay.tap_above_water_cm
    if above >= 0:
        return []
    return [
        issue_at(
            "tap",
            g.outlet_x,
            g.water + above,
            f"The flow tap lies {formatting.cm(-above, 'g')} under the water line: a drip there empties the tank.",
            "Keep taps and bends above the water line.",
        )
    ]


def hose_fittings(g: ResolvedLayout, hoses: int) -> list[Purchase]:
    """Clamps, valves and elbows for a number of hoses. g: the ground; hoses: how many."""
    valves = sum(x.count for x in g.plumbing.fittings if x.kind == "quick-valve")
    elbows = sum(x.count for x in g.plumbing.fittings if x.kind == "elbow")
    found = [
        Purchase("hose clamps", 2.0 * hoses, "piece", "on the hose before the hose is pushed past the ridges"),
        Purchase("valves with quick release", float(max(2 * valves, hoses)), "piece", "both shut while half fitted"),
    ]
    if elbows:
        found.append(Purchase("elbows", float(elbows), "piece", "as planned"))
    return found


def hose_mishaps(g: ResolvedLayout) -> list[MishapDraft]:
    """What runs out when a hose or lid of a closed body comes off. g: its layout."""
    bore = g.plumbing.hose_bore_mm or g.filter.hose_bore_mm or 16.0
    return [
        MishapDraft(
            "intake-hose-off",
            "Intake hose off at the body",
            g.intake_depth,
            "It siphons until the strainer draws air.",
            "Raise the strainer: every {cm} saves {per_cm}. Clamps on both ends.",
            bore_mm=bore,
        ),
        MishapDraft(
            "return-hose-off-running",
            "Return hose off while it runs",
            g.intake_depth,
            "The pump empties the tank down to its strainer.",
            "Clamps past all the ridges; a tray with a leak alarm under the body.",
        ),
        MishapDraft(
            "return-hose-off-standing",
            "Return hose off while it stands",
            g.returned_cm,
            "It siphons back until the outlet draws air.",
            (
                "The siphon break already holds it to a centimetre."
                if g.lay.siphon_break
                else "A siphon break just under the surface."
            ),
            bore_mm=bore,
        ),
        MishapDraft(
            "lid-opened",
            "Lid opened with a valve left open",
            g.intake_depth,
            "Both hoses stand full above the open body.",
            "Shut both valves, unplug, then open; never the other way round.",
            bore_mm=bore,
        ),
    ]
