"""The plan of a room.

Its wall, shelves, tanks, sockets, sink, air, shared sump; and where more tanks find a place on it.
"""

from collections.abc import Mapping, Sequence
from datetime import date
from typing import Annotated

from pydantic import AwareDatetime, Field

from reedmace.core.air.plan import RoomPump
from reedmace.core.contract import Part, number, whole
from reedmace.core.tank import Sump
from reedmace.core.upkeep.room_round import USUAL_PUMP_LPH


class Shelf(Part):
    """A shelf on the wall, by its upper edge."""

    x_cm: Annotated[float, number("cm", 0, 5000)] = 0
    y_cm: Annotated[float, number("cm", 0, 400, "Above the floor")]
    length_cm: Annotated[float, number("cm", 10, 5000)]


class Spot(Part):
    """A tank on a shelf, by its left edge; `shelf` counts from 0."""

    tank_id: Annotated[int, whole(1, 2**53)]
    x_cm: Annotated[float, number("cm", 0, 5000)] = 0
    shelf: Annotated[int, whole(0, 39)] = 0


class OnWall(Part):
    """A socket, a sink, a pump: where it is on the wall."""

    x_cm: Annotated[float, number("cm", 0, 5000)]
    y_cm: Annotated[float, number("cm", 0, 400)]


class WallPump(OnWall):
    """An air pump and what is known of it."""

    pump: RoomPump


class AirMain(Part):
    """The main along the wall; a ring comes back to its beginning."""

    y_cm: Annotated[float, number("cm", 0, 400, "Height along the wall")] = 190
    bore_mm: Annotated[float, number("mm", 3, 100)] = 16
    ring: bool = False


class RoomSump(OnWall):
    """One sump on the floor under several tanks, its return pump, and the branch that feeds each."""

    pump_lph: Annotated[float, number("L/h", 50, 1e5, "With nothing to lift")] = 4000
    pump_head_m: Annotated[float, number("m", 0.1, 50, "At which it gives up")] = 4
    bore_mm: Annotated[float, number("mm", 4, 110, "Of each branch")] = 16
    sump: Sump
    tank_ids: Annotated[list[Annotated[int, whole(1, 2**53)]], Field(max_length=100)] = Field(default_factory=list)
    tap_shares: Annotated[
        dict[str, Annotated[float, number("share", 0.02, 1)]],
        Field(max_length=100, description="Taps that are not wide open, by tank"),
    ] = Field(default_factory=dict)


class RoundHabits(Part):
    """When and by whom the room is walked."""

    weekdays: Annotated[
        list[Annotated[int, whole(0, 6, "0 for Monday")]], Field(min_length=1, max_length=7, description="Walking days")
    ] = Field(default_factory=lambda: [0, 2, 5])
    people_count: Annotated[int, whole(1, 20)] = 1
    change_lph: Annotated[float, number("L/h", 20, 50000, "Pump or hose for changes")] = USUAL_PUMP_LPH


class TakenTask(Part):
    """One task of a round that was taken on, and its day."""

    key: Annotated[str, Field(max_length=160)]
    day: date


class TakenRound(Part):
    """A week's round as it was taken on: it stays as it is until its seven days are over."""

    taken_at: AwareDatetime
    from_day: date
    tasks: Annotated[list[TakenTask], Field(max_length=1600)]


class RoomPlan(Part):
    """The room as drawn: its wall, shelves, tanks, sockets, sink, air; and its round."""

    width_cm: Annotated[float, number("cm", 50, 5000)] = 300
    height_cm: Annotated[float, number("cm", 50, 400)] = 220
    shelves: Annotated[list[Shelf], Field(max_length=40)] = Field(default_factory=list)
    spots: Annotated[list[Spot], Field(max_length=200)] = Field(default_factory=list)
    sockets: Annotated[list[OnWall], Field(max_length=60)] = Field(default_factory=list)
    sink: OnWall | None = None
    pumps: Annotated[list[WallPump], Field(max_length=8)] = Field(default_factory=list)
    main: AirMain = Field(default_factory=AirMain)
    sump: RoomSump | None = None
    open_shares: Annotated[
        dict[str, Annotated[float, number("share", 0, 1)]],
        Field(max_length=400, description="Adjusting valves that are not wide open, by tank and filter key"),
    ] = Field(default_factory=dict)
    habits: RoundHabits = Field(default_factory=RoundHabits)
    taken: TakenRound | None = Field(default=None, description="The round of this week, where one was taken on")


