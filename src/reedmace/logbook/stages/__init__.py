"""Stage views: pure functions from a tank's state, with the draft on screen, to what each stage shows."""

from reedmace.logbook.stages.cycle_start import CycleStartView, cycle_start_view
from reedmace.logbook.stages.draft import Draft, with_draft, with_plan
from reedmace.logbook.stages.filter import FilterView, filter_view
from reedmace.logbook.stages.fit import FitView, fit_view, shopping_list_view, shopping_question
from reedmace.logbook.stages.keep import KeepView, in_danger, keep_view
from reedmace.logbook.stages.plan_defaults import PlanName, Plans, plans_of
from reedmace.logbook.stages.stage_rows import NextStep, Stage, StageName, next_step, rows_or_fault, stage_rows
from reedmace.logbook.stages.stock import StockView, stock_view
from reedmace.logbook.stages.tank import TankView, tank_view
from reedmace.logbook.stages.today import TodayView, today_view

__all__ = [
    "CycleStartView",
    "Draft",
    "FilterView",
    "FitView",
    "KeepView",
    "NextStep",
    "PlanName",
    "Plans",
    "Stage",
    "StageName",
    "StockView",
    "TankView",
    "TodayView",
    "cycle_start_view",
    "filter_view",
    "fit_view",
    "in_danger",
    "keep_view",
    "next_step",
    "plans_of",
    "rows_or_fault",
    "shopping_list_view",
    "shopping_question",
    "stage_rows",
    "stock_view",
    "tank_view",
    "today_view",
    "with_draft",
    "with_plan",
]
