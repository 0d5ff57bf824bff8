"""The system account a server runs under: never root's, where another can do the work.

Started by root, MariaDB runs as the account its Debian package brings and the web workers as Debian's for web servers.
Neither may enter a home folder closed to others; then root's own is used, and that is said.
"""

import os
import pwd
import subprocess
from collections.abc import Sequence
from dataclasses import dataclass
from pathlib import Path

DATABASE_ACCOUNT, WEB_ACCOUNT = "mysql", "www-data"
_ASK = 'for path in "$@"; do test -r "$path" || exit 1; test ! -d "$path" || test -x "$path" || exit 1; done'


@dataclass(frozen=True)
class RunAs:
    """An account to run a server under. uid, gid: its numbers on this machine."""

    name: str
    uid: int
    gid: int

    def own(self, folder: Path) -> None:
        """Give it ownership of a folder with all that is in it. folder: existing."""
        for path in (folder, *folder.rglob("*")):
            if path.lstat().st_uid != self.uid:
                os.chown(path, self.uid, self.gid, follow_symlinks=False)

    def may_read(self, paths: Sequence[Path]) -> bool:
        """Whether it can read files and folders, tested by trying. paths: of them."""
        asked = ["/bin/sh", "-c", _ASK, "sh", *(str(p.resolve()) for p in paths)]
        done = subprocess.run(asked, user=self.uid, group=self.gid, extra_groups=[], cwd="/")
        return done.returncode == 0


def run_as(name: str, needs: Sequence[Path]) -> RunAs | None:
    """The account a server should run under, or None for the caller's.

    name: of the account; needs: what the server must be able to read. None too where this is not root, where the
    machine has no such account, or where it cannot get to what it needs.
    """
    if os.geteuid() != 0:
        return None
    try:
        found = pwd.getpwnam(name)
    except KeyError:
        return None
    account = RunAs(name, found.pw_uid, found.pw_gid)
    return account if account.may_read(needs) else None
