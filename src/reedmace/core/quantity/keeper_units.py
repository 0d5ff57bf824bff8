"""Units and decimals a keeper reads in, as stored with the account, and sentences with a decimal comma."""

import re
from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field

from reedmace.core.quantity import formatting

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
