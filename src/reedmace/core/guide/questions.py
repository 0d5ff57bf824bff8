"""Questions people ask, each with a short answer and the stage that works it out (common practice)."""

from typing import Literal

from reedmace.core.contract import Part

Stage = Literal["tank", "stock", "filter", "fit", "cycle", "keep"]


class AskedQuestion(Part):
    """A question, its answer, and where this tank's own answer is worked out."""

    key: str
    question: str
    answer: str
    stage: Stage


def _asked(key: str, stage: Stage, question: str, answer: str) -> AskedQuestion:
    return AskedQuestion(key=key, question=question, answer=answer, stage=stage)


QUESTIONS = [
    _asked(
        "which-filter",
        "filter",
        "Which filter for my tank?",
        "First the kind, by what matters to you: a sponge where shrimp and young fish must be safe or many tanks run on"
        " one air pump; a hang-on for easy cleaning; a canister for quiet and out of sight; a sump from about 380 L or"
        " for salt water. Then the size, by what it moves in service and the room it has for filter bacteria.",
    ),
    _asked(
        "box-promises",
        "filter",
        "Why does it move less than its box says?",
        "The box is measured without hoses, height, media and dirt. A packed filter in service moves a fifth less, a"
        " large canister a third to almost a half.",
    ),
    _asked(
        "is-turnover-a-rule",
        "filter",
        "Is four times an hour a rule?",
        "It is one rule of several, and they disagree. Filter bacteria need little flow; straining and a moved surface"
        " need more. What counts is asked three times: for the bacteria, for clear water, for movement.",
    ),
    _asked(
        "how-long",
        "cycle",
        "How long until fish may come?",
        "Without help four to eight weeks at 25 °C, longer in the cold or in soft water; with media from a filter that"
        " has run for months, days. A date proves nothing: a dose of ammonia that is gone in a day, twice, does.",
    ),
    _asked(
        "clear-enough",
        "cycle",
        "The water is clear. May I add fish?",
        "Clear water is for the eye. Ammonia and nitrite are seen by a test alone.",
    ),
    _asked(
        "nitrite-stays",
        "cycle",
        "Ammonia is at zero but nitrite stays high for weeks",
        "Usual: the bacteria that eat nitrite grow later and slower. Dose less meanwhile, test KH and pH,"
        " and dilute the"
        " sample if it reads the top of the card. With animals in, a water change now.",
    ),
    _asked(
        "stalled",
        "cycle",
        "Nothing happens any more",
        "Look at pH and KH first: the work eats KH, and with KH and pH gone it all but stops. Then warmth, chlorine"
        " from an untreated change, and the kit itself.",
    ),
    _asked(
        "fish-gasp",
        "cycle",
        "Fish gasp at the surface",
        "Move the surface and give air at once, change a third with treated water of the same warmth, feed nothing, and"
        " test. Poison, warmth and a film on the surface all look like this.",
    ),
    _asked(
        "on-the-floor",
        "fit",
        "Can a filter empty the tank onto the floor?",
        "Wherever a hose hangs lower than the water: it siphons until its end in the tank draws air. So strainer and"
        " outlet lie no deeper than they must, taps stand above the water line, clamps hold both ends of a hose, and"
        " the cable hangs in a loop below its socket. All of it is looked at before the plug goes in, never after.",
    ),
    _asked(
        "power-cut",
        "keep",
        "The power was off",
        "Each hour costs some of the bacteria, and several stops add up. A closed canister loses its bacteria soonest,"
        " and is rinsed before it runs again; a sponge in the tank's own water keeps them. Test for two days and feed"
        " less.",
    ),
    _asked(
        "rinse-tap",
        "keep",
        "May I rinse media under the tap?",
        "In a bucket of the tank's own water. Chlorine and a hard jet kill what you grew; foam is squeezed until the"
        " water is brown, not clean.",
    ),
    _asked(
        "bottles",
        "cycle",
        "Do bottled bacteria work?",
        "Some bring days, some nothing: they age, and no label proves it. Test as without them.",
    ),
    _asked(
        "plants",
        "cycle",
        "Do plants replace the cycle?",
        "Growing plants take ammonia up, and many tanks with much plant and few animals never show any. New growth and"
        " zeros over two weeks are the sign; bare or dying plants do not count.",
    ),
    _asked(
        "water-change",
        "keep",
        "How much water, how often?",
        "Enough to keep nitrate where your animals bear it: often a quarter to a half a week. Treated, of the same"
        " warmth, and in salt water at the same salinity.",
    ),
    _asked(
        "second-filter",
        "filter",
        "Two small filters or a large one?",
        "Two cost more and can fail one at a time; one is dearer to lose. Where you are often away or"
        " power fails, two.",
    ),
    _asked(
        "reminders",
        "keep",
        "Can it remind me?",
        "Reminders, in the menu: by mail what cannot wait, the day's list and the week's, at hours of yours, where the"
        " installation sends mail; by the browser while a page is open; by any calendar through the link in Account.",
    ),
    _asked(
        "photographs",
        "keep",
        "Where do photographs go?",
        "Under Keep. They are kept small and upright, without the place they were taken at, and seen by whoever may see"
        " the tank; neighbours see those you choose. Without a connection they wait on the device.",
    ),
]
