"""Yearly cost of a tank: energy by device, and consumables."""

from typing import Annotated

from pydantic import Field

from reedmace.core.contract import Answer, Name, Part, Question, Watts, Working, computation, number
from reedmace.core.quantity import formatting

WATER_PRICE_M3, SALT_PRICE_KG, KWH_PRICE = 4.0, 3.0, 0.30
"""Price of a cubic metre of tap water with its drain, a kilo of sea salt and a kWh, where unknown (memory)."""


class Device(Part):
    """One electrical device."""

    name: Name
    watts: Watts
    hours_per_day: Annotated[float, number("h/day", 0, 24)] = 24


class Consumable(Part):
    """One consumable."""

    name: Name
    every_days: Annotated[float, number("days", 1, 40000)]
    price: Annotated[float, number("money", 0, 1e6)]


class YearCostQuestion(Question):
    """Devices, water, and consumables."""

    devices: Annotated[list[Device], Field(max_length=40)] = Field(default_factory=list)
    used_up: Annotated[list[Consumable], Field(max_length=40)] = Field(default_factory=list)
    price_per_kwh: Annotated[float, number("money/kWh", 0, 100)] = KWH_PRICE
    changed_year: Annotated[float, number("L/year", 0, 1e9)] = 0
    salt_g_kg: Annotated[float, number("g/kg", 0, 60, "Mixed into the water of a change")] = 0
    water_price: Annotated[float, number("money/m³", 0, 1000)] = WATER_PRICE_M3
    salt_price: Annotated[float, number("money/kg", 0, 1000)] = SALT_PRICE_KG


class CostRow(Part):
    """One line of the year."""

    name: Name
    kwh_year: Annotated[float, number("kWh/year", 0, 1e6)] | None = Field(
        description="None of what takes no electricity"
    )
    money_year: Annotated[float, number("money/year", 0, 1e9)]


class YearCostAnswer(Answer):
    """The most expensive first."""

    rows: list[CostRow]
    kwh_year: Annotated[float, number("kWh/year", 0, 1e8)]
    money_year: Annotated[float, number("money/year", 0, 1e10)]


@computation("year-cost", "What a tank costs in a year, device by device")
def year_cost(question: YearCostQuestion) -> YearCostAnswer:
    """Yearly energy, water, salt and consumables.

    question: W, hours a day, L a year, money. Source: arithmetic; a year is 365.25 days.
    """
    q, w = question, Working()
    rows = []
    for d in q.devices:
        kwh = w.sum(
            f"E {d.name}",
            "W × hours × 365.25 / 1000",
            {"W": d.watts, "hours": d.hours_per_day},
            "kWh/year",
            "arithmetic",
        )
        rows.append(CostRow(name=d.name, kwh_year=kwh, money_year=kwh * q.price_per_kwh))
    if q.changed_year:
        money = w.sum(
            "water",
            "V / 1000 × price",
            {"V": q.changed_year, "1000": 1000, "price": q.water_price},
            "money/year",
            "keeper",
        )
        rows.append(CostRow(name="Water changed", kwh_year=None, money_year=money))
        if q.salt_g_kg:
            money = w.sum(
                "salt",
                "V × g / 1000 × price",
                {"V": q.changed_year, "g": q.salt_g_kg, "1000": 1000, "price": q.salt_price},
                "money/year",
                "keeper",
            )
            rows.append(CostRow(name="Salt", kwh_year=None, money_year=money))
    for u in q.used_up:
        money = w.sum(u.name, "price × 365.25 / days", {"price": u.price, "days": u.every_days}, "money/year", "keeper")
        rows.append(CostRow(name=u.name, kwh_year=None, money_year=money))
    energy = w.line(
        "E", "Σ E", f"{len(q.devices)} devices", sum(r.kwh_year or 0.0 for r in rows), "kWh/year", "arithmetic"
    )
    total = w.line("C", "Σ", f"{len(rows)} rows", sum(r.money_year for r in rows), "money/year", "arithmetic")
    rows.sort(key=lambda r: (-r.money_year, r.name))
    dearest = f" ({rows[0].name} the most of it)" if len(rows) > 1 and rows[0].money_year > total / 2 else ""
    return YearCostAnswer(
        verdict=f"{formatting.money(total)} a year{dearest}; {energy:.0f} kWh.",
        working=w.lines,
        rows=rows,
        kwh_year=energy,
        money_year=total,
    )
