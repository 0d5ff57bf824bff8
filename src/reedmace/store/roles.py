"""Roles in a household, and what each may do."""

from typing import Literal

Role = Literal["keeper", "helper", "reader"]
"""A keeper does all but give tanks away; a helper logs what was done; a reader views."""
MANAGE: tuple[Role, ...] = ("keeper",)
"""Roles that may change plans and devices."""
LOG: tuple[Role, ...] = ("keeper", "helper")
"""Roles that may log events."""
