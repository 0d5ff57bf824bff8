"""A box on a keeper's shelf: seen in a shop or owned, as its label says, with the boxes it may be."""

from datetime import date
from functools import lru_cache
from typing import Annotated

from pydantic import Field, model_validator

from reedmace.core.contract import Part
from reedmace.core.filter.box_label import BoxLabel, box_of_label, flow_of_label, possible_kinds
from reedmace.core.filter.filter_box import Filter

PREFIX = "shelf-"
"""First part of the id of a filter taken from a shelf."""


class ShelfBox(Part):
    """What is printed on a box, where and when it was seen, and whether it was bought."""

    label: BoxLabel
    filter: Filter | None = Field(default=None, description="All its figures, where a file gave them")
    seen_on: date | None = None
    seen_where: Annotated[str, Field(max_length=80)] = ""
    note: Annotated[str, Field(max_length=400)] = ""
    bought: bool = False

    @model_validator(mode="after")
    def _can_be_judged(self) -> "ShelfBox":
        if self.filter is None and flow_of_label(self.label) is None:
            raise ValueError(
                "a box needs its flow; give it in L/h or US gal/h, or for a sponge the tank it is sold for"
            )
        return self


class ShelfItem(Part):
    """A box with its number on the shelf; below 0 for one that an operator gives to all."""

    id: Annotated[int, Field(ge=-(2**53), le=2**53)]
    box: ShelfBox


def boxes_of(item: ShelfItem) -> list[Filter]:
    """The whole box as each kind it may be, the likeliest first. item: of a shelf; its number makes the ids."""
    return list(_boxes_of(item.model_dump_json()))


@lru_cache(maxsize=20_000)
def _boxes_of(text: str) -> tuple[Filter, ...]:
    """The same, kept: a shelf is read with every keystroke. text: the item as JSON."""
    item = ShelfItem.model_validate_json(text)
    box, own = item.box, f"{PREFIX}{item.id}" if item.id > 0 else f"given-{-item.id}"
    known: dict[str, object] = {
        name: value for name in ("noise_db", "media_l") if (value := getattr(box.label, name)) is not None
    }
    if box.label.price is not None:
        known |= {"price": box.label.price, "price_known": True}
    if box.filter is not None:
        return (box.filter.model_copy(update={"id": own, "name": box.label.name, **known}),)
    lph = flow_of_label(box.label) or 0.0
    kinds = possible_kinds(box.label, lph)
    return tuple(
        box_of_label(box.label, lph, kind).model_copy(update={"id": own if len(kinds) == 1 else f"{own}-{kind.name}"})
        for kind in kinds
    )


def number_of(filter_id: str) -> int | None:
    """Number on its shelf of a filter; None for one from elsewhere. filter_id: as `boxes_of` writes it."""
    first = filter_id.removeprefix(PREFIX).split("-")[0]
    return int(first) if filter_id.startswith(PREFIX) and first.isascii() and first.isdigit() else None


def box_of_filter(f: Filter) -> ShelfBox:
    """A shelf's box from a filter with all its figures. f: the filter."""
    label = BoxLabel(
        box_lph=f.box_lph,
        max_head_m=f.max_head_m,
        watts=f.watts,
        tank_up_to_l=f.tank_up_to_l,
        kind=f.kind,
        name=f.name,
        price=f.price if f.price_known else None,
        turning_wheel=f.wheel_m2 > 0,
        mid_strainer=f.mid_strainer,
        pump_in_water=f.pump_in_water,
        noise_db=f.noise_db,
        media_l=max(f.media_l, 0.02) if f.media_l else None,
    )
    return ShelfBox(label=label, filter=f)
