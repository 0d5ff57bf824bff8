"""Ways to cycle and helps beside them, as forms and the help page offer them."""

from typing import Literal

from pydantic import Field, computed_field

from reedmace.core.contract import ComputedPart, Part
from reedmace.core.cycle.record.log import Helper, Method
from reedmace.core.quantity import formatting

Asked = Literal["food", "rock", "seed", "plants", "helpers"]


class MethodRow(ComputedPart):
    """A way to cycle as forms offer it: its title, and what it asks the keeper for."""

    method: Method
    title: str
    about: str = Field(description="For whom it is, and what it asks, in a sentence or two")
    asks: list[Asked]

    @computed_field(description="The title as it reads inside a sentence")  # type: ignore[prop-decorator]
    @property
    def inside(self) -> str:
        """The title as it reads inside a sentence."""
        return formatting.inside(self.title)


METHOD_TABLE = [
    MethodRow(
        method="measured-ammonia",
        title="Measured ammonia",
        about=(
            "For an empty tank: bottled or dissolved ammonia is dosed and tested until a dose is gone in a day, twice."
        ),
        asks=["helpers"],
    ),
    MethodRow(
        method="seeded-filter",
        title="A seeded filter or media",
        about=(
            "The quickest: media from a filter that has run for months, moved wet. It brings the donor's illnesses too."
        ),
        asks=["seed", "helpers"],
    ),
    MethodRow(
        method="side-by-side",
        title="Old filter beside the new",
        about="For who has a running tank: the new filter runs there for weeks, then moves with its bacteria.",
        asks=["seed", "helpers"],
    ),
    MethodRow(
        method="planted",
        title="Planted quiet start",
        about="For much plant and few animals: growing plants take ammonia up while bacteria come by themselves.",
        asks=["plants", "helpers"],
    ),
    MethodRow(
        method="fish-food",
        title="Feed the empty tank",
        about="For who has no ammonia: food rots into it. Slower, and how much comes of it is guessed until tested.",
        asks=["food", "helpers"],
    ),
    MethodRow(
        method="mature-rock",
        title="Mature rock (salt water)",
        about="For salt water: rock from a running tank carries the bacteria; half a kilo of it starts a tank.",
        asks=["rock", "helpers"],
    ),
    MethodRow(
        method="animals-in",
        title="Animals are in already",
        about="For who has fish already: small loads, daily tests and changes until both poisons stay at zero.",
        asks=[],
    ),
]


class HelperRow(Part):
    """A help to cycle with as forms offer it, and what it asks the keeper for."""

    helper: Helper
    title: str
    asks: list[Asked]


HELPER_TABLE = [
    HelperRow(helper="seed-media", title="with seeded media", asks=["seed"]),
    HelperRow(helper="bottled-culture", title="with a bottled culture", asks=[]),
    HelperRow(helper="plants", title="with plants", asks=["plants"]),
]
