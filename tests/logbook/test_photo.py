"""A photograph as it is kept."""

from reedmace.logbook.photo import Photo


def test_its_size_is_of_both_pictures() -> None:
    assert Photo(image=bytes(900), thumb=bytes(100), width=4, height=3, digest="d").size == 1000
