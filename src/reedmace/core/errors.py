"""Errors the core raises on purpose. Each keeps its operands as fields and builds its text from them."""


class ReedmaceError(Exception):
    """Base of every deliberate error of the core. The text is built from the fields and can be shown to a user."""


class CannotAnswer(ReedmaceError, ValueError):
    """The question is well formed but inconsistent (where: field name; what; remedy)."""

    def __init__(self, where: str, what: str, remedy: str) -> None:
        self.where, self.what, self.remedy = where, what, remedy
        super().__init__(f"{where}: {what} {remedy}")
