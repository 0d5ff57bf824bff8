"""The end of a lesson: what was true beside what was read, and each decision with what else it would have become."""

from collections.abc import Sequence
from typing import Annotated

from pydantic import Field

from reedmace.core.contract import Name, Part, number, whole
from reedmace.core.quantity.units import as_nitrogen
from reedmace.logbook.replay.entries import Entry, Reading
from reedmace.logbook.replay.state import replay
from reedmace.practice.begin import animals_added
from reedmace.practice.clock import species_name
from reedmace.practice.course import course
from reedmace.practice.decisions import Decision, cost_most, decisions, done_well
from reedmace.practice.equipment import equipment_of, equipment_words
from reedmace.practice.lesson import DAY, Ending, Given, lessons, words_of
from reedmace.practice.record import Days, Practice
from reedmace.practice.side_by_side import label_of
from reedmace.practice.truth import acts_of, given_of, tank_of
from reedmace.standins.practice_run import Run

SHOWN_EVERY_H = 6
Mg = Annotated[float, number("mg N/L", 0, 1e5)]


class TruePoint(Part):
    """The tank as it was at one moment."""

    day: Days
    ammonia_mg_n_l: Mg
    nitrite_mg_n_l: Mg
    nitrate_mg_n_l: Mg
    kh_dkh: Annotated[float, number("dKH", 0, 1000)]
    ph: Annotated[float, number("pH", 0, 14)]
    clears_mg_n_l_day: Annotated[float, number("mg N/(L day)", 0, 1e4)]
    alive_count: Annotated[int, whole(0, 10**6)]


class ReadPoint(Part):
    """What was read at one moment; null where it was not tested."""

    day: Days
    ammonia_mg_n_l: Mg | None
    nitrite_mg_n_l: Mg | None
    nitrate_mg_n_l: Mg | None


class SideEnd(Part):
    """How one of several tanks of a lesson ended."""

    tank_id: Annotated[int, whole(1, 2**53)]
    label: str
    won: bool
    verdict: str
    lost_count: Annotated[int, whole(0, 10**6)]
    uncovers: str = Field(description="How it was given, as nobody could see")


class EndPage(Part):
    """The page at the end of a lesson."""

    lesson: Name
    title: str
    won: bool
    verdict: str
    label: str = Field(default="", description="What this tank is called beside the others; empty for one alone")
    beside: list[SideEnd] = Field(default_factory=list, description="Every tank of the lesson, this one too")
    uncovers: str = Field(default="", description="How it was given, as nobody could see")
    goal: str
    teaches: str
    mistake: str = Field(default="", description="The mistake this lesson is lost by")
    rule: Name = Field(description="Key of the question of the help page behind it")
    days: Days
    lost_count: Annotated[int, whole(0, 10**6)]
    deaths: list[str]
    truth: list[TruePoint]
    read: list[ReadPoint]
    happened: list[str] = Field(description="What happened on the way, by day")
    decisions: list[Decision]
    equipment: list[str] = Field(default_factory=list, description="What the filter truly did, and how it was fitted")
    good: list[str] = Field(description="Up to three things done well")
    cost_most: str | None
    structure: str = Field(description="How this tank was made")


def ending_of(practice: Practice, start: Given, entries: Sequence[Entry], run: Run) -> Ending:
    """What a lesson is judged by. run: the true one, up to now."""
    last = run.samples[-1]
    since = next((s.minute for s in run.samples if s.alive > 0), None)
    load = sum(g.count * g.load for g in run.groups)
    hung = equipment_of(practice, start, entries, run)
    return Ending(
        days=practice.day,
        came=animals_added(entries),
        alive=last.alive,
        lost=run.lost,
        clears=min(last.clears, last.clears_nitrite),
        load=load,
        days_with_animals=0.0 if since is None else (practice.minutes - since) / DAY,
        worst=max((s.harm for s in run.samples), default=0.0),
        kh_dkh=last.kh_dkh,
        flow_lph=hung.flow_lph,
        asked_lph=hung.asked_lph,
        flow_share=last.flow,
        timed=hung.timed,
        faults=hung.faults,
    )


def reached(practice: Practice, end: Ending) -> bool:
    """Whether a tank's goal is reached. practice: which; end: as it stands."""
    lesson, side = lessons()[practice.lesson], practice.side
    own = lesson.side_by_side[side.place].reached if side else None
    return (own or lesson.reached)(end)


