"""What a keeper reads of a kind before choosing one: the page of a kind (common practice throughout)."""

from reedmace.core.contract import Part


class KindAbout(Part):
    """The page of a kind."""

    called: tuple[str, ...]
    """Other words for it on boxes and in shops, lower case, longest first."""
    how: str
    """How the water goes."""
    good: tuple[str, ...]
    poor: tuple[str, ...]
    picked_for: str
    """For whom practitioners pick it."""
    argued: str
    """Who argues against it, and what is said to that."""
    cleaning: str
    costs: str
    """What it costs beside other kinds, and what wears."""
    in_box: tuple[str, ...]
    besides: tuple[str, ...]
    """What must be bought besides."""
