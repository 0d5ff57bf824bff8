"""The web application: sessions, resources, the compute blueprint, errors."""

from reedmace.api.application import Settings, create_app

__all__ = ["Settings", "create_app"]
