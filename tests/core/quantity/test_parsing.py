"""Parser for quantities as people type them: "20 gal", "4 ft", "4' 2\"", "78F", "185 gph"."""

import pytest

from reedmace.core.computations import compute
from reedmace.core.errors import CannotAnswer


@pytest.mark.parametrize(
    ("text", "kind", "home"),
    [
        ("60", "length", 60),
        ("24 in", "length", 60.96),
        ("4 ft", "length", 121.92),
        ("4' 2\"", "length", 127),
        ("4ft 2in", "length", 127),
        ("90cm", "length", 90),
        ("0.9 m", "length", 90),
        ("20 gal", "volume", 75.70823568),
        ("20 US gal", "volume", 75.70823568),
        ("16 imp gal", "volume", 72.73744),
        ("20 L", "volume", 20),
        ("185 gph", "flow", 700.3011800),
        ("700 l/h", "flow", 700),
        ("700 lph", "flow", 700),
        ("2,5 kg", "mass", 2.5),
        ("500 g", "mass", 0.5),
        ("4 lb", "mass", 1.81436948),
        ("77F", "temperature", 25),
        ("25 °C", "temperature", 25),
        ("25", "temperature", 25),
        ("70 mg/L", "hardness", 70 / 17.85),
        ("4 dKH", "hardness", 4),
        ("71.4 ppm", "hardness", 4),
    ],
)
def test_what_people_type_is_read_in_its_home_unit(text: str, kind: str, home: float) -> None:
    assert compute("read-quantity", {"text": text, "kind": kind}).value == pytest.approx(home, rel=1e-6)


@pytest.mark.parametrize(
    ("text", "kind"),
    [
        ("blue", "length"),
        ("12 kg", "length"),
        ("1 2", "volume"),
        ("4 ft 2", "length"),
        ("12 !", "mass"),
        ("1e400", "mass"),
        ("(", "flow"),
    ],
)
def test_what_makes_no_sense_is_refused_with_an_example(text: str, kind: str) -> None:
    with pytest.raises(CannotAnswer, match="Type for example"):
        compute("read-quantity", {"text": text, "kind": kind})
