"""The section of a tank for a mail: front and side to scale on its stand, with its sizes, filters and animals.

As PNG, since mail shows no SVG.
"""

import io
from dataclasses import dataclass
from typing import Literal

from PIL import Image, ImageDraw, ImageFont

from reedmace.core.filter.kinds import kind_of
from reedmace.core.quantity import formatting
from reedmace.core.stock import SPECIES
from reedmace.logbook.replay.animals import animals_in
from reedmace.logbook.replay.current_plans import filter_plan, stock_plan, tank_plan
from reedmace.logbook.replay.state import LogbookState

WIDTH, HEIGHT = 720, 420
"""Pixels of the picture: twice what it is shown at."""
FINER = 3
"""Times finer it is drawn, for smooth edges."""
LEFT, RIGHT, BETWEEN, TOP, FOOT = 92, 14, 34, 46, 12
"""Room for sizes round the two views, px."""
STAND_SHARE, MOST_STAND_SHARE, EMPTY_STAND_SHARE = 0.55, 1.2, 0.25
"""Height of a stand nobody measured, the most drawn of one, and of one with nothing in it, of the tank's height (a
drawing's convention).
"""
MOST_BEHIND_SHARE = 0.5
"""Most of the room behind it that is drawn, of its width (a drawing's convention)."""
MOST_ANIMALS = 30
BANDS = {"top": (0.0, 0.28), "middle": (0.22, 0.75), "bottom": (0.88, 0.98)}
"""Depth at which animals swim, of the water over the bed."""
BODY_L_SHARE = 0.09
"""Width of a filter's body, of the tank's length (a drawing's convention)."""
PAPER, INK, LINE = "#f3f4ef", "#14262a", "#b9c2b8"
WATER, BED, ALARM, STAND = "#bfdad8", "#d5c9b0", "#9b2318", "#e8ebe3"
FILTER, FILTER_FILL = "#7a3d18", "#e6d3bf"
ANIMALS = ("#7a3d18", "#46575a", "#4b6a2f", "#1d646b")

Place = Literal["water", "rim", "below"]


@dataclass(frozen=True)
class DrawnFilter:
    """A filter of the view. x_share: its place along the tank; bubbles: whether it is driven by air."""

    title: str
    place: Place
    x_share: float
    bubbles: bool


@dataclass(frozen=True)
class DrawnAnimals:
    """So many animals of one length, and where they swim."""

    length_cm: float
    count: int
    swims: Literal["top", "middle", "bottom"]


@dataclass(frozen=True)
class Outline:
    """What the views show, in cm: the tank, its water and bed, its filters and animals, stand and wall.

    urgent: whether something presses; sizes: length, width and height as the keeper reads them.
    """

    length_cm: float
    height_cm: float
    water_cm: float
    bed_cm: float
    filters: tuple[DrawnFilter, ...] = ()
    urgent: bool = False
    width_cm: float = 30.0
    stand_cm: float = 0.0
    behind_cm: float = 0.0
    animals: tuple[DrawnAnimals, ...] = ()
    sizes: tuple[str, str, str] = ("", "", "")

    def in_words(self, name: str) -> str:
        """The view for whoever sees no pictures. name: of the tank."""
        on_it = " and ".join(f.title.lower() for f in self.filters) or "no filter yet"
        swim = sum(group.count for group in self.animals)
        inside = f", {swim} {'animal' if swim == 1 else 'animals'}" if swim else ""
        return f"{name} from front and side: {on_it}{inside}"


def outline_of(state: LogbookState, *, urgent: bool) -> Outline | None:
    """Outline of a tank that was measured; None before. state: the tank's."""
    if state.tank_plan is None:
        return None
    plan = tank_plan(state)
    tank = plan.tank
    filters = []
    for fitted in filter_plan(state).hanging:
        kind = kind_of(fitted.filter.kind)
        place: Place = "rim" if kind.on_rim else "water" if kind.in_tank else "below"
        filters.append(DrawnFilter(kind.title, place, kind.body_x_share, kind.needs_air))
    water = max(tank.height_cm - tank.fill_below_rim_cm, 0.0)
    sizes = (tank.length_cm, tank.width_cm, tank.height_cm)
    return Outline(
        tank.length_cm,
        tank.height_cm,
        water,
        tank.substrate_depth_cm,
        tuple(filters),
        urgent,
        width_cm=tank.width_cm,
        stand_cm=plan.surroundings.stand_height_cm,
        behind_cm=plan.surroundings.behind_cm,
        animals=_animals(state),
        sizes=(formatting.cm(sizes[0]), formatting.cm(sizes[1]), formatting.cm(sizes[2])),
    )


