"""The signed-in keeper, and CSRF protection."""

import hmac
import secrets

from flask import Response, after_this_request, current_app, g, request, session
from flask_login import UserMixin, current_user
from itsdangerous import BadSignature, URLSafeSerializer

from reedmace.api.problems import ProblemError
from reedmace.logbook.replay.state import LogbookState
from reedmace.store import HouseholdMember, Households, StateCache, Tanks
from reedmace.store.keepers import Device, Keeper


class CurrentKeeper(UserMixin):  # type: ignore[misc]
    """A signed-in keeper for Flask-Login."""

    def __init__(self, keeper: Keeper, token: str) -> None:
        self.keeper = keeper
        self.token = token

    def get_id(self) -> str:
        """The token of this browser's session; once its row is deleted, no copy of the cookie is valid."""
        return self.token


def csrf_token() -> str:
    """This session's CSRF token, made on first use."""
    if "csrf" not in session:
        session["csrf"] = secrets.token_urlsafe(24)
        session.permanent = True
    return str(session["csrf"])


def check_csrf() -> None:
    """Reject a state-changing request without the session's token. Computations change nothing and need none."""
    if request.method in ("GET", "HEAD", "OPTIONS"):
        return
    # A device sends only its own token and no cookie, so a page cannot forge its requests.
    # A mail program ends mail with the link's own token (RFC 8058).
    if request.path == "/api/device/readings" or request.path.startswith("/api/no-mail/"):
        return
    sent, kept = request.headers.get("X-CSRF-Token", ""), str(session.get("csrf", ""))
    if not kept or not hmac.compare_digest(sent.encode(), kept.encode()):
        raise ProblemError(403, "The page is out of date", "Reload the page and try again; what you typed is kept.")


def keeper() -> Keeper:
    """The signed-in keeper. Raises a 401 problem."""
    if not current_user.is_authenticated:
        raise ProblemError(401, "Not signed in", "Sign in first. Anything typed is kept in this browser.")
    found: Keeper = current_user.keeper
    return found


def helps() -> dict[int, HouseholdMember]:
    """Households the signed-in keeper helps in, by owner's account; queried once a request."""
    if "helps" not in g:
        g.helps = {hand.account_id: hand for hand in Households(g.database, keeper().id).helps()}
    found: dict[int, HouseholdMember] = g.helps
    return found


def tanks() -> Tanks:
    """The signed-in keeper's tanks, and those of the households this keeper helps in."""
    return Tanks(g.database, keeper().id, {owner: hand.role for owner, hand in helps().items()})


def state_of(tank_id: int) -> LogbookState:
    """State of a tank this keeper may see. Raises NoSuchTank."""
    cache: StateCache = current_app.extensions.setdefault("states", StateCache())
    return cache.of(tanks(), tank_id)


DEVICE_COOKIE, DEVICE_FOR_S = "reedmace_device", 400 * 86_400
"""Cookie of a browser that was signed in before, and how long it is kept, s: as long as browsers allow."""


def known_device() -> Device | None:
    """The account last signed in on this browser, by its signed cookie; None without one."""
    try:
        account_id, secret = _signer().loads(request.cookies.get(DEVICE_COOKIE, ""))
    except (BadSignature, ValueError, TypeError):
        return None
    return Device(int(account_id), str(secret))


def remember_device(account_id: int) -> None:
    """Mark this browser as one that was signed in to an account, so that others' guesses do not keep it out."""
    known = known_device()
    secret = known.secret if known is not None and known.account_id == account_id else secrets.token_urlsafe(18)
    value = _signer().dumps([account_id, secret])

    def marked(response: Response) -> Response:
        response.set_cookie(
            DEVICE_COOKIE,
            value,
            max_age=DEVICE_FOR_S,
            httponly=True,
            samesite="Lax",
            secure=bool(current_app.config["SESSION_COOKIE_SECURE"]),
        )
        return response

    after_this_request(marked)


def _signer() -> URLSafeSerializer:
    return URLSafeSerializer(str(current_app.secret_key), salt="device")
