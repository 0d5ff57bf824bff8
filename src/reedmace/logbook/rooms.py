"""A room of many tanks: where each stands on its wall, the air they share, and the board that says which wants what."""

from collections.abc import Mapping, Sequence
from datetime import datetime
from functools import lru_cache
from itertools import pairwise
from typing import Annotated, Literal, NamedTuple

from pydantic import AwareDatetime, Field

from reedmace.core.contract import Lph, Name, Part, number, whole
from reedmace.core.errors import CannotAnswer
from reedmace.core.filter import RoomYearAnswer, RoomYearQuestion, room_year
from reedmace.core.flow import RoomAirAnswer, RoomAirQuestion, room_air
from reedmace.core.flow.air_plan import MainPiece, RoomOutlet, RoomPump
from reedmace.core.stock import SPECIES
from reedmace.logbook.due import Due, due
from reedmace.logbook.entries import AirSeen, Reading
from reedmace.logbook.equipment import Hung, hang
from reedmace.logbook.flows import all_flows
from reedmace.logbook.questions import animals_in, net_litres, stock_plan, tank_plan
from reedmace.logbook.seeds import Seed, seeds
from reedmace.logbook.stages.today import today_view
from reedmace.logbook.state import LogbookState

OVER_RIM_CM, LINE_SLACK_CM = 10.0, 20.0
"""An air line goes over the rim and down to the foot of the lift, with a low loop outside (common practice)."""
AIR_OVER_BED_CM = 4.0
"""The air is let go so far above the bottom (memory)."""
LEAST_PIECE_M = 0.05


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


class RoomPlan(Part):
    """The room as drawn: its wall, shelves, tanks, sockets, sink, air."""

    width_cm: Annotated[float, number("cm", 50, 5000)] = 300
    height_cm: Annotated[float, number("cm", 50, 400)] = 220
    shelves: Annotated[list[Shelf], Field(max_length=40)] = Field(default_factory=list)
    spots: Annotated[list[Spot], Field(max_length=200)] = Field(default_factory=list)
    sockets: Annotated[list[OnWall], Field(max_length=60)] = Field(default_factory=list)
    sink: OnWall | None = None
    pumps: Annotated[list[WallPump], Field(max_length=8)] = Field(default_factory=list)
    main: AirMain = Field(default_factory=AirMain)
    open_shares: Annotated[
        dict[str, Annotated[float, number("share", 0, 1)]],
        Field(max_length=400, description="Adjusting valves that are not wide open, by tank and filter key"),
    ] = Field(default_factory=dict)


class RoomTank(NamedTuple):
    """A tank of the room: its id, name and where it stands."""

    id: int
    name: str
    state: LogbookState


class BoardRow(Part):
    """One tank on the board: what cannot wait, what is next, who is in it."""

    tank_id: Annotated[int, whole(1, 2**53)]
    name: Name
    urgent: bool
    verdict: str
    next: list[Due] = Field(description="The soonest first")
    seeds: list[Seed]
    who: str
    lived_in: bool = Field(description="Whether animals are in it")
    net_l: Annotated[float, number("L", 0, 1e6)]
    flow_lph: Annotated[Lph | None, Field(description="As last timed, all filters together")]
    tested_at: AwareDatetime | None
    length_cm: Annotated[float, number("cm", 0, 1000)]
    height_cm: Annotated[float, number("cm", 0, 1000)]
    fill_below_rim_cm: Annotated[float, number("cm", 0, 300)]
    air_keys: list[str] = Field(description="Of its outlets on the room's air")


class RoomView(Part):
    """The board, the room's air, and what is said of both."""

    verdict: str
    rows: list[BoardRow]
    air: RoomAirAnswer | None
    air_words: str | None = Field(description="Why there is no answer about the air")
    sockets_used: Annotated[int, whole(0, 10000)]
    year: RoomYearAnswer | None = Field(description="A year of these tanks three ways; none of an empty room")
    watts: Annotated[float, number("W", 0, 1e6, "All filters and air pumps of the room")]


def outlet_key(tank_id: int, filter_key: str) -> str:
    """Name of one outlet on a room's air. tank_id: the tank's; filter_key: of its filter."""
    return f"{tank_id}-{filter_key}"


