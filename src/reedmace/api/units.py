"""Units of a response: from the request header, otherwise the account, otherwise metric."""

from collections.abc import Callable
from contextvars import Token
from typing import Annotated, Literal

from flask import Flask, g, request
from flask_login import current_user
from pydantic import BaseModel, ConfigDict, Field, ValidationError

from reedmace.core.quantity import formatting

HEADER = "Reedmace-Units"
"""Four values separated by semicolons: "US gal;in;F;USD". Headers cannot carry a degree sign."""

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


class Units(BaseModel):
    """What a keeper reads in."""

    model_config = ConfigDict(extra="forbid")
    volume: Literal["L", "US gal", "imp gal"] = "L"
    length: Literal["cm", "in"] = "cm"
    temperature: Literal["°C", "°F"] = "°C"
    currency: Annotated[str, Field(pattern="^([A-Z]{3})?$", description="ISO 4217, or nothing")] = ""

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


def units_of_locale(locale: str) -> Units:
    """Usual units of a browser's locale. locale: "en-US"; an unknown one is metric."""
    region = next((part.upper() for part in locale.replace("_", "-").split("-")[1:] if len(part) == 2), "")
    currency = next((name for name, regions in _CURRENCY.items() if region in regions), "")
    if region in _IN_GALLONS_AND_INCHES:
        return Units(volume="US gal", length="in", temperature="°F", currency=currency)
    return Units(currency=currency)


def units_of_keeper(stored: dict[str, str] | None) -> Units:
    """Units of an account. stored: as stored, or None."""
    return Units.model_validate(stored or {})


def _asked() -> Units:
    parts = request.headers.get(HEADER, "").split(";")
    if len(parts) == 4:
        try:
            return Units.model_validate(
                {"volume": parts[0], "length": parts[1], "temperature": f"°{parts[2]}", "currency": parts[3]}
            )
        except ValidationError:
            pass
    # A file link carries no header; it uses the keeper's account.
    known = "database" in g and current_user.is_authenticated
    return units_of_keeper(current_user.keeper.units) if known else Units()


def _begin() -> None:
    g.units_token = formatting.choose(_asked().chosen())


def _end(_: BaseException | None) -> None:
    token: Token[formatting.Units] | None = g.pop("units_token", None)
    if token is not None:
        formatting.restore(token)


def install(app: Flask) -> None:
    """Answer every request in its own units. app: the application, its database opened before."""
    begin: Callable[[], None] = _begin
    app.before_request(begin)
    app.teardown_request(_end)
