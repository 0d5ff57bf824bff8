"""How water passes through the media of a filter, and how the filter is primed."""

from typing import Literal

MediaPath = Literal["bottom-up", "top-down", "ring-then-down", "columns", "front-to-back", "through-foam", "chambers"]
PATH_WORDS: dict[MediaPath, str] = {
    "bottom-up": "Water rises: the first medium lies lowest.",
    "top-down": "Water falls: the first medium lies on top.",
    "ring-then-down": "Water goes through the outer foam ring first, then down through the middle.",
    "columns": "Water goes down one column and up the other: the first medium heads the first column.",
    "front-to-back": "Water goes from front to back: the first medium stands in front.",
    "through-foam": "Water enters through the foam from all sides.",
    "chambers": "Water goes from chamber to chamber: the first medium is where the drain comes down.",
}
COARSE_PLACE: dict[MediaPath, str] = {
    "bottom-up": "lowest",
    "top-down": "on top",
    "ring-then-down": "in the outer ring",
    "columns": "at the head of the first column",
    "front-to-back": "in front",
    "through-foam": "outermost",
    "chambers": "where the drain comes down",
}
"""Place of the coarse foam in each path: where the water enters."""
Priming = Literal["fill", "button", "self"]
