"""Where a tank stands: a pure fold over its entries."""

from collections.abc import Iterable

from pydantic import Field

from reedmace.core.working import Part
from reedmace.logbook.entries import PLAN_KINDS, Entry


class Standing(Part):
    """The latest of each plan, the ticked steps, and every entry that still counts, oldest first."""

    tank_plan: Entry | None = None
    stock_plan: Entry | None = None
    filter_plan: Entry | None = None
    fit_plan: Entry | None = None
    cycle_plan: Entry | None = None
    kit_plan: Entry | None = None
    steps_done: dict[str, Entry] = Field(default_factory=dict)
    flow_tests: list[Entry] = Field(default_factory=list)
    timed_flows: list[Entry] = Field(default_factory=list)
    readings: list[Entry] = Field(default_factory=list)
    doses: list[Entry] = Field(default_factory=list)
    alkalinity: list[Entry] = Field(default_factory=list)
    changes: list[Entry] = Field(default_factory=list)
    seeds: list[Entry] = Field(default_factory=list)
    events: list[Entry] = Field(default_factory=list)
    filter_running: bool = True


_LISTS = {
    "flow-test": "flow_tests",
    "timed-flow": "timed_flows",
    "reading": "readings",
    "dose": "doses",
    "alkalinity": "alkalinity",
    "water-change": "changes",
    "seed": "seeds",
}


def fold(entries: Iterable[Entry]) -> Standing:
    """Where the tank stands.

    entries: all of one tank's, in any order. Superseded entries do not count; plans go by the order they were
    written, everything else by the time it happened.
    """
    kept = sorted(entries, key=lambda e: e.id)
    replaced = {e.supersedes for e in kept if e.supersedes is not None}
    standing = Standing()
    live = [e for e in kept if e.id not in replaced and e.body.kind != "withdrawal"]
    for e in live:
        if e.body.kind in PLAN_KINDS:
            setattr(standing, e.body.kind.replace("-", "_"), e)
        elif e.body.kind == "step-done":
            if e.body.done:
                standing.steps_done[e.body.step_id] = e
            else:
                standing.steps_done.pop(e.body.step_id, None)
    for e in sorted(live, key=lambda e: (e.at, e.id)):
        if e.body.kind in _LISTS:
            getattr(standing, _LISTS[e.body.kind]).append(e)
        elif e.body.kind not in PLAN_KINDS and e.body.kind != "step-done":
            standing.events.append(e)
            if e.body.kind == "outage":
                standing.filter_running = e.body.running
    return standing
