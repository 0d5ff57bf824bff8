"""Units of a response: from the request header, otherwise the account, otherwise metric."""

import json
from collections.abc import Callable
from contextvars import Token

from flask import Flask, Response, g, request
from flask_login import current_user
from pydantic import BaseModel, ValidationError

from reedmace.core.quantity import formatting
from reedmace.core.quantity.keeper_units import Units, units_of_keeper, with_comma

HEADER = "Reedmace-Units"
"""Values separated by semicolons: "US gal;in;F;USD;point". A header has no degree sign; the last may be missing."""


class WrittenUnit(BaseModel):
    """Format of one kind of quantity.

    figure = home × factor + offset, with this many more decimals than the home unit's.
    """

    home: str
    name: str
    factor: float
    offset: float
    more_places: int
    twin: str
    twin_factor: float
    twin_offset: float


def written(units: Units) -> list[WrittenUnit]:
    """Every kind of quantity, in this keeper's units. units: the keeper's."""
    with formatting.in_units(units.chosen()):
        return [
            WrittenUnit(
                home=home,
                name=unit.name,
                factor=unit.factor,
                offset=unit.offset,
                more_places=unit.more_places,
                twin=twin.name,
                twin_factor=twin.factor,
                twin_offset=twin.offset,
            )
            for home, kind in formatting.BY_HOME_UNIT.items()
            for unit, twin in [(kind.unit(), kind.twin_unit())]
        ]


def _asked() -> Units:
    parts = request.headers.get(HEADER, "").split(";")
    if len(parts) in (4, 5):
        mark = "," if parts[4:] == ["comma"] else "."
        try:
            return Units.model_validate(
                {
                    "volume": parts[0],
                    "length": parts[1],
                    "temperature": f"°{parts[2]}",
                    "currency": parts[3],
                    "decimal": mark,
                }
            )
        except ValidationError:
            pass
    # A file link carries no header; it uses the keeper's account.
    known = "database" in g and current_user.is_authenticated
    return units_of_keeper(current_user.keeper.units) if known else Units()


def _begin() -> None:
    units = _asked()
    g.decimal = units.decimal
    g.units_token = formatting.choose(units.chosen())


def _end(_: BaseException | None) -> None:
    token: Token[formatting.Units] | None = g.pop("units_token", None)
    if token is not None:
        formatting.restore(token)


def _in_their_decimals(response: Response) -> Response:
    sentences = request.path.startswith("/api/") and request.path != "/api/openapi.json"
    # A file is for other programs.
    if sentences and g.get("decimal") == "," and response.is_json and "Content-Disposition" not in response.headers:
        response.set_data(json.dumps(with_comma(response.get_json()), ensure_ascii=False))
    return response


def install(app: Flask) -> None:
    """Answer every request in its own units. app: the application, its database opened before."""
    begin: Callable[[], None] = _begin
    app.before_request(begin)
    app.teardown_request(_end)


def install_decimals(app: Flask) -> None:
    """Write the decimals of every answer as its keeper does. app: the application, its compression installed before."""
    app.after_request(_in_their_decimals)
