"""Simulated pictures of a vial beside a card: lamps, exposure, noise, glare, cards of several hues. Nobody's card."""

import io
from dataclasses import dataclass
from typing import Any

import numpy as np
from PIL import Image

from reedmace.core.vial.colour import BRADFORD, D65, RGB_TO_XYZ, Lab, ciede2000, lab_of_xyz, linear

CARDS: dict[str, tuple[list[float], list[tuple[float, float, float]]]] = {
    "yellow to green": (
        [0, 0.25, 0.5, 1, 2, 4, 8],
        [(86, -8, 66), (80, -18, 60), (73, -27, 52), (65, -34, 44), (56, -38, 35), (47, -38, 26), (38, -34, 18)],
    ),
    "blue to violet": (
        [0, 0.25, 0.5, 1, 2, 5],
        [(76, -14, -22), (70, 0, -24), (63, 14, -26), (56, 28, -26), (49, 40, -24), (42, 48, -18)],
    ),
    "yellow to red": (
        [0, 5, 10, 20, 40, 80, 160],
        [(84, 0, 68), (78, 14, 66), (71, 27, 62), (63, 39, 56), (54, 48, 46), (45, 52, 36), (37, 48, 27)],
    ),
    "orange to blue": (
        [6.0, 6.4, 6.6, 6.8, 7.0, 7.2, 7.6, 8.0],
        [(77, 16, 62), (77, 4, 58), (75, -8, 50), (71, -19, 38), (66, -28, 24), (61, -31, 10), (55, -28, -6),
         (49, -20, -20)],
    ),
}  # fmt: skip


@dataclass(frozen=True)
class Picture:
    """A question of `vial-reading`, the true figure, its place on the card (0 is the first step), and the card."""

    question: dict[str, Any]
    figure: float
    place: float
    card: str


def picture(seed: int) -> Picture:
    """One picture. seed: of card, figure, lamp, exposure, noise and glare."""
    rng = np.random.default_rng((seed, 7))
    name = list(CARDS)[int(rng.integers(len(CARDS)))]
    figures, labs = CARDS[name]
    place = float(rng.uniform(0, len(figures) - 1))
    true = float(np.interp(place, range(len(figures)), figures))
    vial = np.array([np.interp(place, range(len(figures)), [lab[n] for lab in labs]) for n in range(3)])
    # Liquid is no print, and a kit's colours scatter.
    vial = vial + rng.normal(0, 1.2, 3)
    see = _camera(rng)
    glare = bool(rng.uniform() < 0.3)
    steps = [{"figure_on_card": f, "pixels": see(np.array(lab), 0.0)} for f, lab in zip(figures, labs, strict=True)]
    question = {
        "white": see(np.array([95.9, 0.0, 0.0]), 0.0),
        "vial": see(vial, 0.15 if glare else 0.0),
        "steps": steps,
    }
    return Picture(question, true, place, name)


def nearest_without_card(made: Picture) -> int:
    """The step a picture's vial looks most like beside a card printed elsewhere: no white, no light taken out."""
    pixels = np.array([(p["r"], p["g"], p["b"]) for p in made.question["vial"]], dtype=float)
    seen = lab_of_xyz(RGB_TO_XYZ @ np.median(linear(pixels), axis=0))
    return int(np.argmin([ciede2000(Lab(*seen), Lab(*lab)) for lab in CARDS[made.card][1]]))


class _Camera:
    """One lamp and one exposure: what turns colours into light, and light into pixels."""

    def __init__(self, rng: np.random.Generator) -> None:
        self.rng = rng
        white = _daylight(rng.uniform(2700, 7500))
        self._to_lamp = np.linalg.inv(BRADFORD) @ np.diag((BRADFORD @ white) / (BRADFORD @ D65)) @ BRADFORD
        # The camera takes most of the lamp's tint out by itself, in its own way.
        self._balance = (np.linalg.inv(RGB_TO_XYZ) @ white) ** -rng.uniform(0.4, 1.0)
        self.exposure, self._noise = rng.uniform(0.45, 0.95), rng.uniform(1.0, 5.0)
        self._scale = self.exposure / max(float(np.max(np.linalg.inv(RGB_TO_XYZ) @ white * self._balance)), 1e-6)

    def light(self, lab: np.ndarray) -> np.ndarray:
        """Linear red, green and blue of a colour, 1 where the picture is full."""
        found: np.ndarray = np.linalg.inv(RGB_TO_XYZ) @ (self._to_lamp @ _xyz(lab)) * self._balance * self._scale
        return found

    def pixels(self, light: np.ndarray) -> np.ndarray:
        """Pixels (..., 3) from 0 to 255 of linear light, with the sensor's noise."""
        share = np.clip(light, 0, 1)
        shown = np.where(share <= 0.0031308, 12.92 * share, 1.055 * share ** (1 / 2.4) - 0.055) * 255
        found: np.ndarray = np.clip(np.rint(shown + self.rng.normal(0, self._noise, shown.shape)), 0, 255).astype(int)
        return found


