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
    "ppm",
    "ion",
    "dkh",
    "kpa",
    "media",
    "in-service",
    "siphon-break",
    "check-valve",
    "drip-loop",
    "guard",
    "conditioner",
    "chloramine",
    "sump",
    "quarantine",
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
        "Film of filter bacteria",
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
            "A dose seen by a test, or from a bottle whose dose was, and a day later both ammonia and nitrite at zero;"
            " on two days. A date or clear water proves nothing."
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
    "ppm": (
        "ppm",
        "Parts in a million: in fresh water the same as milligrams in a litre. Kits print either.",
    ),
    "ion": (
        "Ion",
        (
            "Ammonia, nitrite and nitrate as they swim in water, with all their atoms. Some kits and sums count only"
            " the nitrogen in them."
        ),
    ),
    "dkh": (
        "dKH",
        "A degree of carbonate hardness, the unit of KH. Many kits count one drop for one degree.",
    ),
    "kpa": (
        "kPa",
        (
            "A pressure. An air pump must give about 1 kPa for every 10 cm of water over its stone, and more for stone"
            " and line."
        ),
    ),
    "media": (
        "Media",
        "What lies in a filter: foam, floss, rings, stones. Coarse comes first in the water's path, fine last.",
    ),
    "in-service": (
        "In service",
        (
            "Flow as it is between two cleanings, with hoses, height and dirt; a clean filter gives more, its box"
            " promises most."
        ),
    ),
    "siphon-break": (
        "Siphon break",
        (
            "A small hole in a return just under the water line. When power fails it lets air in, so that only a"
            " little water runs back."
        ),
    ),
    "check-valve": (
        "Check valve",
        "Lets air through one way. In an air line it keeps the tank's water out of the pump when the pump stops.",
    ),
    "drip-loop": (
        "Drip loop",
        (
            "A cable that hangs lower than its socket, so that water running along it drips off before it reaches the"
            " socket."
        ),
    ),
    "guard": (
        "Guard",
        (
            "A sponge or fine mesh over an intake, so that fry, shrimp and fins are not drawn in. It is squeezed when"
            " it clogs."
        ),
    ),
    "conditioner": (
        "Conditioner",
        (
            "Drops that take chlorine out of tap water, and bind ammonia for a day or so if the label says it. Dose"
            " for the whole tank."
        ),
    ),
    "chloramine": (
        "Chloramine",
        (
            "Chlorine bound to ammonia, put into some tap water. Conditioner frees its ammonia, which then counts like"
            " any other."
        ),
    ),
    "sump": (
        "Sump",
        (
            "A second tank, usually below, that water falls into and is pumped back from. It holds media and gear, and"
            " adds its litres."
        ),
    ),
    "quarantine": (
        "Quarantine",
        "Weeks apart for new animals, with a filter of their own, until what they may carry would have shown.",
    ),
}

GLOSSARY = [Word(key=key, word=_MEANINGS[key][0], meaning=_MEANINGS[key][1]) for key in get_args(WordKey)]
