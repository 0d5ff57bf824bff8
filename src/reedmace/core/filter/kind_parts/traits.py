"""Plain traits of a filter kind, and the registry of kinds by name.

The registry stands below the filter model, so that a box can be checked against its kind. `filter.kinds` fills it.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Annotated, Any, Literal

from pydantic import AfterValidator, GetJsonSchemaHandler
from pydantic_core import CoreSchema

from reedmace.core.filter.kind_parts.about import KindAbout
from reedmace.core.filter.kind_parts.cleaning import Care
from reedmace.core.filter.kind_parts.fitting import PowerCut
from reedmace.core.filter.kind_parts.typical import Typical
from reedmace.core.flow.materials import MediaKind


@dataclass(frozen=True)
class Judgements:
    """Stated judgements from 0 to 1 where nothing can be computed (common practice)."""

    easy_clean: float
    clear_water: float
    hidden: float
    flood_safety: float
    expandable: float
    young_safe: float
    """Safety of fry and shrimp from its intake."""


@dataclass(frozen=True, kw_only=True)
class KindTraits:
    """What is fixed for a kind of filter, whatever box and tank."""

    name: str
    title: str
    about: KindAbout
    order: int
    prefix: str
    """Prefix of its step ids."""
    service_days: float
    """Usual days between cleanings (common practice)."""
    rise: Literal["none", "lip", "outlet", "return"]
    """Where the water is lifted to open air:

    nowhere, a lip above the water, an outlet above it, a return from below.
    """
    hosed: bool
    """Whether hoses and the keeper's fittings make up its path."""
    own_k: float
    """Resistance of its own strainer, stem or grate where it is not hosed (memory)."""
    stemmed: bool
    """Whether its intake is a stem down from the rim."""
    media_in_path: bool
    """Whether the pump pushes through the media; in a sump the water falls through them."""
    outlet: Literal["bar-or-nozzle", "lip", "nozzle", "bubbles"]
    drains_cm: float = 0.0
    """Fall through an overflow and its drain, cm, on which the water takes up air (memory)."""
    needs_air: bool
    closed: bool
    """Whether it is a closed body, anoxic within hours when it stops."""
    in_tank: bool
    """Whether it takes space in the water."""
    pump_in_water: Literal["yes", "no", "as-built"]
    """"as-built": the pump stands in the water where the filter restarts by itself."""
    may_pair: bool
    on_rim: bool
    fill_most: float
    """Largest share of its media volume that may be filled (common practice)."""
    packing: tuple[MediaKind, ...] = ()
    """Media that fill it in flow order, in equal parts, until the keeper says otherwise (common practice); none where
    its foam or bed is the filter itself."""
    judged: Judgements
    typical: Typical | None = None
    """Boxes of this kind as they are sold; None where nobody has said: then it stands in no map of sizes."""
    power_cut: PowerCut
    proofs: tuple[tuple[str, str], ...]
    """Ways to prove its flow, best first: (method, what the keeper sees)."""
    causes: tuple[str, ...]
    """Usual causes of a flow short of the computed one, likeliest first."""
    after: dict[str, tuple[str, ...]]
    """Steps that must be done before each step."""
    care: Care
    """Its cleaning."""
    messy: tuple[str, str] | None = None
    """Why it is excluded for large messy animals ("{who}" is filled in), and the remedy; None where it is not."""
    messy_only_air: bool = False
    space_over_cm: float | None = None
    """Space over its body under the tank for hoses or hands; None where it does not stand there (common practice)."""
    body_x_share: float = 0.72
    """Default position along the tank, as a share of its length."""


_REGISTERED: dict[str, KindTraits] = {}


def register_kind(traits: KindTraits) -> None:
    """Make a kind known by its name. traits: the kind's. ValueError if the name is taken."""
    if traits.name in _REGISTERED:
        raise ValueError(f"filter kind {traits.name} is registered twice")
    _REGISTERED[traits.name] = traits


def kind_traits() -> Mapping[str, KindTraits]:
    """All registered kinds by name, in the order they were registered."""
    return _REGISTERED


def _known(name: str) -> str:
    if name not in _REGISTERED:
        raise ValueError(f"there is no filter kind {name!r}; use one of {', '.join(_REGISTERED)}")
    return name


class _EnumOfKinds:
    """Lists the registered kinds in a JSON schema when the schema is made."""

    def __get_pydantic_json_schema__(self, core_schema: CoreSchema, handler: GetJsonSchemaHandler) -> dict[str, Any]:
        schema = handler(core_schema)
        schema["enum"] = list(_REGISTERED)
        return schema


KindName = Annotated[str, AfterValidator(_known), _EnumOfKinds()]
"""Name of a registered filter kind."""
