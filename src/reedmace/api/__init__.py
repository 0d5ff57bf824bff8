"""The web application: sessions, resources, computations, errors."""

from reedmace.api.application import Settings, create_app

__all__ = ["Settings", "create_app"]
