"""HTTP clients for trials and load: each signs up, has a tank, and uses whichever of several machines answers."""

import http.client
import json
import secrets
import threading
import time
from collections.abc import Sequence
from datetime import UTC, datetime
from typing import Any

PATIENCE_S = 10.0
"""Seconds after which a silent machine is left for the next."""
PASSWORD = "reed and water"  # noqa: S105 - of accounts made for a trial and forgotten with it

Machine = tuple[str, int]


class Keeper:
    """One keeper with a persistent connection to one machine at a time.

    machines: host and port of each, the first asked first.
    """

    def __init__(self, machines: Sequence[Machine]) -> None:
        self._machines = list(machines)
        self._line: http.client.HTTPConnection | None = None
        self._cookie = ""
        self._token = ""
        self.tank = 0

    def sign_up(self, name: str) -> None:
        """Make an account and a tank. name: of both. Raises RuntimeError when refused."""
        self._token = self._told(*self.ask("GET", "/api/session"))["csrf_token"]
        account = {"email": f"{name}-{secrets.token_hex(4)}@trial.example", "password": PASSWORD}
        self._token = self._told(*self.ask("POST", "/api/account", account))["csrf_token"]
        self.tank = self._told(*self.ask("POST", "/api/tanks", {"name": name}))["id"]

    @staticmethod
    def _told(status: int, body: Any) -> Any:
        if status not in (200, 201):
            raise RuntimeError(f"refused with {status}: {str(body)[:300]}")
        return body

    def ask(self, method: str, path: str, body: Any = None) -> tuple[int, Any]:
        """Status and response body.

        0 and the reason when the machine cannot be reached, and the next is used from then on.

        method, path, body: of the request; body as JSON.
        """
        kept = self._line is not None
        try:
            return self._ask(method, path, body)
        except (ConnectionError, http.client.RemoteDisconnected) as error:
            if not kept:
                self.move()
                return 0, str(error)
        except (OSError, http.client.HTTPException) as error:
            self.move()
            return 0, str(error)
        # A kept connection may have been closed meanwhile: reconnect once, as a browser does.
        self.close()
        return self.ask(method, path, body)

    def _ask(self, method: str, path: str, body: Any) -> tuple[int, Any]:
        if self._line is None:
            self._line = http.client.HTTPConnection(*self._machines[0], timeout=PATIENCE_S)
        headers = {"Cookie": self._cookie, "X-CSRF-Token": self._token, "Content-Type": "application/json"}
        self._line.request(method, path, None if body is None else json.dumps(body), headers)
        answer = self._line.getresponse()
        text = answer.read()
        for name, value in answer.getheaders():
            if name.lower() == "set-cookie":
                self._cookie = value.split(";")[0]
        return answer.status, json.loads(text) if text[:1] in (b"{", b"[") else text

    def move(self) -> None:
        """Use the next machine from now on."""
        self.close()
        self._machines.append(self._machines.pop(0))

    def close(self) -> None:
        """Close the connection; the next request opens one."""
        if self._line is not None:
            self._line.close()
            self._line = None

    def note(self, key: str) -> int:
        """Write a note that can be repeated without harm; the status. key: of it."""
        entry = {"key": key, "at": datetime.now(UTC).isoformat(), "body": {"kind": "note", "text": key}}
        return self.ask("POST", f"/api/tanks/{self.tank}/entries", entry)[0]

    def notes(self) -> list[str]:
        """Keys of all entries of the tank. Raises RuntimeError when refused."""
        keys: list[str] = []
        before = ""
        while True:
            page = self._told(*self.ask("GET", f"/api/tanks/{self.tank}/entries?limit=200{before}"))
            keys += [e["key"] for e in page["entries"]]
            if not page["next_before"]:
                return keys
            before = f"&before={page['next_before']}"


class Writer(threading.Thread):
    """A keeper who writes notes one after another, repeating each until it is acknowledged, and records the times.

    keeper: signed up; pause_s: between two notes.
    """

    def __init__(self, keeper: Keeper, pause_s: float = 0.02) -> None:
        super().__init__(daemon=True)
        self.keeper, self._pause_s = keeper, pause_s
        self.acknowledged: list[str] = []
        self.refused: dict[int, int] = {}
        self.waits: list[tuple[float, float]] = []
        """When each note was acknowledged, and how long after it was first sent, s."""
        self._halt = threading.Event()

    def run(self) -> None:
        """Run until halted, and then until the last note is acknowledged."""
        number = 0
        while not self._halt.wait(self._pause_s):
            key, begun = f"note-{number:06d}", time.monotonic()
            number += 1
            while (status := self.keeper.note(key)) != 201:
                self.refused[status] = self.refused.get(status, 0) + 1
                if status:
                    # It answers, but cannot write: another may.
                    self.keeper.move()
                time.sleep(0.05)
            self.acknowledged.append(key)
            self.waits.append((time.monotonic(), time.monotonic() - begun))

    def halt(self) -> None:
        """Stop after the note in flight."""
        self._halt.set()
        self.join(60)
        self.keeper.close()

    def longest_wait_s(self, since: float, until: float) -> float:
        """Longest time from sending to acknowledgement among notes acknowledged then, and of one still waiting.

        since, until: monotonic times.
        """
        return max((wait for at, wait in self.waits if since <= at <= until), default=until - since)
