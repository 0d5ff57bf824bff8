"""Signed links in mails: nothing of them is stored, and each opens one thing."""

import hashlib

from itsdangerous import BadSignature, URLSafeSerializer, URLSafeTimedSerializer

RESET_S, CONFIRM_S = 30 * 60, 7 * 86_400
"""Lifetime of a link to a new password, and of one that confirms an address, s."""


class Links:
    """Makes and reads the tokens of links. secret: the application's; base: its address, without a slash at its end."""

    def __init__(self, secret: str, base: str) -> None:
        self._secret, self._base = secret, base.rstrip("/")

    def page(self, path: str) -> str:
        """Address of a page. path: with a slash before."""
        return f"{self._base}{path}"

    def end_notices(self, account_id: int) -> str:
        """Token that ends all mail to an account; it does not expire."""
        return str(URLSafeSerializer(self._secret, salt="end-notices").dumps(account_id))

    def read_end(self, token: str) -> int | None:
        """The account of such a token; None where it is none."""
        try:
            return int(URLSafeSerializer(self._secret, salt="end-notices").loads(token))
        except (BadSignature, ValueError, TypeError):
            return None

    def confirm(self, account_id: int, email: str) -> str:
        """Token that shows an address to be the account's own."""
        return str(URLSafeTimedSerializer(self._secret, salt="confirm").dumps([account_id, email]))

    def read_confirm(self, token: str) -> tuple[int, str] | None:
        """Account and address of such a token; None where it is none, or too old."""
        return self._read(token, "confirm", CONFIRM_S)

    def reset(self, account_id: int, password_hash: str) -> str:
        """Token for a new password. It works once: the present password's hash is part of it."""
        return str(URLSafeTimedSerializer(self._secret, salt="reset").dumps([account_id, mark_of(password_hash)]))

    def read_reset(self, token: str) -> tuple[int, str] | None:
        """Account and mark of the password such a token was made for; None where it is none, or too old."""
        return self._read(token, "reset", RESET_S)

    def _read(self, token: str, salt: str, lifetime_s: int) -> tuple[int, str] | None:
        try:
            account_id, text = URLSafeTimedSerializer(self._secret, salt=salt).loads(token, max_age=lifetime_s)
            return int(account_id), str(text)
        except (BadSignature, ValueError, TypeError):
            return None


def mark_of(password_hash: str) -> str:
    """A mark that changes with the password and tells nothing of it."""
    return hashlib.sha256(f"reset:{password_hash}".encode()).hexdigest()[:16]
