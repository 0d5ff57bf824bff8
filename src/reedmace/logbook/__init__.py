"""What happened to a tank: the kinds of entry, and the fold from entries to where it stands. No input or output."""

from reedmace.logbook.due import Due, calibration, cycle_due, due
from reedmace.logbook.entries import (
    PLAN_KINDS,
    Body,
    Entry,
    NewEntry,
)
from reedmace.logbook.questions import cycle_log, net_litres, plumbing_question, rank_question
from reedmace.logbook.seeds import Seed, seeds
from reedmace.logbook.standing import Standing, fold
from reedmace.logbook.stem import Stage, stem

__all__ = [
    "PLAN_KINDS",
    "Body",
    "Due",
    "Entry",
    "NewEntry",
    "Seed",
    "Stage",
    "Standing",
    "calibration",
    "cycle_due",
    "cycle_log",
    "due",
    "fold",
    "net_litres",
    "plumbing_question",
    "rank_question",
    "seeds",
    "stem",
]
