"""Speed, as ratios measured in one run."""


def bench() -> int:
    """Print the table."""
    raise NotImplementedError
