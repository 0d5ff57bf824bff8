"""State of a tank: a pure fold over its entries."""

from collections.abc import Iterable
from datetime import datetime

from pydantic import AwareDatetime, Field, computed_field

from reedmace.core.contract import Part, Share
from reedmace.core.film import grown_share
from reedmace.core.memo import Memoizing
from reedmace.logbook.plans.plan_kinds import FilterPlan, FittedFilter
from reedmace.logbook.replay.entries import PLAN_KINDS, Entry, Outage, Stocking


class TakenOff(Part):
    """A filter removed from the tank, with its share of the total film."""

    key: str
    name: str
    at: AwareDatetime
    share: Share


def shares_of(filters: list[FittedFilter], since: dict[str, datetime], at: datetime) -> dict[str, float]:
    """Share of the total film each filter holds, by its key.

    As its media room stands to all of it (memory), and as far as it has grown in since it was hung there: one hung
    beside an old one has next to none at first. filters: all that hang together; since: when each was hung; at: aware
    time.
    """
    grown = {f.key: grown_share((at - since.get(f.key, at)).total_seconds() / 86400) for f in filters}
    most = max(grown.values(), default=0.0)
    # Filters that are all new share the film by volume alone.
    rooms = {
        f.key: max(f.filter.media_l, 0.05) * (max(grown[f.key] / most, 0.02) if most > 0 else 1.0) for f in filters
    }
    return {key: room / sum(rooms.values()) for key, room in rooms.items()}


class LogbookState(Memoizing):
    """The latest of each plan, the ticked steps, and every valid entry, oldest first."""

    tank_plan: Entry | None = None
    stock_plan: Entry | None = None
    filter_plan: Entry | None = None
    fit_plan: Entry | None = None
    cycle_plan: Entry | None = None
    kit_plan: Entry | None = None
    situation: Entry | None = None
    stock_before: Entry | None = Field(
        default=None, description="The stock plan that stood when animals were first written down as put in"
    )
    steps_done: dict[str, dict[str, Entry]] = Field(
        default_factory=dict, description="Ticked steps by filter key and step id"
    )
    flow_tests: list[Entry] = Field(default_factory=list)
    timed_flows: list[Entry] = Field(default_factory=list)
    readings: list[Entry] = Field(default_factory=list)
    doses: list[Entry] = Field(default_factory=list)
    alkalinity: list[Entry] = Field(default_factory=list)
    changes: list[Entry] = Field(default_factory=list)
    seeds: list[Entry] = Field(default_factory=list)
    events: list[Entry] = Field(default_factory=list)
    taken_off: list[TakenOff] = Field(default_factory=list, description="By a later filter plan; its film went with it")
    hung_since: dict[str, AwareDatetime] = Field(default_factory=dict, description="Of each filter, by its key")
    first_hung: AwareDatetime | None = Field(default=None, description="When the first filters were written down")
    stopped: list[str] = Field(default_factory=list, description='Keys of filters that stand still; "*" for all')

    @computed_field  # type: ignore[prop-decorator]
    @property
    def filter_running(self) -> bool:
        """Whether any filter runs, as far as recorded."""
        hanging = [f.key for f in self.filters()]
        return "*" not in self.stopped and not (hanging and set(hanging) <= set(self.stopped))

    def filters(self) -> list[FittedFilter]:
        """The filters on the tank."""
        body = self.filter_plan.body if self.filter_plan else None
        return body.hanging if isinstance(body, FilterPlan) else []

    def runs(self, key: str) -> bool:
        """Whether one filter runs. key: its key."""
        return "*" not in self.stopped and key not in self.stopped

    def ticked(self, key: str) -> dict[str, Entry]:
        """Steps ticked at one filter, by step id. key: its key."""
        return self.steps_done.get(key, {})


_LATEST = {**{kind: kind.replace("-", "_") for kind in PLAN_KINDS}, "situation": "situation"}
"""Entry kinds of which only the newest counts, and the field it is stored in."""
_LISTS = {
    "flow-test": "flow_tests",
    "timed-flow": "timed_flows",
    "reading": "readings",
    "dose": "doses",
    "alkalinity": "alkalinity",
    "water-change": "changes",
    "seed": "seeds",
}


def _stop_or_start(state: LogbookState, outage: Outage) -> None:
    key = outage.filter_key or "*"
    if not outage.running:
        state.stopped = sorted({*state.stopped, key})
    elif key == "*":
        state.stopped = []
    else:
        # A filter that starts after all stopped leaves the others stopped.
        others = [f.key for f in state.filters()] if "*" in state.stopped else state.stopped
        state.stopped = [k for k in others if k != key]


def _take_off(state: LogbookState, new: Entry) -> None:
    """Record filters the new plan no longer has. Another under the same key, as 0.1 wrote it, is another filter."""
    before = state.filters()
    stay = {(f.key, f.filter.id) for f in new.body.hanging} if isinstance(new.body, FilterPlan) else set()
    shares = shares_of(before, state.hung_since, new.at)
    state.taken_off += [
        TakenOff(key=f.key, name=f.filter.name, at=new.at, share=shares[f.key])
        for f in before
        if (f.key, f.filter.id) not in stay
    ]
    installed = {(f.key, f.filter.id) for f in before}
    state.hung_since = {key: state.hung_since[key] if (key, name) in installed else new.at for key, name in stay}
    if stay and state.first_hung is None:
        state.first_hung = new.at


def _stock_before(live: list[Entry]) -> Entry | None:
    """The stock plan when animals were first added; the newest where none were. live: in the order written."""
    plan = None
    for e in live:
        if isinstance(e.body, Stocking) and e.body.count > 0:
            break
        plan = e if e.body.kind == "stock-plan" else plan
    return plan


def replay(entries: Iterable[Entry]) -> LogbookState:
    """The state of a tank.

    entries: all of one tank's, in any order. Superseded entries do not count; plans go by the order they were
    written, everything else by the time it happened.
    """
    kept = sorted(entries, key=lambda e: e.id)
    replaced = {e.supersedes for e in kept if e.supersedes is not None}
    state = LogbookState()
    live = [e for e in kept if e.id not in replaced and e.body.kind != "withdrawal"]
    for e in live:
        if e.body.kind in _LATEST:
            if e.body.kind == "filter-plan":
                _take_off(state, e)
            setattr(state, _LATEST[e.body.kind], e)
        elif e.body.kind == "step-done":
            ticked = state.steps_done.setdefault(e.body.filter_key, {})
            if e.body.done:
                ticked[e.body.step_id] = e
            else:
                ticked.pop(e.body.step_id, None)
    state.stock_before = _stock_before(live)
    for e in sorted(live, key=lambda e: (e.at, e.id)):
        if e.body.kind in _LISTS:
            getattr(state, _LISTS[e.body.kind]).append(e)
        elif e.body.kind not in _LATEST and e.body.kind != "step-done":
            state.events.append(e)
            if e.body.kind == "outage":
                _stop_or_start(state, e.body)
    return state
