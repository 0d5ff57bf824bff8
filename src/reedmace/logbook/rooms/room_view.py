"""View of a fish room: its wall, its air, and the board of all tanks."""

from collections.abc import Mapping, Sequence
from datetime import datetime
from functools import lru_cache
from itertools import pairwise
from typing import Annotated, Literal

from pydantic import AwareDatetime, Field

from reedmace.core.air import RoomAirAnswer, RoomAirQuestion, room_air
from reedmace.core.air.plan import MainPiece, RoomOutlet, is_known
from reedmace.core.contract import Lph, Name, Part, number, whole
from reedmace.core.errors import CannotAnswer
from reedmace.core.filter import RoomYearAnswer, RoomYearQuestion
from reedmace.core.filter.choice.fish_room_year import room_year
from reedmace.core.flow import SharedSumpAnswer
from reedmace.core.stock import SPECIES
from reedmace.logbook.care.due import Due, due
from reedmace.logbook.care.in_quarantine import in_quarantine, usual_quarantine_days
from reedmace.logbook.care.spare_sponges import Seed, seeds
from reedmace.logbook.plans.room_plan import RoomPlan, Spot, shelf_of
from reedmace.logbook.replay.animals import animals_in, grown_in
from reedmace.logbook.replay.broods import broods_of
from reedmace.logbook.replay.current_plans import stock_plan, tank_plan
from reedmace.logbook.replay.entries import AirSeen, Reading
from reedmace.logbook.replay.equipment import EquippedFilter, installed_filters
from reedmace.logbook.replay.measured_flows import all_flows
from reedmace.logbook.replay.state import LogbookState
from reedmace.logbook.replay.water import net_litres
from reedmace.logbook.rooms.shared_resources import RoomTank, room_energy, room_sump
from reedmace.logbook.stages.today import today_view

OVER_RIM_CM, LINE_SLACK_CM = 10.0, 20.0
"""Length of an air line over the rim, and of its low loop outside (common practice)."""
AIR_OVER_BED_CM = 4.0
"""Height of the air inlet above the bottom (memory)."""
LEAST_PIECE_M = 0.05


class BoardRow(Part):
    """One tank on the board: urgent and next tasks, and its animals."""

    tank_id: Annotated[int, whole(1, 2**53)]
    name: Name
    urgent: bool
    verdict: str
    next: list[Due] = Field(description="The soonest first")
    seeds: list[Seed]
    who: str
    lived_in: bool = Field(description="Whether animals are in it")
    quarantine: str | None = Field(description="Which day of it, or that it is over")
    quarantine_days: Annotated[int, whole(1, 365, "Usual length in its water")]
    net_l: Annotated[float, number("L", 0, 1e6)]
    flow_lph: Annotated[Lph | None, Field(description="As last timed, all filters together")]
    tested_at: AwareDatetime | None
    length_cm: Annotated[float, number("cm", 0, 1000)]
    height_cm: Annotated[float, number("cm", 0, 1000)]
    fill_below_rim_cm: Annotated[float, number("cm", 0, 300)]
    air_keys: list[str] = Field(description="Of its outlets on the room's air")
    at_odds: bool = Field(default=False, description="Its figures do not agree: nothing is reckoned of it")


class RoomView(Part):
    """The board, the room's air, and their description."""

    verdict: str
    rows: list[BoardRow]
    air: RoomAirAnswer | None
    air_words: str | None = Field(description="Why there is no answer about the air")
    sockets_used: Annotated[int, whole(0, 10000)]
    year: RoomYearAnswer | None = Field(description="A year of these tanks three ways; none of an empty room")
    watts: Annotated[float, number("W", 0, 1e6, "All filters and air pumps of the room")]
    kwh_year: Annotated[float, number("kWh/year", 0, 1e8, "With the heaters")]
    money_year: Annotated[float, number("money", 0, 1e9, "At each tank's own price of a kWh")]
    sump: SharedSumpAnswer | None = Field(description="Of the tanks that share one")


def outlet_key(tank_id: int, filter_key: str) -> str:
    """Name of one outlet on a room's air. tank_id: the tank's; filter_key: of its filter."""
    return f"{tank_id}-{filter_key}"


def board_row(tank: RoomTank, now: datetime) -> BoardRow:
    """One tank on the board; a tank with inconsistent figures says only so. tank: it; now: aware time."""
    try:
        return _row(tank, now)
    except CannotAnswer:
        view, _ = today_view(tank.state, now)
        return BoardRow(
            tank_id=tank.id,
            name=tank.name,
            urgent=False,
            verdict=view.verdict,
            next=[],
            seeds=[],
            who="",
            lived_in=False,
            quarantine=None,
            quarantine_days=usual_quarantine_days(tank.state),
            net_l=0,
            flow_lph=None,
            tested_at=None,
            length_cm=60,
            height_cm=36,
            fill_below_rim_cm=3,
            air_keys=[],
            at_odds=True,
        )


