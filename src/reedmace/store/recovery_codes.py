"""Recovery codes: their letters, and how people type them."""

import secrets

CODES_COUNT, CODE_LETTERS = 8, "abcdefghjkmnpqrstuvwxyz23456789"
"""Number and length of recovery codes, of unambiguous letters and digits; twelve are 59 bits."""


def new_codes() -> list[str]:
    """Codes as a keeper is told them, "abcd-efgh-jkmn"."""
    return [
        "-".join("".join(secrets.choice(CODE_LETTERS) for _ in range(4)) for _ in range(3)) for _ in range(CODES_COUNT)
    ]


def bare_code(code: str) -> str:
    """Normalized form of a code: people leave dashes out and write capitals. code: as typed."""
    return "".join(letter for letter in code.lower() if letter.isalnum())