def _animals(state: LogbookState) -> tuple[DrawnAnimals, ...]:
    """The animals in the tank whose species are known."""
    known = SPECIES | {one.id: one for one in stock_plan(state).own_species}
    return tuple(
        DrawnAnimals(group.length_cm or known[group.species_id].adult_length_cm, group.count, species.swims)
        for group in animals_in(state)
        if (species := known.get(group.species_id))
    )


def draw(outline: Outline) -> bytes:
    """PNG of the view, WIDTH by HEIGHT. outline: of the tank."""
    pen = _Pen(outline)
    pen.ground()
    pen.tank()
    pen.swimmers()
    for n, drawn in enumerate(outline.filters[:4]):
        pen.filter(drawn, n)
    pen.glass()
    pen.side()
    pen.sizes()
    out = io.BytesIO()
    pen.image.resize((WIDTH, HEIGHT), Image.Resampling.LANCZOS).quantize(64).save(out, "PNG", optimize=True)
    return out.getvalue()


class _Pen:
    """Draws in cm from the front view's lower left corner, upward."""

    def __init__(self, outline: Outline) -> None:
        self._o = o = outline
        self.image = Image.new("RGB", (WIDTH * FINER, HEIGHT * FINER), PAPER)
        self._draw = ImageDraw.Draw(self.image)
        self._font = ImageFont.load_default(21 * FINER)
        stands_below = any(f.place == "below" for f in o.filters)
        stand = o.stand_cm or (STAND_SHARE * o.height_cm if stands_below else 0.0)
        self._below = min(stand, (MOST_STAND_SHARE if stands_below else EMPTY_STAND_SHARE) * o.height_cm)
        self._behind = min(o.behind_cm, MOST_BEHIND_SHARE * o.width_cm)
        # What hangs on the rim stands between the views.
        rim_width_cm = 1.2 * BODY_L_SHARE * o.length_cm if any(f.place == "rim" for f in o.filters) else 0.0
        wide, high = o.length_cm + rim_width_cm + o.width_cm + self._behind, 1.12 * o.height_cm + self._below
        room = WIDTH - LEFT - RIGHT - BETWEEN
        self._scale = min(room / wide, (HEIGHT - TOP - FOOT) / high) * FINER
        # The two views stand in the middle of the picture.
        spare = room * FINER - wide * self._scale
        self._left = LEFT * FINER + spare / 2
        lower = ((HEIGHT - TOP - FOOT) * FINER - high * self._scale) / 2
        self._floor = (HEIGHT - FOOT) * FINER - lower - self._below * self._scale
        self._side = o.length_cm + rim_width_cm + BETWEEN * FINER / self._scale

    def _at(self, x_cm: float, y_cm: float) -> tuple[float, float]:
        return self._left + x_cm * self._scale, self._floor - y_cm * self._scale

    def _box(self, left: float, bottom: float, right: float, top: float, fill: str, edge: str | None = None) -> None:
        if right > left and top > bottom:
            corners = [self._at(left, top), self._at(right, bottom)]
            self._draw.rectangle(corners, fill=fill, outline=edge, width=3 * FINER)

    def _line(self, *points: tuple[float, float], colour: str = INK, width: float = 3.0) -> None:
        self._draw.line([self._at(*p) for p in points], fill=colour, width=round(width * FINER), joint="curve")

    def ground(self) -> None:
        """The floor, the stand in both views, and the wall behind."""
        o, end = self._o, self._side + self._o.width_cm + self._behind
        self._line((-0.05 * o.length_cm, -self._below), (end, -self._below), colour=INK, width=2)
        if self._below:
            self._box(0, -self._below, o.length_cm, 0, STAND, LINE)
            self._box(self._side, -self._below, self._side + o.width_cm, 0, STAND, LINE)
        if self._behind:
            self._line((end, -self._below), (end, 1.1 * o.height_cm), colour=LINE, width=6)

    def tank(self) -> None:
        """Water and bed in both views."""
        o = self._o
        for left, wide in ((0.0, o.length_cm), (self._side, o.width_cm)):
            self._box(left, 0, left + wide, o.water_cm, WATER)
            self._box(left, 0, left + wide, min(o.bed_cm, o.water_cm), BED)

    def swimmers(self) -> None:
        """The animals at their true length, each species about a place and a depth of its own."""
        o, left = self._o, MOST_ANIMALS
        deep = max(o.water_cm - o.bed_cm, 0.0)
        for n, group in enumerate(o.animals):
            top, bottom = BANDS[group.swims]
            count = min(group.count, left)
            left -= count
            for i in range(count):
                # Spread evenly over both directions (a sequence of low discrepancy), the same in every mail.
                along = (0.3 + 0.37 * n + 0.7549 * i) % 1
                down = top + (bottom - top) * ((0.5 + 0.5698 * i) % 1)
                x = 0.05 * o.length_cm + along * max(0.9 * o.length_cm - group.length_cm, 0.0)
                y = min(o.bed_cm + deep * (1 - down), o.water_cm - 0.2 * group.length_cm)
                self._fish(x, y, group.length_cm, ANIMALS[n % len(ANIMALS)], i % 3 != 0)

    def _fish(self, x: float, y: float, length: float, colour: str, right: bool) -> None:
        body, high = 0.78 * length, 0.14 * length
        nose, tail = (x + length, x) if right else (x, x + length)
        middle = x + (length - body if right else 0.0)
        self._draw.ellipse([self._at(middle, y + high), self._at(middle + body, y - high)], fill=colour)
        root = tail + (0.35 if nose > tail else -0.35) * length
        points = [self._at(root, y), self._at(tail, y + high), self._at(tail, y - high)]
        self._draw.polygon(points, fill=colour)

    def glass(self) -> None:
        """The panes and the water line of the front view, over all else."""
        o = self._o
        self._line((0, o.height_cm), (0, 0), (o.length_cm, 0), (o.length_cm, o.height_cm), width=5)
        self._line((0, o.water_cm), (o.length_cm, o.water_cm), colour=ALARM if o.urgent else INK)

    def side(self) -> None:
        """Panes and water line of the side view, and what hangs at the back or stands below."""
        o, left = self._o, self._side
        right = left + o.width_cm
        body = min(BODY_L_SHARE * o.length_cm, 0.5 * o.width_cm)
        if any(f.place == "below" for f in o.filters):
            self._box(left + 0.3 * o.width_cm, -self._below, left + 0.3 * o.width_cm + 1.6 * body,
                      -0.35 * self._below, FILTER_FILL, FILTER)  # fmt: skip
        if any(f.place == "rim" for f in o.filters):
            reach = right + min(body, max(self._behind, 0.2 * body))
            self._box(right, 0.72 * o.height_cm, reach, 1.03 * o.height_cm, FILTER_FILL, FILTER)
        if any(f.place == "water" for f in o.filters):
            self._box(right - 1.3 * body, o.bed_cm, right - 0.3 * body, o.bed_cm + 0.42 * o.water_cm, FILTER_FILL,
                      FILTER)  # fmt: skip
        self._line((left, o.height_cm), (left, 0), (right, 0), (right, o.height_cm), width=5)
        self._line((left, o.water_cm), (right, o.water_cm), colour=ALARM if o.urgent else INK)

    def sizes(self) -> None:
        """Length and width over the views, the height beside them."""
        o = self._o
        above = 1.1 * o.height_cm
        length, width, height = o.sizes
        for text, left, right in ((length, 0.0, o.length_cm), (width, self._side, self._side + o.width_cm)):
            if text:
                self._line((left, above), (right, above), colour=LINE, width=2)
                self._write((left + right) / 2, above, text, "mb", up=3)
        if height:
            x = -10 * FINER / self._scale
            self._line((x, 0), (x, o.height_cm), colour=LINE, width=2)
            self._write(x, o.height_cm / 2, height, "rm", up=0, aside=-5)

    def _write(self, x_cm: float, y_cm: float, text: str, anchor: str, up: int, aside: int = 0) -> None:
        x, y = self._at(x_cm, y_cm)
        self._draw.text((x + aside * FINER, y - up * FINER), text, fill=INK, font=self._font, anchor=anchor)

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


__all__ = ["DrawnAnimals", "DrawnFilter", "Outline", "draw", "outline_of"]
