"""What may be looked up: each thing once, short, and with something to say."""

from reedmace.core.guide import GLOSSARY, HOW_TO, QUESTIONS

LONGEST = 420
"""Letters of an answer: two or three lines on a phone."""


def test_every_key_stands_once_and_every_text_is_short() -> None:
    texts: dict[str, str] = {
        **{word.key: word.meaning for word in GLOSSARY},
        **{one.key: one.text for one in HOW_TO},
        **{one.key: one.answer for one in QUESTIONS},
    }
    # Each is an address on one page.
    assert len(texts) == len(GLOSSARY) + len(HOW_TO) + len(QUESTIONS)
    for key, text in texts.items():
        assert 30 < len(text) <= LONGEST, key
        assert text.endswith("."), key
