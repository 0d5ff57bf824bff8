"""Choosing a filter: requirement, limits, margins, scores, ranking, changes and the verdict."""