def board_row(tank: RoomTank, now: datetime) -> BoardRow:
    """One tank on the board. tank: it; now: aware time."""
    state, plan = tank.state, tank_plan(tank.state).tank
    view, _ = today_view(state, now)
    flows = [all_flows(state, f.key) for f in state.filters()]
    tests = [e.at for e in state.readings if isinstance(e.body, Reading)]
    return BoardRow(
        tank_id=tank.id,
        name=tank.name,
        urgent=view.urgent,
        verdict=view.verdict,
        next=due(state, now)[:4],
        seeds=[s for s in seeds(state, now) if s.where != "moved"],
        who=who_is_in(state),
        lived_in=bool(animals_in(state)),
        net_l=net_litres(state),
        flow_lph=sum(f[-1][1] for f in flows if f) if any(flows) else None,
        tested_at=max(tests, default=None),
        length_cm=plan.length_cm,
        height_cm=plan.height_cm,
        fill_below_rim_cm=min(plan.fill_below_rim_cm, 300),
        air_keys=[outlet_key(tank.id, one.key) for one in hang(state) if one.filter.air and one.runs],
    )


def who_is_in(state: LogbookState) -> str:
    """The animals of a tank in words; the planned ones where none are in. state: the tank's."""
    names = {
        **{i: s.common_name for i, s in SPECIES.items()},
        **{s.id: s.common_name for s in stock_plan(state).own_species},
    }
    inside = animals_in(state)
    if inside:
        return ", ".join(f"{a.count} {names.get(a.species_id, a.species_id)}" for a in inside)
    planned = stock_plan(state).animals
    if planned:
        return "nobody yet; planned: " + ", ".join(
            f"{a.count} {names.get(a.species_id, a.species_id)}" for a in planned
        )
    return "nobody"


def _outlet(tank: RoomTank, one: Hung, spot: Spot, plan: RoomPlan) -> RoomOutlet:
    """One air-driven filter as the room's air feeds it."""
    key, depth = outlet_key(tank.id, one.key), one.plan_question.room.water_depth_cm
    top = _shelf(plan, spot).y_cm + tank_plan(tank.state).tank.height_cm
    way = abs(plan.main.y_cm - top) + OVER_RIM_CM + tank_plan(tank.state).tank.height_cm + LINE_SLACK_CM
    return RoomOutlet(
        key=key,
        name=tank.name if len(tank.state.filters()) == 1 else f"{tank.name}, {one.filter.name}",
        node=f"tank {tank.id}",
        depth_cm=min(max(depth - AIR_OVER_BED_CM, 1), 300),
        wanted_l_min=min(max(one.filter.air_l_min or 0.1, 0.05), 60),
        line_length_m=way / 100,
        open_share=plan.open_shares.get(key, 1.0),
        tube_bore_mm=one.filter.tube_bore_mm,
        foam_face_cm2=one.filter.face_cm2,
        foam_depth_cm=one.filter.foam_depth_cm,
        seen=_air_seen(tank.state, one.key),
    )


def _air_seen(state: LogbookState, key: str) -> Literal["steady", "weak", "none"] | None:
    seen = [b for e in state.events if isinstance(b := e.body, AirSeen) and b.filter_key in (None, key)]
    return seen[-1].bubbles if seen else None


def _shelf(plan: RoomPlan, spot: Spot) -> Shelf:
    return plan.shelves[spot.shelf] if spot.shelf < len(plan.shelves) else Shelf(y_cm=0, length_cm=plan.width_cm)


def air_question(
    plan: RoomPlan, tanks: Mapping[int, RoomTank], hung: Mapping[int, list[Hung]]
) -> RoomAirQuestion | None:
    """The room's air as the core takes it; None where no pump or no air-driven filter stands in it.

    plan: the room's; tanks: by id; hung: their filters by tank id. The main runs along the wall from one end to the other and
    is let off over each tank; pumps feed it where they stand.
    """
    outlets, taps = [], {}
    for spot in plan.spots:
        tank = tanks.get(spot.tank_id)
        if tank is None:
            continue
        air = [one for one in hung[tank.id] if one.filter.air and one.runs]
        outlets += [_outlet(tank, one, spot, plan) for one in air]
        if air:
            taps[f"tank {tank.id}"] = spot.x_cm + tank_plan(tank.state).tank.length_cm / 2
    if not outlets or not plan.pumps:
        return None
    pumps = [p.pump.model_copy(update={"node": f"pump {i}", "key": f"pump {i}"}) for i, p in enumerate(plan.pumps)]
    heads = {f"head {i}": p.x_cm for i, p in enumerate(plan.pumps)}
    line = sorted({**taps, **heads}.items(), key=lambda at: at[1])
    bore = plan.main.bore_mm
    mains = [_piece(f"pump {i}", f"head {i}", abs(p.y_cm - plan.main.y_cm), bore) for i, p in enumerate(plan.pumps)]
    mains += [_piece(a, b, xb - xa, bore) for (a, xa), (b, xb) in pairwise(line)]
    if plan.main.ring and len(line) > 2:
        mains.append(_piece(line[-1][0], line[0][0], line[-1][1] - line[0][1], bore))
    return RoomAirQuestion(pumps=pumps, mains=mains, outlets=outlets)


