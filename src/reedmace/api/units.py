"""Units of a response: from the request header, otherwise the account, otherwise metric."""

import json
import re
from collections.abc import Callable
from contextvars import Token
from typing import Annotated, Any, Literal

from flask import Flask, Response, g, request
from flask_login import current_user
from pydantic import BaseModel, ConfigDict, Field, ValidationError

from reedmace.core.quantity import formatting

HEADER = "Reedmace-Units"
"""Values separated by semicolons: "US gal;in;F;USD;point". A header has no degree sign; the last may be missing."""

_IN_GALLONS_AND_INCHES = ("US", "LR", "MM")
_CURRENCY = {
    "USD": ("US", "EC", "SV", "PR"),
    "GBP": ("GB",),
    "CAD": ("CA",),
    "AUD": ("AU",),
    "NZD": ("NZ",),
    "CHF": ("CH", "LI"),
    "SEK": ("SE",),
    "NOK": ("NO",),
    "DKK": ("DK",),
    "PLN": ("PL",),
    "CZK": ("CZ",),
    "HUF": ("HU",),
    "JPY": ("JP",),
    "INR": ("IN",),
    "BRL": ("BR",),
    "MXN": ("MX",),
    "ZAR": ("ZA",),
    "SGD": ("SG",),
    "MYR": ("MY",),
    "PHP": ("PH",),
    "IDR": ("ID",),
    "THB": ("TH",),
    "KRW": ("KR",),
    "CNY": ("CN",),
    "TRY": ("TR",),
    "RON": ("RO",),
    "EUR": (
        "AT",
        "BE",
        "CY",
        "DE",
        "EE",
        "ES",
        "FI",
        "FR",
        "GR",
        "HR",
        "IE",
        "IT",
        "LT",
        "LU",
        "LV",
        "MT",
        "NL",
        "PT",
        "SI",
        "SK",
    ),
}


DecimalMark = Literal[".", ","]


class Units(BaseModel):
    """What a keeper reads in."""

    model_config = ConfigDict(extra="forbid")
    volume: Literal["L", "US gal", "imp gal"] = "L"
    length: Literal["cm", "in"] = "cm"
    temperature: Literal["°C", "°F"] = "°C"
    currency: Annotated[str, Field(pattern="^([A-Z]{3})?$", description="ISO 4217, or nothing")] = ""
    decimal: DecimalMark = "."

    def chosen(self) -> formatting.Units:
        """The same for the core's formatting."""
        return formatting.Units(self.volume, self.length, self.temperature, self.currency)


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


def units_of_locale(locale: str, decimal: DecimalMark = ".") -> Units:
    """Usual units of a browser's locale. locale: "en-US"; an unknown one is metric; decimal: as written there."""
    region = next((part.upper() for part in locale.replace("_", "-").split("-")[1:] if len(part) == 2), "")
    currency = next((name for name, regions in _CURRENCY.items() if region in regions), "")
    if region in _IN_GALLONS_AND_INCHES:
        return Units(volume="US gal", length="in", temperature="°F", currency=currency, decimal=decimal)
    return Units(currency=currency, decimal=decimal)


def units_of_keeper(stored: dict[str, str] | None) -> Units:
    """Units of an account. stored: as stored, or None."""
    return Units.model_validate(stored or {})


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


_FIGURE = re.compile(r'(?<![\w.,:/"“])(\d{1,3}(?:,\d{3})+|\d+)(\.\d+)?(?![\w]|[.,]\d)')
"""A figure with a point, or with commas at its thousands; no part of a word, date or version, nor quoted as typed."""
_TYPED = frozenset({"name", "text", "note", "body", "email", "id", "key", "seen_where", "formula"})
"""Fields that keep what somebody typed."""


def with_comma(answer: Any) -> Any:
    """An answer whose sentences write decimals with a comma. answer: decoded JSON; what keepers typed stays."""
    if isinstance(answer, dict):
        return {key: one if key in _TYPED else with_comma(one) for key, one in answer.items()}
    if isinstance(answer, list):
        return [with_comma(one) for one in answer]
    if isinstance(answer, str) and " " in answer:
        return _FIGURE.sub(lambda m: m[1].replace(",", ".") + (m[2] or "").replace(".", ","), answer)
    return answer


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
