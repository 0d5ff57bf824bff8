"""One medium in a filter."""

from typing import Annotated

from pydantic import Field

from reedmace.core.contract import Part, number
from reedmace.core.flow.materials import MediaKind


class Basket(Part):
    """One medium and its volume, in the order the water meets them."""

    media: MediaKind
    litres: Annotated[float, number("L", 0.01, 200)]
    bagged: bool = Field(default=False, description="Still in its plastic bag")
    seated: bool = Field(default=True, description="Tray down, lips sealing")
