"""What a keeper may look up: words, how to weigh, measure and read, and questions people ask."""

from reedmace.core.guide.glossary import GLOSSARY, Word
from reedmace.core.guide.how_to import HOW_TO, HowTo
from reedmace.core.guide.questions import QUESTIONS, AskedQuestion

__all__ = ["GLOSSARY", "HOW_TO", "QUESTIONS", "AskedQuestion", "HowTo", "Word"]