def shelf_of(plan: RoomPlan, spot: Spot) -> Shelf:
    """The shelf a tank stands on; the floor where it is gone. plan: the room's; spot: the tank's."""
    return plan.shelves[spot.shelf] if spot.shelf < len(plan.shelves) else Shelf(y_cm=0, length_cm=plan.width_cm)


def for_copies(plan: RoomPlan, twins: Mapping[int, int]) -> RoomPlan:
    """The plan for copies of its tanks. plan: the room's; twins: id of each copy by that of its original."""
    spots = [s.model_copy(update={"tank_id": twins[s.tank_id]}) for s in plan.spots if s.tank_id in twins]
    # Keys are compared as they are written: not every digit of the world is a number here.
    by_text = {str(i): twin for i, twin in twins.items()}
    opens = {
        f"{twin}-{key}": v
        for name, v in plan.open_shares.items()
        for i, _, key in [name.partition("-")]
        if (twin := by_text.get(i)) is not None
    }
    sump = plan.sump
    if sump is not None:
        sump = sump.model_copy(
            update={
                "tank_ids": [twins[i] for i in sump.tank_ids if i in twins],
                "tap_shares": {
                    str(twin): v for i, v in sump.tap_shares.items() if (twin := by_text.get(i)) is not None
                },
            }
        )
    # A round was taken on for these tanks, not for their copies.
    return plan.model_copy(update={"spots": spots, "open_shares": opens, "sump": sump, "taken": None})


def placed(tank_ids: Sequence[int], sizes: Mapping[int, float], plan: RoomPlan) -> RoomPlan:
    """The plan with more tanks on it.

    Left to right along the shelves, each where there is room, on new shelves where not.

    tank_ids: to be placed; sizes: their lengths in cm, by id; plan: the room's.
    """
    shelves, spots, width = list(plan.shelves), list(plan.spots), plan.width_cm
    for tank_id in tank_ids:
        if any(s.tank_id == tank_id for s in spots):
            continue
        length = sizes[tank_id]
        at = next(
            (
                (n, x)
                for n, shelf in enumerate(shelves)
                if (x := _free(shelf, n, spots, sizes)) + length <= shelf.x_cm + shelf.length_cm
            ),
            None,
        )
        y = FIRST_SHELF_CM if not shelves else max(s.y_cm for s in shelves) + SHELF_APART_CM
        if at is None and (not shelves or (y + UNDER_ROOF_CM <= plan.height_cm and len(shelves) < MOST_SHELVES)):
            shelves.append(Shelf(y_cm=y, length_cm=max(width, length)))
            at = (len(shelves) - 1, 0.0)
        if at is None:
            # The wall is full to its height: it goes on to the right, on the shelf that ends first.
            n, x = min(((n, _free(shelf, n, spots, sizes)) for n, shelf in enumerate(shelves)), key=lambda one: one[1])
            if x + length > LONGEST_CM:
                break
            shelves[n] = shelves[n].model_copy(update={"length_cm": x + length - shelves[n].x_cm})
            width, at = max(width, x + length), (n, x)
        spots.append(Spot(tank_id=tank_id, x_cm=at[1], shelf=at[0]))
    return plan.model_copy(update={"shelves": shelves, "spots": spots, "width_cm": width})


FIRST_SHELF_CM, SHELF_APART_CM, TANKS_APART_CM, UNDER_ROOF_CM = 10.0, 65.0, 4.0, 50.0
MOST_SHELVES, LONGEST_CM = 40, 5000.0


def _free(shelf: Shelf, n: int, spots: Sequence[Spot], sizes: Mapping[int, float]) -> float:
    """Where the next tank may stand on a shelf, cm."""
    ends = [s.x_cm + sizes.get(s.tank_id, 60.0) + TANKS_APART_CM for s in spots if s.shelf == n]
    return max([shelf.x_cm, *ends])