def _camera(rng: np.random.Generator) -> Any:
    """What turns a colour into a patch of pixels under one lamp and one exposure."""
    camera = _Camera(rng)
    shade = 1 + rng.normal(0, 0.03, 64)

    def see(lab: np.ndarray, glare: float) -> list[dict[str, int]]:
        seen = np.outer(shade * rng.normal(1, 0.01), camera.light(lab))
        seen[rng.uniform(size=64) < glare] += camera.exposure * 0.6
        return [{"r": int(r), "g": int(g), "b": int(b)} for r, g, b in camera.pixels(seen)]

    return see


@dataclass(frozen=True)
class VialInPicture:
    """One of a picture's vials: where it and its card are touched (x, y from 0 to 1), and what is true of it."""

    white: tuple[float, float]
    vial: tuple[float, float]
    beside: tuple[float, float]
    """Where the vial is touched when the first touch fell on a streak of light."""
    steps: list[tuple[float, float]]
    figure: float
    place: float
    card: str


WIDTH, HEIGHT, ROW = 1000, 720, 240


def whole_picture(seed: int) -> tuple[bytes, list[VialInPicture]]:
    """A photograph with three vials, each beside its card, as JPEG. seed: of everything in it.

    Paper lit from one side, round glass that darkens to its edges, a streak of glare on one vial of three.
    """
    rng = np.random.default_rng((seed, 11))
    camera = _Camera(rng)
    sheet = np.tile(camera.light(np.array([95.9, 0.0, 0.0])), (HEIGHT, WIDTH, 1))
    vials = []
    for row, name in enumerate(rng.choice(list(CARDS), 3, replace=False)):
        figures, labs = CARDS[str(name)]
        place = float(rng.uniform(0, len(figures) - 1))
        middle = ROW * row + ROW // 2
        liquid = np.array([np.interp(place, range(len(figures)), [lab[n] for lab in labs]) for n in range(3)])
        streak = _stand_vial(sheet, camera, middle, liquid + rng.normal(0, 1.2, 3))
        centres = [(260 + 88 * n, middle) for n in range(len(figures))]
        for (x, y), lab in zip(centres, labs, strict=True):
            sheet[y - 34 : y + 34, x - 34 : x + 34] = camera.light(np.array(lab))

        def touched(x: int, y: int) -> tuple[float, float]:
            return (x + rng.normal(0, 3)) / WIDTH, (y + rng.normal(0, 3)) / HEIGHT

        figure = float(np.interp(place, range(len(figures)), figures))
        steps = [touched(x, y) for x, y in centres]
        vials.append(
            VialInPicture(
                touched(190, middle), touched(100, middle), touched(82 if streak > 95 else 118, middle), steps,
                figure, place, str(name),
            )
        )  # fmt: skip
    across, down = np.meshgrid(np.linspace(-1, 1, WIDTH), np.linspace(-1, 1, HEIGHT))
    lit = 1 + rng.uniform(-0.06, 0.06) * across + rng.uniform(-0.04, 0.04) * down
    out = io.BytesIO()
    developed = camera.pixels(sheet * lit[..., None]).astype(np.uint8)
    Image.fromarray(developed).save(out, "JPEG", quality=int(rng.integers(75, 95)))
    return out.getvalue(), vials


def _stand_vial(sheet: np.ndarray, camera: _Camera, middle: int, liquid: np.ndarray) -> int:
    """Paint a vial of 80 by 180 px round (100, middle); where its streak of light begins, 0 without one."""
    across = np.linspace(-1, 1, 80)
    edge = 1 - 0.45 * np.clip(np.abs(across) - 0.7, 0, 1) / 0.3
    sheet[middle - 90 : middle + 90, 60:140] = edge[None, :, None] * camera.light(liquid)
    if camera.rng.uniform() > 1 / 3:
        return 0
    at = int(camera.rng.integers(70, 120))
    sheet[middle - 80 : middle + 80, at : at + 6] += camera.exposure * 0.6
    return at


def _xyz(lab: np.ndarray) -> np.ndarray:
    fy = (lab[0] + 16) / 116
    parts = np.array([fy + lab[1] / 500, fy, fy - lab[2] / 200])
    return D65 * np.where(parts > 6 / 29, parts**3, 3 * (6 / 29) ** 2 * (parts - 4 / 29))


def _daylight(kelvin: float) -> np.ndarray:
    """White of a lamp, XYZ with Y 1: a black body's chromaticity after Kim et al. (2002)."""
    t = 1e3 / kelvin
    if kelvin < 4000:
        x = -0.2661239 * t**3 - 0.2343589 * t**2 + 0.8776956 * t + 0.179910
    else:
        x = -3.0258469 * t**3 + 2.1070379 * t**2 + 0.2226347 * t + 0.240390
    if kelvin < 2222:
        y = -1.1063814 * x**3 - 1.34811020 * x**2 + 2.18555832 * x - 0.20219683
    elif kelvin < 4000:
        y = -0.9549476 * x**3 - 1.37418593 * x**2 + 2.09137015 * x - 0.16748867
    else:
        y = 3.0817580 * x**3 - 5.87338670 * x**2 + 3.75112997 * x - 0.37001483
    return np.array([x / y, 1.0, (1 - x - y) / y])