def _piece(start: str, end: str, cm: float, bore_mm: float) -> MainPiece:
    return MainPiece(start=start, end=end, bore_mm=bore_mm, length_m=max(cm / 100, LEAST_PIECE_M))


@lru_cache(maxsize=64)
def _air_of(question: str) -> RoomAirAnswer:
    """Kept by what was asked, so that a board looked at again costs no air."""
    return room_air(RoomAirQuestion.model_validate_json(question))


def room_view(
    plan: RoomPlan, tanks: Sequence[RoomTank], now: datetime, made: Sequence[BoardRow] | None = None
) -> RoomView:
    """The board and the air of a room.

    plan: the room's; tanks: those that stand in it; now: aware time; made: their rows, where they were worked out already.
    """
    rows = sorted(made if made is not None else (board_row(t, now) for t in tanks), key=_pressing)
    hung = {t.id: hang(t.state) for t in tanks}
    air, words = None, None
    question = air_question(plan, {t.id: t for t in tanks}, hung)
    if question is not None:
        try:
            air = _air_of(question.model_dump_json())
        except CannotAnswer as error:
            words = str(error)
    elif any(r.air_keys for r in rows):
        words = "Say what air pump there is, and each outlet's air is reckoned."
    pumped = [one for some in hung.values() for one in some if one.runs and not one.filter.air]
    watts = sum(one.filter.watts for one in pumped) + sum(p.pump.watts or 0.0 for p in plan.pumps)
    return RoomView(
        verdict=_verdict(rows, air, now),
        rows=rows,
        air=air,
        air_words=words,
        year=room_year(RoomYearQuestion(tanks_l=[min(max(r.net_l, 1), 5000) for r in rows])) if rows else None,
        sockets_used=len(pumped) + len(plan.pumps),
        watts=watts,
    )


def _pressing(row: BoardRow) -> tuple[bool, float, int]:
    return (not row.urgent, row.next[0].at.timestamp() if row.next else 1e12, row.tank_id)


def _verdict(rows: list[BoardRow], air: RoomAirAnswer | None, now: datetime) -> str:
    urgent = [r.name for r in rows if r.urgent]
    late = [r for r in rows if not r.urgent and r.next and r.next[0].at <= now]
    if urgent:
        first = f"{_several(urgent)} cannot wait."
    elif late:
        first = f"{_several([r.name for r in late])} {'has' if len(late) == 1 else 'have'} something due."
    else:
        first = "Nothing is due." if rows else "No tank stands in this room yet."
    if air is not None and (not air.carries or any(o.blocked for o in air.outlets)):
        return f"{first} {air.verdict}"
    return first


def _several(names: list[str]) -> str:
    if len(names) > 4:
        return f"{len(names)} tanks"
    return names[0] if len(names) == 1 else f"{', '.join(names[:-1])} and {names[-1]}"


def for_copies(plan: RoomPlan, twins: Mapping[int, int]) -> RoomPlan:
    """The plan for copies of its tanks. plan: the room's; twins: id of each copy by that of its original."""
    spots = [s.model_copy(update={"tank_id": twins[s.tank_id]}) for s in plan.spots if s.tank_id in twins]
    opens = {f"{twins[int(i)]}-{key}": v for name, v in plan.open_shares.items() for i, _, key in [name.partition("-")] if i.isdigit() and int(i) in twins}  # fmt: skip
    return plan.model_copy(update={"spots": spots, "open_shares": opens})


def placed(tank_ids: Sequence[int], sizes: Mapping[int, float], plan: RoomPlan) -> RoomPlan:
    """The plan with more tanks on it: left to right along the shelves, each where there is room, on new shelves where not.

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


__all__ = [
    "BoardRow",
    "RoomPlan",
    "RoomTank",
    "RoomView",
    "air_question",
    "board_row",
    "outlet_key",
    "placed",
    "room_view",
    "who_is_in",
]
