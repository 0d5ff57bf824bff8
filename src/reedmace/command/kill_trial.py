"""kill-trial: every process killed at random moments under load, again and again, with the consequences.

After each kill the keepers go on; a launcher that is gone is started again on its folder, as a service manager does.
"""

import os
import random
import shutil
import signal
import sys
import tempfile
import time
from collections.abc import Callable
from dataclasses import dataclass, field
from pathlib import Path
from statistics import median

from reedmace.command.trial_keepers import Keeper, Writer
from reedmace.command.trial_machine import Machine, processes_of

WRITERS, WORKERS = 3, 2
TARGETS = ("worker", "web server", "database", "launcher", "everything")
LOAD_S = (0.2, 1.2)
"""Range of the time between two kills, s."""
CLEAN_S = 60.0
"""Seconds within which leftovers of a kill must be gone."""


@dataclass
class Outcome:
    """Result of the trial. took_s: by target, from the kill, or the next start, until it serves again, s."""

    acknowledged: int = 0
    lost: list[str] = field(default_factory=list)
    doubled: list[str] = field(default_factory=list)
    took_s: dict[str, list[float]] = field(default_factory=dict)
    left: list[int] = field(default_factory=list)


def _processes(folder: Path) -> dict[str, list[int]]:
    """Pids of one machine by role: those whose environment or command names its folder."""
    found: dict[str, list[int]] = {"worker": [], "web server": [], "database": [], "launcher": []}
    for pid, command in processes_of(folder):
        if "reedmace.command.web_server" in command:
            found["web server"].append(pid)
        elif "mariadbd" in command:
            found["database"].append(pid)
        elif "reedmace.command\0serve" in command:
            found["launcher"].append(pid)
    # A worker is forked from the server, and so has its command.
    servers = set(found["web server"])
    found["worker"] = [pid for pid in servers if _parent(pid) in servers]
    found["web server"] = sorted(servers - set(found["worker"]))
    return found


def _parent(pid: int) -> int:
    """Pid of a process's parent, 0 when it has ended. pid: of the process."""
    try:
        return int(Path(f"/proc/{pid}/stat").read_text().rpartition(")")[2].split()[1])
    except OSError:
        return 0


def _kill(folder: Path, target: str, draw: random.Random) -> None:
    found = _processes(folder)
    if target == "everything":
        # The launcher first: it must not have time to restart the others.
        pids = [*found["launcher"], *found["web server"], *found["worker"], *found["database"]]
    else:
        pids = [draw.choice(found[target])] if found[target] else []
    for pid in pids:
        try:
            os.kill(pid, signal.SIGKILL)
        except ProcessLookupError:
            # It ended with the one before it.
            continue


def run(folder: Path, kills: int, seed: int, say: Callable[[str], None]) -> Outcome:
    """The whole trial. folder: to work in; kills: how many; seed: of targets and times; say: called with each."""
    draw = random.Random(seed)  # noqa: S311 - a trial that can be held again
    outcome = Outcome()
    machine = Machine(folder / "machine", WORKERS)
    writers: list[Writer] = []
    try:
        machine.start()
        for n in range(WRITERS):
            keeper = Keeper([("127.0.0.1", machine.port)])
            keeper.sign_up(f"keeper-{n}")
            writers.append(Writer(keeper))
            writers[-1].start()
        for n in range(kills):
            target = TARGETS[n % len(TARGETS)]
            time.sleep(draw.uniform(*LOAD_S))
            _kill(folder / "machine", target, draw)
            begun = time.monotonic()
            if target in ("launcher", "everything"):
                if machine.process is not None:
                    machine.process.wait(CLEAN_S)
                begun = time.monotonic()
                machine.start()
            _until_acknowledged(writers)
            took = time.monotonic() - begun
            outcome.took_s.setdefault(target, []).append(took)
            say(f"{n + 1} of {kills}: {target}, serving again after {took:.1f} s")
        _judge(writers, outcome)
    finally:
        for writer in writers:
            writer.halt()
        machine.stop()
    end = time.monotonic() + CLEAN_S
    while time.monotonic() < end:
        outcome.left = [pid for pids in _processes(folder / "machine").values() for pid in pids]
        if not outcome.left:
            break
        time.sleep(0.1)
    return outcome


def _until_acknowledged(writers: list[Writer]) -> None:
    """Wait until every keeper has had a note acknowledged that was sent after now. Raises TimeoutError."""
    # The one in flight may have been sent before; the next was sent after.
    wanted = [len(w.acknowledged) + 2 for w in writers]
    end = time.monotonic() + CLEAN_S
    while any(len(w.acknowledged) < count for w, count in zip(writers, wanted, strict=True)):
        if time.monotonic() > end:
            raise TimeoutError("keepers were not served again")
        time.sleep(0.02)


def _judge(writers: list[Writer], outcome: Outcome) -> None:
    for writer in writers:
        writer.halt()
        found = writer.keeper.notes()
        outcome.acknowledged += len(writer.acknowledged)
        outcome.lost += sorted(set(writer.acknowledged) - set(found))
        outcome.doubled += sorted({key for key in found if found.count(key) > 1})
        writer.keeper.close()


def kill_trial(kills: int) -> int:
    """Run the trial and print the result; 1 when anything acknowledged was lost or doubled, or was left behind."""
    folder = Path(tempfile.mkdtemp(prefix="reedmace-kills-"))
    try:
        outcome = run(folder, kills, 1, lambda text: print(f"reedmace: {text}", file=sys.stderr, flush=True))
    except (RuntimeError, TimeoutError) as error:
        print(f"reedmace: the trial could not be held: {error}; its logs stay in {folder}", file=sys.stderr)
        return 2
    shutil.rmtree(folder, ignore_errors=True)
    print(f"{'killed':14s} {'times':>6s} {'serving again, median':>22s} {'longest':>9s}")
    for target, took in outcome.took_s.items():
        print(f"{target:14s} {len(took):6d} {median(took):20.1f} s {max(took):7.1f} s")
    print(
        f"{outcome.acknowledged} notes acknowledged; lost {len(outcome.lost)}, doubled {len(outcome.doubled)}, "
        f"processes left behind {len(outcome.left)}"
    )
    return 1 if outcome.lost or outcome.doubled or outcome.left else 0
