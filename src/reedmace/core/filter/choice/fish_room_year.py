"""Cost of running a fish room for a year in three ways: shared air, a hang-on each, one shared sump."""

from typing import Annotated, Literal

from pydantic import Field

from reedmace.core.contract import Answer, Part, Question, Working, computation, number, whole
from reedmace.core.filter.choice.scores import AIR_PUMP_BASE, AIR_PUMP_PER_L_MIN
from reedmace.core.filter.filter_box import Filter
from reedmace.core.filter.kinds import kind_of
from reedmace.core.filter.typical import typical_medians
from reedmace.core.quantity import formatting
from reedmace.core.quantity.constants import DAYS_PER_YEAR, KWH_PER_WATT_YEAR

Way = Literal["air", "rim", "sump"]
SHARED_W_PER_L_MIN = 1 / 1.1
"""Watts of a shared air pump for each L/min (memory)."""
RESERVE = 1.3
"""Air bought relative to air needed: valves take some, and a room grows (memory)."""
RIM_TURNOVER = 5.0
"""Turnover a hang-on is bought for, per hour (common practice)."""
PLUMBED_EACH, PLUMBED_MINUTES = 35.0, 5.0
"""Cost of bulkheads, drain and return of a tank on a shared sump, and minutes a month of inspection (memory)."""


class RoomYearQuestion(Question):
    """The tanks by volume, and the price of electricity."""

    tanks_l: Annotated[list[Annotated[float, number("L", 1, 5000)]], Field(min_length=1, max_length=200)]
    price_per_kwh: Annotated[float, number("money/kWh", 0, 100)] = 0.30


class YearWay(Part):
    """One way: its cost, effort and risk."""

    way: Way
    name: str
    buy_money: Annotated[float, number("money", 0, 1e7)]
    watts: Annotated[float, number("W", 0, 1e5)]
    kwh_year: Annotated[float, number("kWh/year", 0, 1e7)]
    year_money: Annotated[float, number("money", 0, 1e8, "Energy of a year")]
    first_year_money: Annotated[float, number("money", 0, 1e8, "Bought, and run for a year")]
    sockets_count: Annotated[int, whole(0, 1000)]
    hours_year: Annotated[float, number("h", 0, 1e5, "Of care")]
    one_failure: str
    disease: str


class RoomYearAnswer(Answer):
    """The ways, cheapest first year first."""

    ways: list[YearWay]


def _nearest(fits: list[Filter], litres: float) -> tuple[Filter, int]:
    """(smallest filter whose label suits the volume, number of it).

    Several of the largest where none is large enough.
    """
    able = [f for f in fits if f.tank_up_to_l >= litres]
    if able:
        return min(able, key=lambda f: (f.price, f.id)), 1
    largest = max(fits, key=lambda f: (f.tank_up_to_l, f.id))
    return largest, int(-(-litres // largest.tank_up_to_l))


def _hours(f: Filter, count: float) -> float:
    care = kind_of(f.kind).care
    return count * care.minutes / 60 * DAYS_PER_YEAR / kind_of(f.kind).service_days


@computation("fish-room-year", "A year of running a room: air for all, a box on each rim, or one shared sump")
def room_year(question: RoomYearQuestion) -> RoomYearAnswer:
    """Cost, effort and risk in a year of three ways to filter a fish room.

    question: litres of each tank, money per kWh. Filters are the cheapest typical boxes whose label suits each tank.
    Source: arithmetic on typical boxes; minutes, plumbing and air by the watt from memory; failures and disease common
    practice.
    """
    q, w = question, Working()
    ways = [_air(q), _rim(q), _sump(q)]
    for one in ways:
        w.line(f"E {one.way}", "W × 24 × 365.25 / 1000", f"{one.watts:.0f} W", one.kwh_year, "kWh/year", "arithmetic")
        w.line(
            f"C {one.way}",
            "bought + E × price",
            f"{one.buy_money:.0f} + {one.kwh_year:.0f} × {q.price_per_kwh:g}",
            one.first_year_money,
            "money",
            "memory",
        )
    ways.sort(key=lambda one: (one.first_year_money, one.way))
    least, quickest = ways[0], min(ways, key=lambda one: one.hours_year)
    more = "" if least is quickest else f" {quickest.name} asks the least care, {quickest.hours_year:.0f} hours."
    return RoomYearAnswer(
        verdict=(
            f"{least.name} costs least: {formatting.money(least.first_year_money)} in the first year,"
            f" {formatting.money(least.year_money)} a year after, {least.sockets_count}"
            f" {'socket' if least.sockets_count == 1 else 'sockets'}.{more}"
        ),
        working=w.lines,
        ways=ways,
    )


def _way(
    way: Way,
    name: str,
    q: RoomYearQuestion,
    buy: float,
    watts: float,
    sockets: int,
    hours: float,
    failure: str,
    disease: str,
) -> YearWay:
    kwh = watts * KWH_PER_WATT_YEAR
    year = kwh * q.price_per_kwh
    return YearWay(
        way=way,
        name=name,
        buy_money=buy,
        watts=watts,
        kwh_year=kwh,
        year_money=year,
        first_year_money=buy + year,
        sockets_count=sockets,
        hours_year=hours,
        one_failure=failure,
        disease=disease,
    )


def _air(q: RoomYearQuestion) -> YearWay:
    fits = [f for f in typical_medians().filters if f.air and kind_of(f.kind).may_pair]
    chosen = [_nearest(fits, litres) for litres in q.tanks_l]
    air = RESERVE * sum((f.air_l_min or 0) * n for f, n in chosen)
    buy = sum(f.price * n for f, n in chosen) + AIR_PUMP_BASE + AIR_PUMP_PER_L_MIN * air
    return _way(
        "air",
        "Air for all from one pump",
        q,
        buy,
        air * SHARED_W_PER_L_MIN,
        1,
        sum(_hours(f, n) for f, n in chosen),
        "The pump stops and every tank stands; the films live on in the tanks' own water. A second pump or a battery"
        " one carries them.",
        "Each tank keeps its own water.",
    )


def _rim(q: RoomYearQuestion) -> YearWay:
    fits = [f for f in typical_medians().filters if kind_of(f.kind).on_rim and not f.air]
    chosen = []
    for litres in q.tanks_l:
        able = [f for f in fits if f.box_lph >= RIM_TURNOVER * litres]
        chosen.append((min(able, key=lambda f: (f.price, f.id)), 1) if able else _nearest(fits, litres))
    return _way(
        "rim",
        "A box on the rim of each",
        q,
        sum(f.price * n for f, n in chosen),
        sum(f.watts * n for f, n in chosen),
        sum(n for _, n in chosen),
        sum(_hours(f, n) for f, n in chosen),
        "One tank stands, the others run.",
        "Each tank keeps its own water.",
    )


def _sump(q: RoomYearQuestion) -> YearWay:
    fits = [f for f in typical_medians().filters if kind_of(f.kind).rise == "return"]
    f, n = _nearest(fits, sum(q.tanks_l))
    tanks = len(q.tanks_l)
    hours = _hours(f, n) + tanks * PLUMBED_MINUTES / 60 * 12
    return _way(
        "sump",
        "One sump for all",
        q,
        f.price * n + PLUMBED_EACH * tanks,
        f.watts * n,
        n,
        hours,
        "The return stops and every tank stands, and all of them run back: the sump must take it.",
        "Shared: what one tank catches, all have. Every dose and change is for all the water.",
    )
