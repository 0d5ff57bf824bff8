"""Spare sponges: seeding since when, ready when, and those in transport."""

from datetime import datetime, timedelta
from typing import Literal

from pydantic import AwareDatetime

from reedmace.core.contract import Part
from reedmace.core.film import FULL_DAYS
from reedmace.core.fit import SpongeSeedAnswer, SpongeSeedQuestion, sponge_seed
from reedmace.logbook.replay.entries import MediaWork, SeedMove, SeedSponge
from reedmace.logbook.replay.state import LogbookState


class Seed(Part):
    """One spare sponge: where it is and its film. `question` is the input of the computation."""

    key: str
    name: str
    note: str
    since: AwareDatetime
    ready_at: AwareDatetime
    where: Literal["seeding", "on-the-way", "moved"]
    out_at: AwareDatetime | None
    moved_to: str
    question: SpongeSeedQuestion
    answer: SpongeSeedAnswer


def seeds(state: LogbookState, now: datetime) -> list[Seed]:
    """Every spare sponge of a tank, oldest first. state: the donor tank's; now: aware time."""
    found = []
    rows = [(e, e.body) for e in state.seeds if isinstance(e.body, SeedSponge)]
    rows += [
        (e, SeedSponge(kind="seed", name=e.body.text.split(".")[0][:80] or "Spare sponge", text=e.body.text))
        for e in state.events
        if isinstance(e.body, MediaWork) and e.body.what == "seeding-started"
    ]
    for entry, seed in sorted(rows, key=lambda row: (row[0].at, row[0].id)):
        moves = [(e.at, e.body) for e in state.events if isinstance(e.body, SeedMove) and e.body.seed_key == entry.key]
        at, last = moves[-1] if moves else (None, None)
        where: Literal["seeding", "on-the-way", "moved"] = (
            "seeding" if last is None or last.phase == "back" else "on-the-way" if last.phase == "out" else "moved"
        )
        out_at = next((when for when, m in reversed(moves) if m.phase == "out"), None) if where != "seeding" else None
        until = out_at or now
        end = now if where == "on-the-way" else at if where == "moved" and at is not None else until
        question = SpongeSeedQuestion(
            days_seeding=min(max((until - entry.at).total_seconds() / 86400, 0.0), 2000),
            minutes_out=min(max((end - until).total_seconds() / 60, 0.0), 3000) if out_at else 0.0,
            travels=last.travels if last else "wet-open",
            temperature_c=last.temperature_c if last else 22,
            media_share=seed.media_share,
            disease_note=seed.disease_note,
        )
        found.append(
            Seed(
                key=entry.key,
                name=seed.name,
                note=seed.text,
                since=entry.at,
                ready_at=entry.at + timedelta(days=FULL_DAYS),
                where=where,
                out_at=out_at,
                moved_to=last.to if last and where == "moved" else "",
                question=question,
                answer=sponge_seed(question),
            )
        )
    return found
