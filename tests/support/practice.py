"""Practice tanks played by a script: by the advice, or by a lesson's named mistake."""

from dataclasses import dataclass, field
from datetime import UTC, datetime
from typing import Any

from reedmace.core.cycle import CycleReadinessQuestion, cycle_readiness
from reedmace.core.cycle.advice.action import Action
from reedmace.core.cycle.advice.groups import ramp
from reedmace.core.cycle.record.log import KitSteps
from reedmace.core.filter.shelf_box import boxes_of
from reedmace.logbook.replay.current_plans import filter_plan
from reedmace.logbook.replay.entries import Entry
from reedmace.logbook.replay.equipment import installed_filters, steps_of
from reedmace.logbook.replay.state import LogbookState, replay
from reedmace.practice.begin import begin
from reedmace.practice.clock import Jump, Until, jump
from reedmace.practice.decisions import advice_at, log_at
from reedmace.practice.equipment import jugs
from reedmace.practice.judgement import EndPage, end_page, ended_together
from reedmace.practice.kit import read_kit
from reedmace.practice.lesson import lessons
from reedmace.practice.record import ENTRY_MINUTES, ChangedSetting, Practice, Setting, SidePlace
from reedmace.practice.side_by_side import Member, begin_side_by_side, jump_together, with_shared_media
from reedmace.practice.starts import NET_L
from reedmace.practice.truth import given_of, shown_by, true_run

NOW = datetime(2026, 3, 1, 8, tzinfo=UTC)


