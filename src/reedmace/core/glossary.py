"""Glossary: words of the trade a beginner meets, each in two lines (common practice)."""

from typing import Literal, get_args

from reedmace.core.contract import Part

WordKey = Literal[
    "load",
    "film",
    "clear-water",
    "movement",
    "as-ion",
    "kh",
    "turnover",
    "head",
    "cycle",
    "proof",
    "seed",
    "net-litres",
]


class Word(Part):
    """One word and its meaning."""

    key: WordKey
    word: str
    meaning: str


_MEANINGS: dict[WordKey, tuple[str, str]] = {
    "load": (
        "Load",
        (
            "What the animals give off in a day, as the nitrogen in their ammonia. Food in, less what they grow by:"
            " more food is more load."
        ),
    ),
    "film": (
        "Film",
        (
            "The living layer on media, glass and gravel that turns ammonia into nitrite and that into nitrate. It"
            " grows to what it is fed, and starves or dries in days."
        ),
    ),
    "clear-water": (
        "Clear water",
        (
            "How well the filter strains what floats, and how soon that clogs it. Clear water is for the eye: it proves"
            " nothing about poison."
        ),
    ),
    "movement": (
        "Movement",
        (
            "Water enough to stir the surface, where oxygen enters, and no jet that tires the animals. Calm corners are"
            " wanted as well."
        ),
    ),
    "as-ion": (
        "As the ion, as N",
        (
            "One kit weighs the whole ion (NH4, NO2, NO3), another only its nitrogen. The same water reads 4.4 times"
            " more nitrate as the ion; the kit's leaflet says which."
        ),
    ),
    "kh": (
        "KH",
        (
            "Bicarbonate in the water. It keeps the pH up and is eaten as the film works; with none left the film"
            " stops. One dKH is 17.8 mg/L CaCO3."
        ),
    ),
    "turnover": (
        "Turnover",
        (
            "How often in an hour the tank's water goes through the filter. Boxes and rules mean it before hoses,"
            " height and dirt take their share."
        ),
    ),
    "head": (
        "Head",
        (
            "Height in metres that the pump must push against: lift where the water falls free, and what hoses, bends"
            " and dirt cost."
        ),
    ),
    "cycle": (
        "Cycle",
        (
            "The weeks in which a new filter grows its film, fed with ammonia and no animals. It is done when a dose is"
            " gone in a day, twice."
        ),
    ),
    "proof": (
        "Proof",
        (
            "A dose seen by a test, and a day later both ammonia and nitrite at zero; on two days. A date or clear"
            " water proves nothing."
        ),
    ),
    "seed": (
        "Seed",
        (
            "Media from a filter that has run for months, moved wet. It brings living film, and whatever else lives in"
            " the donor's water."
        ),
    ),
    "net-litres": (
        "Net litres",
        (
            "Water only: the tank less glass, gravel, stone and the gap under the rim. Every dose and change is"
            " reckoned from it."
        ),
    ),
}

GLOSSARY = [Word(key=key, word=_MEANINGS[key][0], meaning=_MEANINGS[key][1]) for key in get_args(WordKey)]
