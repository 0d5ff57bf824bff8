"""Formatting of quantities in sentences, in the units the keeper reads.

The sums know one unit a kind (litres, litres an hour, cm, °C, kg). Only their writing out differs between keepers, and
it differs in every sentence at once; so, as with Python's own decimal context, the choice is a context variable that
the border sets for one request or one command. No figure depends on it: the same question gives the same numbers in any
units. Lines of a working stay in the home units, for they are followed on paper with the formula.
"""

from collections.abc import Iterator
from contextlib import contextmanager
from contextvars import ContextVar, Token
from typing import Literal, NamedTuple

from reedmace.core.quantity.constants import DAYS_PER_MONTH, DAYS_PER_YEAR
from reedmace.core.quantity.units import CACO3_PER_DKH, CM_PER_INCH, KG_PER_LB, L_PER_IMP_GAL, L_PER_US_GAL, M_PER_FT

Volume = Literal["L", "US gal", "imp gal"]
Length = Literal["cm", "in"]
Temperature = Literal["°C", "°F"]


class Units(NamedTuple):
    """Units a keeper reads. Pounds go with inches; doses stay in grams, as kitchen scales show them."""

    volume: Volume = "L"
    length: Length = "cm"
    temperature: Temperature = "°C"
    currency: str = ""
    """Three letters (ISO 4217), or empty for prices without a currency."""


METRIC = Units()
_chosen: ContextVar[Units] = ContextVar("units_shown", default=METRIC)


@contextmanager
def in_units(units: Units) -> Iterator[None]:
    """Context manager: sentences made inside use these units. units: the keeper's."""
    token = _chosen.set(units)
    try:
        yield
    finally:
        _chosen.reset(token)


def choose(units: Units) -> Token[Units]:
    """Use these units until `restore`. units: the keeper's."""
    return _chosen.set(units)


def restore(token: Token[Units]) -> None:
    """Restore the previous units. token: from `choose`, in the same thread."""
    _chosen.reset(token)


def chosen() -> Units:
    """The units in use in this context."""
    return _chosen.get()


class Unit(NamedTuple):
    """One unit for a kind of quantity."""

    name: str
    factor: float
    """Figure in this unit for one of the home unit, exact (NIST SP 811)."""
    offset: float = 0.0
    more_places: int = 0
    """Decimals beyond the home unit's, for a larger unit."""

    def figure(self, value: float, spec: str) -> str:
        """The number alone. value: in the home unit; spec: its format there, ".0f", ".3g" or "g"."""
        if self.factor == 1 and not self.offset:
            return format(value, spec)
        there = value * self.factor + self.offset
        if self.offset and float(2 * value).is_integer():
            # A table's or a rule's degrees, not typed here: 26 °C is 79 °F.
            return f"{there:.0f}"
        if spec.endswith("f"):
            places = int(spec[1:-1])
            if abs(there) < 1:
                places += self.more_places
            elif abs(there) < 99.5:
                # A place that was asked for already serves the larger unit too: 11.97 in is 12.
                places = max(places, self.more_places)
            text = f"{there:.{places}f}"
            return text.rstrip("0").rstrip(".") if "." in text else text
        if spec == "g" and float(10 * value).is_integer():
            # A rule's or a table's figure in tenths of the home unit; one typed here hardly falls on a tenth.
            text = f"{there:.{max(self.more_places, 1)}f}"
            return text.rstrip("0").rstrip(".")
        # A figure typed in this unit and stored in the home unit is shown as typed.
        return f"{there:.3g}" if spec == "g" else format(there, spec)


class Kind:
    """A kind of quantity: called for number with unit, `bare` for the number alone."""

    def __init__(self, spec: str, field: str | None, units: dict[str, Unit]) -> None:
        self._spec, self._field, self._units = spec, field, units
        home, *others = units
        self._home = home
        self._twins = {home: others[0]} | dict.fromkeys(others, home)

    def unit(self) -> Unit:
        """The unit in use."""
        return self._units[self._now()]

    def _now(self) -> str:
        return getattr(_chosen.get(), self._field) if self._field else self._home

    def __call__(self, value: float, spec: str | None = None) -> str:
        """Number and unit, "410 L/h". value: in the home unit; spec: how it is written there, if not as usual."""
        unit = self.unit()
        return f"{unit.figure(value, spec or self._spec)} {unit.name}"

    def bare(self, value: float, spec: str | None = None) -> str:
        """The number alone, for the second of two: "224 L/h where 320 is asked". value, spec: as when called."""
        return self.unit().figure(value, spec or self._spec)

    def twin_unit(self) -> Unit:
        """The unit shown beside this one for comparing labels."""
        return self._units[self._twins[self._now()]]

    def twin(self, value: float, spec: str | None = None) -> str:
        """The same in the comparison unit. value, spec: as when called."""
        other = self.twin_unit()
        return f"{other.figure(value, spec or self._spec)} {other.name}"

    @property
    def name(self) -> str:
        """The unit's name."""
        return self.unit().name


