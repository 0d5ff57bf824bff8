"""Recovery codes as people type them."""

from reedmace.store.recovery_codes import CODE_LETTERS, CODES_COUNT, bare_code, new_codes


def test_codes_are_unlike_one_another_and_of_letters_that_are_not_mistaken() -> None:
    codes = new_codes()
    assert len(set(codes)) == CODES_COUNT
    assert all([len(part) for part in code.split("-")] == [4, 4, 4] for code in codes)
    assert {letter for code in codes for letter in bare_code(code)} <= set(CODE_LETTERS)
    assert not set("ilo01") & set(CODE_LETTERS)


def test_dashes_blanks_and_capitals_are_no_matter() -> None:
    assert bare_code(" ABcd-efgh jkmn ") == bare_code("abcd-efgh-jkmn") == "abcdefghjkmn"
