"""What happened to a tank: the kinds of entry, and the replay of entries to where it stands. No input or output."""

from reedmace.logbook.due import Due, cycle_due, due
from reedmace.logbook.entries import (
    PLAN_KINDS,
    Body,
    Entry,
    NewEntry,
)
from reedmace.logbook.equipment import Hung, hang, path_of, rank_question
from reedmace.logbook.flows import calibration
from reedmace.logbook.questions import cycle_log, net_litres
from reedmace.logbook.seeds import Seed, seeds
from reedmace.logbook.stages import Stage, stage_rows
from reedmace.logbook.state import LogbookState, replay

__all__ = [
    "PLAN_KINDS",
    "Body",
    "Due",
    "Entry",
    "Hung",
    "LogbookState",
    "NewEntry",
    "Seed",
    "Stage",
    "calibration",
    "cycle_due",
    "cycle_log",
    "due",
    "hang",
    "net_litres",
    "path_of",
    "rank_question",
    "replay",
    "seeds",
    "stage_rows",
]
