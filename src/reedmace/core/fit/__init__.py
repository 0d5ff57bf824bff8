"""Fitting a filter: the ordered steps with their cautions."""

from reedmace.core.fit.steps import FittingStepsAnswer, FittingStepsQuestion, fitting_steps

__all__ = ["FittingStepsAnswer", "FittingStepsQuestion", "fitting_steps"]