litres = Kind(
    ".0f", "volume",
    {
        "L": Unit("L", 1), "US gal": Unit("US gal", 1 / L_PER_US_GAL, more_places=1),
        "imp gal": Unit("imp gal", 1 / L_PER_IMP_GAL, more_places=1),
    },
)  # fmt: skip
lph = Kind(
    ".0f", "volume",
    {
        "L": Unit("L/h", 1), "US gal": Unit("US gal/h", 1 / L_PER_US_GAL),
        "imp gal": Unit("imp gal/h", 1 / L_PER_IMP_GAL),
    },
)  # fmt: skip
cm = Kind(".0f", "length", {"cm": Unit("cm", 1), "in": Unit("in", 1 / CM_PER_INCH, more_places=1)})
mm = Kind("g", "length", {"cm": Unit("mm", 1), "in": Unit("in", 0.1 / CM_PER_INCH, more_places=2)})
cm_s = Kind(".0f", "length", {"cm": Unit("cm/s", 1), "in": Unit("in/s", 1 / CM_PER_INCH, more_places=1)})
metres = Kind(".1f", "length", {"cm": Unit("m", 1), "in": Unit("ft", 1 / M_PER_FT)})
kg = Kind(".0f", "length", {"cm": Unit("kg", 1), "in": Unit("lb", 1 / KG_PER_LB)})
celsius = Kind("g", "temperature", {"°C": Unit("°C", 1), "°F": Unit("°F", 1.8, 32.0)})
dkh = Kind("g", None, {"dKH": Unit("dKH", 1), "mg/L CaCO3": Unit("mg/L CaCO3", CACO3_PER_DKH)})

BY_HOME_UNIT: dict[str, Kind] = {
    "L": litres, "L/h": lph, "cm": cm, "mm": mm, "cm/s": cm_s, "m": metres, "kg": kg, "°C": celsius, "dKH": dkh,
}  # fmt: skip
"""Kinds by home unit, for rows that carry the unit beside the amount."""


def money(amount: float) -> str:
    """A price, "12.40 EUR". amount: in the keeper's currency.

    >>> money(12.5)
    '12.50'
    """
    return f"{amount:.2f} {_chosen.get().currency}".rstrip()


def degrees(difference_c: float) -> str:
    """A difference of temperature, "0.5 °C". difference_c: °C.

    >>> degrees(3.0)
    '3.0 °C'
    """
    unit = celsius.unit()
    return f"{difference_c * unit.factor:.1f} {unit.name}"


YEARS_FROM_DAYS = 540
"""Length of time written in years instead of months, about eighteen months."""


def long_time(days: float) -> str:
    """A length of time in months or years. days: days.

    >>> long_time(91), long_time(1461)
    ('3 months', '4.0 years')
    """
    if days < YEARS_FROM_DAYS:
        months = round(days / DAYS_PER_MONTH)
        return "1 month" if months == 1 else f"{months} months"
    return f"{days / DAYS_PER_YEAR:.1f} years"


def inside(sentence: str) -> str:
    """A sentence or title as it reads inside another: its first letter small, unless it begins an abbreviation.

    >>> inside("Change 20 L"), inside("A bloom"), inside("KH runs out"), inside("pH fell")
    ('change 20 L', 'a bloom', 'KH runs out', 'pH fell')
    """
    if len(sentence) > 1 and sentence[0].isupper() and (sentence[1].islower() or sentence[1] == " "):
        return sentence[0].lower() + sentence[1:]
    return sentence


def opening(sentence: str) -> str:
    """A sentence as it opens: its first letter a capital.

    >>> opening("mixed to match"), opening("pH 7"), opening("")
    ('Mixed to match', 'pH 7', '')
    """
    return sentence if sentence.startswith("pH") else sentence[:1].upper() + sentence[1:]


def hours(time_h: float) -> str:
    """Whole hours in words. time_h: h.

    >>> hours(1.0), hours(4.2)
    ('an hour', '4 hours')
    """
    return "an hour" if round(time_h) == 1 else f"{time_h:.0f} hours"


SHOWN_IN_DAYS = 60
"""Age up to which it is written in days."""


def age(days: float) -> str:
    """An age in days, months or years. days: days.

    >>> age(12), age(91)
    ('12 days', '3 months')
    """
    return f"{days:.0f} days" if days < SHOWN_IN_DAYS else long_time(days)
