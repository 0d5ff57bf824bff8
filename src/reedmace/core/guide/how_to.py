"""How to weigh, measure and read with what a household has, in two lines each (common practice; figures memory)."""

from typing import Literal, get_args

from reedmace.core.contract import Part

HowToKey = Literal[
    "weigh-small",
    "weigh-soda",
    "count-drops",
    "jug-flow",
    "run-test",
    "old-kit",
    "shake-nitrate",
    "litres-by-bucket",
    "read-temperature",
]


class HowTo(Part):
    """One thing to be done by hand."""

    key: HowToKey
    title: str
    text: str


_TEXTS: dict[HowToKey, tuple[str, str]] = {
    "weigh-small": (
        "Grams without a fine scale",
        (
            "Dissolve 10 g of ammonium chloride in 1 L of water once: then 1 mL holds 0.01 g, and 0.29 g is 29 mL from"
            " a syringe. Label the bottle and keep it from children; gloves, and no bleach near it."
        ),
    ),
    "weigh-soda": (
        "Baking soda by the spoon",
        (
            "A level teaspoon weighs about 5 g. Dissolve it in a cup of tank water and pour it in slowly: only"
            " as much at a time as the step says."
        ),
    ),
    "count-drops": (
        "How much a drop is",
        (
            "Droppers differ by half. Count once how many drops of yours fill 1 mL of a syringe (about 20) and type"
            " that number; hold the bottle upright, or drops grow."
        ),
    ),
    "jug-flow": (
        "A flow by jug and watch",
        (
            "Hold a jug whose litres you know under the outlet and time it to the brim, three times. Litres × 3600 by"
            " seconds is litres an hour. Hands out of the water while plugs are touched."
        ),
    ),
    "run-test": (
        "How to run a liquid test",
        (
            "Rinse the vial with tank water, fill it to the line at eye level, add the drops, cap it, shake as the"
            " leaflet says and wait the whole time. Read against white, in daylight, as the leaflet shows."
        ),
    ),
    "shake-nitrate": (
        "Nitrate reads far too low",
        (
            "Its reagent settles. Shake that bottle hard for half a minute before it is used, and the vial for a whole"
            " minute after; otherwise it reads a fraction."
        ),
    ),
    "old-kit": (
        "Whether the kit can be trusted",
        (
            "Write the day on the bottles when you open them; most keep two to three years. Test treated tap water: a"
            " kit that reads ammonia there, or never reads any, is doubted before the tank is."
        ),
    ),
    "litres-by-bucket": (
        "Litres of a tank that nobody measured",
        (
            "Count the buckets that fill it, or lower the level by a hand's width into buckets: litres out by the"
            " height it fell gives litres for each centimetre."
        ),
    ),
    "read-temperature": (
        "A temperature to believe",
        (
            "Hold two thermometers in one glass: where they differ by more than 1 degree, trust neither until a third"
            " agrees. Read far from the heater."
        ),
    ),
}

HOW_TO = [HowTo(key=key, title=_TEXTS[key][0], text=_TEXTS[key][1]) for key in get_args(HowToKey)]
