"""Reedmace: choose, fit and cycle an aquarium filter."""

__version__ = "0.2.0"
