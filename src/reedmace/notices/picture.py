"""The front view of a tank for a mail: glass, water, bed and filters to scale, as PNG, since mail shows no SVG."""

import io
from dataclasses import dataclass
from typing import Literal

from PIL import Image, ImageDraw

from reedmace.core.filter.kinds import kind_of
from reedmace.logbook.replay.current_plans import filter_plan, tank_plan
from reedmace.logbook.replay.state import LogbookState

WIDTH, HEIGHT = 720, 420
"""Pixels of the picture: twice what it is shown at."""
FINER = 3
"""Times finer it is drawn, for smooth edges."""
MARGIN_CM_SHARE = 0.14
"""Room beside the tank, of its length."""
STAND_SHARE = 0.55
"""Height of the stand under it where a filter stands there, of the tank's height (a drawing's convention)."""
BODY_L_SHARE = 0.09
"""Width of a filter's body, of the tank's length (a drawing's convention)."""
PAPER, INK, LINE = "#f3f4ef", "#14262a", "#b9c2b8"
WATER, BED, ALARM, STAND = "#bfdad8", "#d5c9b0", "#9b2318", "#e8ebe3"
FILTER, FILTER_FILL = "#7a3d18", "#e6d3bf"

Place = Literal["water", "rim", "below"]


@dataclass(frozen=True)
class DrawnFilter:
    """A filter of the view. x_share: its place along the tank; bubbles: whether it is driven by air."""

    title: str
    place: Place
    x_share: float
    bubbles: bool


@dataclass(frozen=True)
class Outline:
    """What the view shows, in cm: the tank, its water and bed, and its filters. urgent: whether something presses."""

    length_cm: float
    height_cm: float
    water_cm: float
    bed_cm: float
    filters: tuple[DrawnFilter, ...] = ()
    urgent: bool = False

    def in_words(self, name: str) -> str:
        """The view for whoever sees no pictures. name: of the tank."""
        on_it = " and ".join(f.title.lower() for f in self.filters) or "no filter yet"
        return f"{name} from the front: {on_it}"


def outline_of(state: LogbookState, *, urgent: bool) -> Outline | None:
    """Outline of a tank that was measured; None before. state: the tank's."""
    if state.tank_plan is None:
        return None
    tank = tank_plan(state).tank
    filters = []
    for fitted in filter_plan(state).hanging:
        kind = kind_of(fitted.filter.kind)
        place: Place = "rim" if kind.on_rim else "water" if kind.in_tank else "below"
        filters.append(DrawnFilter(kind.title, place, kind.body_x_share, kind.needs_air))
    water = max(tank.height_cm - tank.fill_below_rim_cm, 0.0)
    return Outline(tank.length_cm, tank.height_cm, water, tank.substrate_depth_cm, tuple(filters), urgent)


def draw(outline: Outline) -> bytes:
    """PNG of the view, WIDTH by HEIGHT. outline: of the tank."""
    pen = _Pen(outline)
    pen.tank()
    for n, drawn in enumerate(outline.filters[:4]):
        pen.filter(drawn, n)
    pen.glass()
    out = io.BytesIO()
    pen.image.resize((WIDTH, HEIGHT), Image.Resampling.LANCZOS).quantize(64).save(out, "PNG", optimize=True)
    return out.getvalue()


class _Pen:
    """Draws in cm from the tank's lower left corner, upward."""

    def __init__(self, outline: Outline) -> None:
        self._o = outline
        self.image = Image.new("RGB", (WIDTH * FINER, HEIGHT * FINER), PAPER)
        self._draw = ImageDraw.Draw(self.image)
        below = STAND_SHARE * outline.height_cm if any(f.place == "below" for f in outline.filters) else 0.0
        wide = outline.length_cm * (1 + 2 * MARGIN_CM_SHARE)
        high = outline.height_cm * (1 + 2 * MARGIN_CM_SHARE) + below
        self._scale = min(WIDTH / wide, HEIGHT / high) * FINER
        self._left = (WIDTH * FINER - outline.length_cm * self._scale) / 2
        self._floor = HEIGHT * FINER - (below + MARGIN_CM_SHARE * outline.height_cm) * self._scale
        self._below = below

    def _at(self, x_cm: float, y_cm: float) -> tuple[float, float]:
        return self._left + x_cm * self._scale, self._floor - y_cm * self._scale

    def _box(self, left: float, bottom: float, right: float, top: float, fill: str, edge: str | None = None) -> None:
        if right > left and top > bottom:
            corners = [self._at(left, top), self._at(right, bottom)]
            self._draw.rectangle(corners, fill=fill, outline=edge, width=3 * FINER)

    def _line(self, *points: tuple[float, float], colour: str = INK, width: float = 3.0) -> None:
        self._draw.line([self._at(*p) for p in points], fill=colour, width=round(width * FINER), joint="curve")

    def tank(self) -> None:
        """The stand where one is needed, the water and the bed."""
        o = self._o
        if self._below:
            self._box(0, -self._below, o.length_cm, 0, STAND, LINE)
        self._box(0, 0, o.length_cm, o.water_cm, WATER)
        self._box(0, 0, o.length_cm, min(o.bed_cm, o.water_cm), BED)

    def glass(self) -> None:
        """The panes and the water line, over all else."""
        o = self._o
        self._line((0, o.height_cm), (0, 0), (o.length_cm, 0), (o.length_cm, o.height_cm), width=5)
        self._line((0, o.water_cm), (o.length_cm, o.water_cm), colour=ALARM if o.urgent else INK)

    def filter(self, drawn: DrawnFilter, number: int) -> None:
        """One filter. number: of those before it, each a body's width further left."""
        o, body = self._o, BODY_L_SHARE * self._o.length_cm
        x = max(drawn.x_share * o.length_cm - 1.6 * number * body, 0.0)
        if drawn.place == "rim":
            x = o.length_cm - 2.2 * number * body
            stem, top = x - 0.5 * body, 1.03 * o.height_cm
            self._line((stem, 0.35 * o.water_cm), (stem, top), (x + 0.5 * body, top), colour=FILTER)
            self._box(x, 0.72 * o.height_cm, x + body, top, FILTER_FILL, FILTER)
        elif drawn.place == "water":
            self._box(x, o.bed_cm, x + body, o.bed_cm + 0.42 * o.water_cm, FILTER_FILL, FILTER)
            if drawn.bubbles:
                self._bubbles(x + body / 2, o.bed_cm + 0.46 * o.water_cm)
        else:
            lid, over = -0.35 * self._below, 1.03 * o.height_cm
            for hose, inside, end in (
                (0.4 * body, -body, 0.3 * o.water_cm),
                (1.2 * body, 2.4 * body, 0.9 * o.water_cm),
            ):
                points = [(x + hose, lid), (x + hose, over), (x + inside, over), (x + inside, end)]
                self._line(*points, colour=FILTER)
            self._box(x, -self._below, x + 1.6 * body, lid, FILTER_FILL, FILTER)

    def _bubbles(self, x_cm: float, from_cm: float) -> None:
        radius = 0.012 * self._o.length_cm
        for n in range(4):
            y = from_cm + (self._o.water_cm - from_cm) * n / 4
            left, top = self._at(x_cm + (radius if n % 2 else -radius), y)
            reach = radius * self._scale
            self._draw.ellipse((left - reach, top - reach, left + reach, top + reach), outline=INK, width=2 * FINER)


__all__ = ["DrawnFilter", "Outline", "draw", "outline_of"]
