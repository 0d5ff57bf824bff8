"""The demo scenario: Fennel Yard, invented."""

from reedmace.demo.scenario import write_demo

__all__ = ["write_demo"]