def _row(tank: RoomTank, now: datetime) -> BoardRow:
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
        who=animals_in_words(state),
        lived_in=bool(animals_in(state)),
        quarantine_days=usual_quarantine_days(state),
        quarantine=shut_in.words if (shut_in := in_quarantine(state, now)) else None,
        net_l=net_litres(state),
        flow_lph=sum(f[-1][1] for f in flows if f) if any(flows) else None,
        tested_at=max(tests, default=None),
        length_cm=plan.length_cm,
        height_cm=plan.height_cm,
        fill_below_rim_cm=min(plan.fill_below_rim_cm, 300),
        air_keys=[outlet_key(tank.id, one.key) for one in installed_filters(state) if one.filter.air and one.runs],
    )


def animals_in_words(state: LogbookState) -> str:
    """The animals of a tank in words; the planned ones where none are in. state: the tank's."""
    names = {
        **{i: s.common_name for i, s in SPECIES.items()},
        **{s.id: s.common_name for s in stock_plan(state).own_species},
    }
    inside = ", ".join(f"{a.count} {names.get(a.species_id, a.species_id)}" for a in grown_in(state))
    young = any(brood.hatched for brood in broods_of(state))
    if inside or young:
        return f"{inside} and young" if inside and young else inside or "young alone"
    planned = stock_plan(state).animals
    if planned:
        return "nobody yet; planned: " + ", ".join(
            f"{a.count} {names.get(a.species_id, a.species_id)}" for a in planned
        )
    return "nobody"


def _outlet(tank: RoomTank, one: EquippedFilter, spot: Spot, plan: RoomPlan) -> RoomOutlet:
    """One air-driven filter as an outlet of the room's air."""
    key, depth = outlet_key(tank.id, one.key), one.plan_question.site.water_depth_cm
    top = shelf_of(plan, spot).y_cm + tank_plan(tank.state).tank.height_cm
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


def air_question(
    plan: RoomPlan, tanks: Mapping[int, RoomTank], installed: Mapping[int, list[EquippedFilter]]
) -> RoomAirQuestion | None:
    """Input of the room's air; None without a pump or an air-driven filter.

    plan: the room's; tanks: by id; installed: their filters by tank id. The main runs along the wall from one end to
    the other and is let off over each tank; pumps feed it where they stand.
    """
    outlets, taps = [], {}
    for spot in plan.spots:
        tank = tanks.get(spot.tank_id)
        if tank is None:
            continue
        air = [one for one in installed[tank.id] if one.filter.air and one.runs]
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
    """Memoized by its input, so that viewing a board again computes no air."""
    return room_air(RoomAirQuestion.model_validate_json(question))


def room_view(
    plan: RoomPlan, tanks: Sequence[RoomTank], now: datetime, made: Sequence[BoardRow] | None = None
) -> RoomView:
    """The board and the air of a room.

    plan: the room's; tanks: those that stand in it; now: aware time; made: their rows, where they were worked out
    already.
    """
    rows = sorted(made if made is not None else (board_row(t, now) for t in tanks), key=_pressing)
    sound = {r.tank_id for r in rows if not r.at_odds}
    tanks = [t for t in tanks if t.id in sound]
    installed = {t.id: installed_filters(t.state) for t in tanks}
    air, words = None, None
    question = air_question(plan, {t.id: t for t in tanks}, installed)
    unknown = [p.pump.name for p in plan.pumps if not is_known(p.pump)]
    if question is not None and unknown:
        words = (
            f"What is known of {_several(unknown)}? L/min or watts on the box, for how many outlets it is sold, or a"
            " jug timed on one of its lines."
        )
    elif question is not None:
        try:
            air = _air_of(question.model_dump_json())
        except CannotAnswer as error:
            words = str(error)
    elif any(r.air_keys for r in rows):
        words = "Say what air pump there is, and each outlet's air is reckoned."
    pumped = [one for some in installed.values() for one in some if one.runs and not one.filter.air]
    watts = sum(one.filter.watts for one in pumped) + sum(p.pump.watts or 0.0 for p in plan.pumps)
    return RoomView(
        verdict=_verdict(rows, air, now),
        rows=rows,
        air=air,
        air_words=words,
        year=(
            room_year(RoomYearQuestion(tanks_l=[min(max(r.net_l, 1), 5000) for r in rows if not r.at_odds]))
            if sound
            else None
        ),
        sockets_used=len(pumped) + len(plan.pumps),
        watts=watts,
        kwh_year=(energy := room_energy(tanks, installed, plan))[0],
        money_year=energy[1],
        sump=room_sump(plan, tanks, now),
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
    if air is not None and ((air.told and not air.carries) or any(o.blocked for o in air.outlets)):
        return f"{first} {air.verdict}"
    return first


def _several(names: list[str]) -> str:
    if len(names) > 4:
        return f"{len(names)} tanks"
    return names[0] if len(names) == 1 else f"{', '.join(names[:-1])} and {names[-1]}"


__all__ = [
    "BoardRow",
    "RoomTank",
    "RoomView",
    "air_question",
    "animals_in_words",
    "board_row",
    "outlet_key",
    "room_view",
]
