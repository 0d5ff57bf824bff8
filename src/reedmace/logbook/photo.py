"""A photograph as it is kept beside the logbook."""

from dataclasses import dataclass
from typing import Literal

PhotoOf = Literal["tank", "cloud", "box", "part", "animal", "vial"]
"""What a photograph shows."""


@dataclass(frozen=True)
class Photo:
    """JPEG, upright, without tags; width and height in pixels; a small one; its digest."""

    image: bytes
    thumb: bytes
    width: int
    height: int
    digest: str

    @property
    def size(self) -> int:
        """Bytes of both sizes."""
        return len(self.image) + len(self.thumb)