@dataclass
class Player:
    """A keeper at a practice tank. lesson: its id; seed: of the tank; side: which of several it is."""

    lesson: str
    seed: int
    side: SidePlace | None = None
    practice: Practice = field(init=False)
    entries: list[Entry] = field(init=False)

    def __post_init__(self) -> None:
        self.practice, self.entries = begin(lessons()[self.lesson], self.seed, NOW, side=self.side)

    def write(self, **body: Any) -> None:
        """Write an entry at the clock, which moves on by a minute."""
        n, at = len(self.entries) + 1, self.practice.now()
        self.entries.append(
            Entry.model_validate({"id": n, "key": f"player-{n:05d}", "at": at, "written_at": at, "body": body})
        )
        self.practice = self.practice.model_copy(update={"minutes": self.practice.minutes + ENTRY_MINUTES})

    def set(self, name: Setting, value: float) -> None:
        """ChangedSetting food, air or heater; nothing where it stands so."""
        if self.practice.setting(name, {"feed": 1.0, "air-stone": 0.0}.get(name, -1.0)) == value:
            return
        one = ChangedSetting(minute=self.practice.minutes, name=name, value=value)
        self.practice = self.practice.set_to([one])

    def test(self) -> dict[str, Any]:
        """Test with the kit, read by a careful eye, and write it down."""
        run = true_run(self.practice, self.entries)
        seen = read_kit(shown_by(self.practice, run.samples[-1]), KitSteps(), self.practice.seed, self.practice.minutes)
        self.write(kind="reading", **seen)
        return seen

    def wait(self, until: Until = "day") -> Jump:
        """Let time pass."""
        passed = jump(self.practice, self.entries, until, None)
        self.practice = self.practice.passed(passed.minutes)
        return passed

    def attend(self, passed: Jump) -> None:
        """Do about a filter that stands still, or runs again, what the screen says."""
        seen = passed.stopped or ""
        if "stands still" in seen:
            self.write(kind="outage", running=False)
            self.set("air-stone", 1.0)
            self.set("feed", 0.0)
        elif "starts again" in seen:
            self.write(kind="outage", running=True)
            self.set("feed", 0.5)

    def begin_cycle(self, **plan: Any) -> None:
        """Plan the cycle, from now."""
        self.write(kind="cycle-plan", started_at=self.practice.now().isoformat(), **plan)

    def follow(self) -> None:
        """Test, and do what the advice says for now."""
        self.test()
        advice = advice_at(self.practice, self.entries, self.practice.minutes)
        if advice is None:
            return
        now = [a for a in (advice.first, *advice.then) if a.when in ("now", "tonight")]
        for action in now:
            self.do(action)
        if self.entries[-1].body.kind == "dose":
            # As the screen asks an hour after: is the dose in the water?
            self.practice = self.practice.model_copy(update={"minutes": self.practice.minutes + 100})
            again = advice_at(self.practice, self.entries, self.practice.minutes)
            if again is not None and any(a.do == "test" and a.when == "now" for a in (again.first, *again.then)):
                self.test()
        wanted = {a.do for a in now}
        self.set("feed", 0.25 if "feed-little" in wanted else 1.0)
        if wanted & {"aerate", "start-filter"}:
            self.set("air-stone", 1.0)

    def do(self, action: Action) -> None:
        """Do one thing that is advised, and write it down."""
        share = action.share or (action.amount / NET_L if action.amount_unit == "L" and action.amount else None)
        if action.do == "dose-ammonia" and action.raise_mg_n_l:
            self.write(kind="dose", raise_mg_n_l=action.raise_mg_n_l)
        elif action.do == "raise-kh" and action.raise_dkh:
            self.write(kind="alkalinity", raise_dkh=action.raise_dkh)
        elif action.do == "change-water" and share:
            for _ in range(action.times_count):
                self.write(kind="water-change", share=min(share, 0.95))
        elif action.do in ("warm", "cool") and action.to_c:
            self.set("heater", action.to_c)
        elif action.do == "add-animals":
            self.add_advised()

    def add_advised(self) -> None:
        """Put in the group the stocking ramp names next."""
        log = log_at(self.practice, self.entries, self.practice.minutes)
        assert log is not None
        ready = cycle_readiness(CycleReadinessQuestion(log=log))
        for step in ramp(log, ready)[:1]:
            for one in step.add:
                self.write(kind="stocking", species_id=one.species_id, count=one.count)

    def choose(self, filter_id: str) -> None:
        """Take one of the lesson's boxes instead of what hangs there, and do every step but those that wait."""
        plan = filter_plan(self.state())
        boxes = [f for item in given_of(self.practice).shelf for f in boxes_of(item)]
        box = next(f for f in boxes if f.id == filter_id)
        hung = {"key": filter_id, "filter": box.model_dump(mode="json")}
        self.write(**{**plan.model_dump(mode="json"), "filters": [hung]})
        self.fit()

    def fit(self) -> None:
        """Do every step at what hangs there but those that wait."""
        for one in installed_filters(self.state()):
            for step in steps_of(self.state(), one).steps:
                if not step.wait_minutes:
                    self.write(kind="step-done", filter_key=one.key, step_id=step.id)

    def hold_jug(self) -> float:
        """Time every outlet, write it down and tell what they move together, L/h."""
        start = given_of(self.practice)
        now = true_run(self.practice, self.entries).samples[-1]
        found = jugs(self.practice, start, self.entries, now)
        for one in found:
            self.write(kind="flow-test", filter_key=one.filter_key, container_l=one.container_l, times_s=one.times_s)
        return sum(one.container_l * 3600 * len(one.times_s) / sum(one.times_s) for one in found)

    def state(self) -> LogbookState:
        """Its logbook, replayed."""
        return replay(self.entries)

    def end(self) -> EndPage:
        """The page at the end."""
        return end_page(self.practice, self.entries)


class Group:
    """A keeper at every tank of a lesson side by side, or at its only one. lesson: its id; seed: of the play."""

    def __init__(self, lesson: str, seed: int) -> None:
        self.lesson = lesson
        begun = begin_side_by_side(lessons()[lesson], seed, NOW, "beside", "play")
        found = [Player(lesson, practice.seed, practice.side) for _, practice, _ in begun]
        self.players = found or [Player(lesson, seed)]

    def share(self) -> None:
        """Let what is moved between the tanks be moved in truth."""
        for player, member in zip(self.players, with_shared_media(self.members()), strict=True):
            player.practice = member.practice

    def members(self) -> list[Member]:
        """The tanks as the clock takes them."""
        return [Member(player.practice, player.entries) for player in self.players]

    def wait(self, until: Until = "day") -> Jump:
        """Let time pass on all of them."""
        self.share()
        jumps = jump_together(self.members(), until)
        for player, passed in zip(self.players, jumps, strict=True):
            player.practice = player.practice.passed(passed.minutes)
        return jumps[0]

    def end(self) -> list[EndPage]:
        """The pages at the end."""
        self.share()
        return ended_together([(n, player.end()) for n, player in enumerate(self.players, 1)])
