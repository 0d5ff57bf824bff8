"""What happened to a tank: the kinds of entry, and the fold from entries to where it stands. No input or output."""

from reedmace.logbook.entries import (
    PLAN_KINDS,
    Body,
    Entry,
    NewEntry,
)
from reedmace.logbook.questions import cycle_log, net_litres, rank_question
from reedmace.logbook.standing import Standing, fold
from reedmace.logbook.stem import Stage, stem

__all__ = [
    "PLAN_KINDS",
    "Body",
    "Entry",
    "NewEntry",
    "Stage",
    "Standing",
    "cycle_log",
    "fold",
    "net_litres",
    "rank_question",
    "stem",
]
