"""One medium in a filter."""

from collections.abc import Sequence
from typing import Annotated

from pydantic import Field

from reedmace.core.contract import Part, number
from reedmace.core.flow.materials import MediaKind


class Basket(Part):
    """One medium and its volume, in the order the water meets them."""

    media: MediaKind
    litres: Annotated[float, number("L", 0.01, 200)]
    bagged: bool = Field(default=False, description="Still in its plastic bag")
    seated: bool = Field(default=True, description="Tray down, lips sealing")


USUAL_MEDIA: tuple[MediaKind, ...] = ("foam-10", "foam-20", "ceramic-rings")
"""Media in flow order that fill a filter until the keeper says otherwise; the last is repeated (common practice)."""
LEAST_BASKET_L = 0.1


def next_basket(packed: Sequence[Basket], media_l: float) -> Basket:
    """A further basket for a filter: an equal share of its media volume, or what is left of it.

    packed: in flow order; media_l: media volume, L. Source: common practice.

    >>> next_basket([], 6.0).litres
    2.0
    """
    left = max(media_l - sum(b.litres for b in packed), LEAST_BASKET_L)
    media = USUAL_MEDIA[min(len(packed), len(USUAL_MEDIA) - 1)]
    return Basket(media=media, litres=max(round(min(left, media_l / len(USUAL_MEDIA)), 2), 0.01))


def next_baskets(packed: Sequence[Basket], media_l: float) -> list[Basket]:
    """The next few baskets for a filter, each as if those before it were packed.

    packed: in flow order; media_l: media volume, L. Source: common practice.

    >>> [basket.media for basket in next_baskets([], 6.0)]
    ['foam-10', 'foam-20', 'ceramic-rings']
    """
    ahead = list(packed)
    for _ in USUAL_MEDIA:
        ahead.append(next_basket(ahead, media_l))
    return ahead[len(packed) :]


def usual_packing(media: Sequence[MediaKind], media_l: float) -> list[Basket]:
    """A filter packed as usual for its kind, in flow order. media: of the kind; media_l: media volume, L.

    >>> [(basket.media, basket.litres) for basket in usual_packing(("foam-10", "ceramic-rings"), 6.0)]
    [('foam-10', 3.0), ('ceramic-rings', 3.0)]
    """
    return [Basket(media=one, litres=max(round(media_l / len(media), 2), 0.01)) for one in media]
