"""What the routes of an account are asked, and what they answer."""

from typing import Annotated

from pydantic import AwareDatetime, BaseModel, ConfigDict, Field

from reedmace.api.units import WrittenUnit
from reedmace.core.quantity.keeper_units import DecimalMark, Units

Email = Annotated[str, Field(min_length=3, max_length=254, pattern=r"^[^@\s\x00-\x1f]+@[^@\s\x00-\x1f]+$")]


Password = Annotated[
    str, Field(min_length=10, max_length=200, description="At least ten characters; a few words do well")
]


class Credentials(BaseModel):
    """An email address and a password."""

    model_config = ConfigDict(extra="forbid")
    email: Email
    password: Annotated[str, Field(min_length=1, max_length=200)]


class SignUp(BaseModel):
    """A new account."""

    model_config = ConfigDict(extra="forbid")
    email: Email
    password: Password
    locale: Annotated[
        str, Field(max_length=35, description="As the browser names it; gives the units until others are chosen")
    ] = ""
    decimal: DecimalMark = "."


class PasswordChange(BaseModel):
    """The old password and the new."""

    model_config = ConfigDict(extra="forbid")
    old: Annotated[str, Field(min_length=1, max_length=200)]
    new: Password


class EmailChange(BaseModel):
    """Another address, with the password."""

    model_config = ConfigDict(extra="forbid")
    password: Annotated[str, Field(min_length=1, max_length=200)]
    email: Email


class Closing(BaseModel):
    """The password, to close the account."""

    model_config = ConfigDict(extra="forbid")
    password: Annotated[str, Field(min_length=1, max_length=200)]


class Guest(BaseModel):
    """Language and country of a guest's browser, for the units."""

    model_config = ConfigDict(extra="forbid")
    locale: Annotated[str, Field(max_length=40)] = ""
    decimal: DecimalMark = "."
    key: (
        Annotated[str, Field(pattern=r"^[0-9a-f]{32,64}$", description="Random, new for each guest; sent again")] | None
    ) = None


class Contribution(BaseModel):
    """Whether typed boxes and timed flows count when typical boxes are learned: label figures and ratios alone."""

    model_config = ConfigDict(extra="forbid")
    contributes: bool


class SessionState(BaseModel):
    """Who is signed in, the CSRF token, and whether the demo is available."""

    signed_in: bool
    email: str | None
    visiting: bool = Field(description="Whether this is a visit of the demo, forgotten after a day")
    guest_until: AwareDatetime | None = Field(description="Until when what a guest made is kept; null with an account")
    csrf_token: str
    demo_open: bool
    mail_on: bool = Field(description="Whether this installation sends mail")
    units: Units
    written: list[WrittenUnit]


class NewAccount(SessionState):
    """A new account, signed in, with its recovery codes."""

    recovery_codes: list[str]
