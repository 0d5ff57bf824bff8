"""Errors the core raises on purpose. Each keeps its operands as fields and builds its text from them."""


class ReedmaceError(Exception):
    """Base of every error the core raises on purpose. The text is built from the fields and fit to be shown."""


class CannotAnswer(ReedmaceError, ValueError):
    """The question is well formed but makes no sense together (where: field name; what; remedy)."""

    def __init__(self, where: str, what: str, remedy: str) -> None:
        self.where, self.what, self.remedy = where, what, remedy
        super().__init__(f"{where}: {what} {remedy}")
