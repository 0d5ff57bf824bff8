"""Every word of the glossary has its own entry."""

from typing import get_args

from reedmace.core.guide import GLOSSARY
from reedmace.core.guide.glossary import WordKey


def test_each_key_has_one_word_with_a_title() -> None:
    assert {word.key for word in GLOSSARY} == set(get_args(WordKey))
    assert len(GLOSSARY) == len({word.key for word in GLOSSARY})
