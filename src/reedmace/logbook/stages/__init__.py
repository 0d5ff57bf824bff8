"""The stages as pure views: where a tank stands, with what is typed on screen, gives what each stage shows."""

from reedmace.logbook.stages.draft import Draft, with_draft
from reedmace.logbook.stages.filter import FilterView, filter_view
from reedmace.logbook.stages.fit import FitView, buying_view, fit_view, shopping_question
from reedmace.logbook.stages.keep import KeepView, keep_view
from reedmace.logbook.stages.rows import Stage, StageName, stage_rows

__all__ = [
    "Draft",
    "FilterView",
    "FitView",
    "KeepView",
    "Stage",
    "StageName",
    "buying_view",
    "filter_view",
    "fit_view",
    "keep_view",
    "shopping_question",
    "stage_rows",
    "with_draft",
]