def ended_together(pages: Sequence[tuple[int, EndPage]]) -> list[EndPage]:
    """Their pages, each with all of them beside it; the lesson is won where every tank is. pages: by tank id."""
    beside = [
        SideEnd(
            tank_id=tank_id, label=page.label, won=page.won, verdict=page.verdict, lost_count=page.lost_count,
            uncovers=page.uncovers,
        )
        for tank_id, page in pages
    ]  # fmt: skip
    won = all(one.won for one in beside)
    return [page.model_copy(update={"beside": beside, "won": won}) for _, page in pages]


def end_page(practice: Practice, entries: Sequence[Entry]) -> EndPage:
    """The whole page. practice: as it stands; entries: all of the logbook."""
    lesson, start = lessons()[practice.lesson], given_of(practice)
    acts = acts_of(practice, start, entries)
    tank = tank_of(practice, start, entries)
    run = course(tank, acts, practice.minutes)
    end = ending_of(practice, start, entries, run)
    won = reached(practice, end)
    decided = decisions(practice, tank, entries, acts, run)
    return EndPage(
        lesson=lesson.id,
        title=lesson.title,
        label=label_of(practice),
        uncovers=start.uncovers,
        won=won,
        verdict=_verdict(end, won),
        goal=words_of(lesson, alone=practice.side is None)[1],
        teaches=lesson.teaches,
        mistake=lesson.mistake,
        rule=lesson.rule,
        days=practice.day,
        lost_count=run.lost,
        deaths=[
            f"Day {d.minute / DAY:.0f}: {d.count} × {species_name(d.species_id)}, by {d.cause}." for d in run.deaths
        ],
        truth=true_points(run),
        read=read_points(practice, entries),
        happened=[
            f"Day {m.minute / DAY:.0f}: {m.seen or m.told}" for m in start.mishaps if m.minute <= practice.minutes
        ],
        decisions=decided,
        equipment=equipment_words(practice, start, entries, run),
        good=done_well(decided),
        cost_most=cost_most(decided),
        structure=STRUCTURES[int(tank.parameters()[0])],
    )


STRUCTURES = (
    "one kind of bacteria for each half, held back by room",
    "two kinds on ammonia, one greedy and one frugal, held back by too much of their food",
    "bacteria that take nitrogen out of the water as they grow, and give it back",
    "bacteria that sleep while they starve and wake with food",
)
"""How the simulated tanks are made, in the order of the kernel's structures."""


def _verdict(end: Ending, won: bool) -> str:
    days = "within the first day" if end.days < 1 else f"after {end.days:.0f} days"
    if end.lost:
        return f"{end.lost} of {max(end.came, end.lost)} animals died. The page below says what would have kept them."
    if won:
        return f"Done {days}, without a loss."
    return f"Ended {days}: {'nobody died, but ' if end.came else ''}the goal was not reached yet."


def true_points(run: Run) -> list[TruePoint]:
    """The true course, thinned to what can be drawn. run: of the tank."""
    return [
        TruePoint(
            day=s.minute / DAY, ammonia_mg_n_l=s.tan, nitrite_mg_n_l=s.no2, nitrate_mg_n_l=s.no3, kh_dkh=s.kh_dkh,
            ph=s.ph, clears_mg_n_l_day=min(s.clears, s.clears_nitrite), alive_count=s.alive,
        )
        for s in run.samples[:: max(SHOWN_EVERY_H, len(run.samples) // MOST_POINTS)]
    ]  # fmt: skip


def read_points(practice: Practice, entries: Sequence[Entry]) -> list[ReadPoint]:
    """What was read, as nitrogen. practice: with its clock; entries: of the logbook."""
    found = []
    for e in replay(list(entries)).readings:
        r = e.body
        if isinstance(r, Reading):
            found.append(
                ReadPoint(
                    day=max(practice.minute_of(e.at), 0) / DAY,
                    ammonia_mg_n_l=None if r.ammonia_ppm is None else as_nitrogen(r.ammonia_ppm, "ammonia", r.basis),
                    nitrite_mg_n_l=None if r.nitrite_ppm is None else as_nitrogen(r.nitrite_ppm, "nitrite", r.basis),
                    nitrate_mg_n_l=None if r.nitrate_ppm is None else as_nitrogen(r.nitrate_ppm, "nitrate", r.basis),
                )
            )
    return found


MOST_POINTS = 400
"""Points of a curve that are shown at most."""
