"""Running cost of a filter: energy and money."""

from typing import Annotated

from reedmace.core.contract import Answer, Question, Watts, Working, computation, number
from reedmace.core.quantity import formatting


class RunningCostQuestion(Question):
    """Power and tariff."""

    watts: Watts
    hours_per_day: Annotated[float, number("h/day", 0, 24)] = 24
    price_per_kwh: Annotated[float, number("money/kWh", 0, 100)] = 0.30
    purchase_price: Annotated[float, number("money", 0, 1e6)] = 0


class RunningCostAnswer(Answer):
    """Energy and money."""

    kwh_month: Annotated[float, number("kWh/month", 0, 1e5)]
    kwh_year: Annotated[float, number("kWh/year", 0, 1e6)]
    money_month: Annotated[float, number("money/month", 0, 1e7)]
    money_year: Annotated[float, number("money/year", 0, 1e8)]
    money_three_years: Annotated[float, number("money", 0, 1e9, "Purchase and three years' energy")]


@computation("running-cost", "What a device costs to run")
def running_cost(question: RunningCostQuestion) -> RunningCostAnswer:
    """Energy and money of a device.

    question: W, hours a day, price per kWh. Source: arithmetic; a month is 365.25/12 days.
    """
    q, w = question, Working()
    year = w.sum("E", "W × hours × 365.25 / 1000", {"W": q.watts, "hours": q.hours_per_day}, "kWh/year", "arithmetic")
    money = w.sum("C", "E × price", {"E": year, "price": q.price_per_kwh}, "money/year", "keeper")
    three = w.sum("C3", "purchase + 3 × C", {"purchase": q.purchase_price, "C": money}, "money", "arithmetic")
    return RunningCostAnswer(
        verdict=(
            f"{q.watts:g} W takes {year:.0f} kWh a year: {formatting.money(money)} a year,"
            f" {formatting.money(money / 12)} a month."
        ),
        working=w.lines,
        kwh_month=year / 12,
        kwh_year=year,
        money_month=money / 12,
        money_year=money,
        money_three_years=three,
    )
