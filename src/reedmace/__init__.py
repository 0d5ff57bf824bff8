"""Reedmace: choose, fit and cycle an aquarium filter."""

__version__ = "0.1.0"
