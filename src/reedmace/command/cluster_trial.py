"""cluster-trial: three database nodes and two application machines on loopback, broken one after another under load.

Galera (Debian's galera-4, which comes with the MariaDB server) keeps the nodes alike before a write is acknowledged, so
any of them may be lost. Applications name the nodes in one order, so that one node takes the writes while it lives.
"""

import re
import secrets
import shutil
import signal
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable, Iterator, Sequence
from contextlib import contextmanager
from dataclasses import dataclass, field
from pathlib import Path

from reedmace.command.free_port import free_port
from reedmace.command.mariadb import MariaDB
from reedmace.command.trial_keepers import Keeper, Writer
from reedmace.command.trial_machine import Machine

NODES, MACHINES, WRITERS = 3, 2, 4
PROVIDERS = ("/usr/lib/galera/libgalera_smm.so", "/usr/lib64/galera-4/libgalera_smm.so")
JOIN_S = 120.0
"""Seconds for a joining node to copy all data by rsync."""
USUAL_S = 2.0
"""Seconds of load between two faults."""


def provider() -> str | None:
    """Galera's library on this machine; None where it is not installed."""
    return next((path for path in PROVIDERS if Path(path).exists()), None)


class Node(MariaDB):
    """One database node of a cluster.

    folder: of its own; number: from 1; group: ports at which the nodes speak to one another.
    """

    START_S = JOIN_S

    def __init__(self, folder: Path, number: int, group: Sequence[int]) -> None:
        super().__init__(folder)
        self._position = ""
        self.number, self._group = number, list(group)
        self._ports = {"changes": free_port(), "whole": free_port()}
        self.founds = False

    def _more(self) -> list[str]:
        found = provider()
        if found is None:
            raise RuntimeError("Galera is not installed: apt-get install galera-4 rsync")
        peers = ",".join(f"127.0.0.1:{port}" for port in self._group)
        options = {
            "gmcast.listen_addr": f"tcp://127.0.0.1:{self._group[self.number - 1]}",
            "ist.recv_addr": f"127.0.0.1:{self._ports['changes']}",
            "gcache.size": "32M",
            # A silent node is given up after three seconds instead of five: all writes wait meanwhile.
            "evs.keepalive_period": "PT0.5S",
            "evs.suspect_timeout": "PT3S",
            "evs.inactive_timeout": "PT6S",
        }
        return [
            "--binlog-format=ROW",
            "--innodb-autoinc-lock-mode=2",
            "--wsrep-on=ON",
            f"--wsrep-provider={found}",
            "--wsrep-cluster-name=reedmace",
            f"--wsrep-cluster-address=gcomm://{peers}",
            f"--wsrep-node-name=node{self.number}",
            "--wsrep-node-address=127.0.0.1",
            f"--wsrep-provider-options={';'.join(f'{k}={v}' for k, v in options.items())}",
            "--wsrep-sst-method=rsync",
            f"--wsrep-sst-receive-address=127.0.0.1:{self._ports['whole']}",
            # A client moved to another node reads what was acknowledged at the first.
            "--wsrep-sync-wait=1",
            *(["--wsrep-new-cluster"] if self.founds else []),
            *([f"--wsrep-start-position={self._position}"] if self._position else []),
        ]

    def found(self) -> None:
        """Start the cluster: tables and accounts are made here and replicate to those who join."""
        self.founds = True
        self.start()
        self.founds = False

    def join(self) -> None:
        """Join the cluster, for the first time or again."""
        known = (self.data / "mysql").exists()
        self.lay_down()
        self._position = self._recovered() if known else ""
        self.restart()
        self.wait_until_in_step()

    def _recovered(self) -> str:
        """Position a node had reached before it was killed, so that it gets an incremental transfer."""
        self._wait_for_orphan()
        self._position = ""
        log = self.folder / "recovery.log"
        log.unlink(missing_ok=True)
        log.touch()
        self._give(self.folder / "recovery.log")
        asked = [*self._command(), "--wsrep-recover", f"--log-error={log.resolve()}"]
        subprocess.run(
            asked,
            env=self._environment(),
            timeout=JOIN_S,
            stdout=subprocess.DEVNULL,
            stderr=subprocess.DEVNULL,
            **self._popen_as(),
        )
        found = re.findall(r"Recovered position:\s*(\S+)", log.read_text(errors="replace"))
        return found[-1] if found else ""

    def status(self, name: str) -> str:
        """A status variable of the server. name: as SHOW STATUS has it. Raises RuntimeError."""
        rows = [line.split("\t") for line in self._sql(f"SHOW STATUS LIKE '{name}'").splitlines()[1:]]
        return rows[0][1] if rows else ""

    def wait_until_in_step(self) -> None:
        """Wait until the node is synchronized. Raises TimeoutError."""
        end = time.monotonic() + JOIN_S
        while time.monotonic() < end:
            try:
                if self.status("wsrep_ready") == "ON" and self.status("wsrep_local_state_comment") == "Synced":
                    return
            except RuntimeError:
                # It does not answer yet.
                pass
            time.sleep(0.1)
        raise TimeoutError(f"node {self.number} did not come into step; see {self.log}")

    def kill(self) -> None:
        """Kill it as a power cut does."""
        if self.process is not None:
            self.process.kill()
            self.process.wait(10)

    def cut_off(self, *, off: bool) -> None:
        """Disconnect its network, or reconnect it, and wait until the node has noticed.

        off: which. Raises TimeoutError.
        """
        self._sql(f"SET GLOBAL wsrep_provider_options='gmcast.isolate={int(off)}'")
        if not off:
            self.wait_until_in_step()
            return
        end = time.monotonic() + JOIN_S
        while self.status("wsrep_ready") == "ON":
            if time.monotonic() > end:
                raise TimeoutError(f"node {self.number} took no notice of being cut off")
            time.sleep(0.1)

    def keys(self) -> dict[int, list[str]]:
        """Keys of every tank's entries here, by tank."""
        found: dict[int, list[str]] = {}
        for line in self._sql("SELECT tank_id, client_key FROM reedmace.entry ORDER BY id").splitlines()[1:]:
            tank, key = line.split("\t")
            found.setdefault(int(tank), []).append(key)
        return found


@dataclass
class Event:
    """A fault. longest_wait_s: longest time until a note sent meanwhile was acknowledged."""

    what: str
    longest_wait_s: float
    back_s: float


@dataclass
class Outcome:
    """Result of the trial. acknowledged: notes; lost, doubled: of them; apart: nodes that differ."""

    acknowledged: int = 0
    lost: list[str] = field(default_factory=list)
    doubled: list[str] = field(default_factory=list)
    apart: list[int] = field(default_factory=list)
    events: list[Event] = field(default_factory=list)
    refused: dict[int, int] = field(default_factory=dict)


class Trial:
    """The cluster under load. folder: removed with the trial; say: called with progress."""

    def __init__(self, folder: Path, say: Callable[[str], None]) -> None:
        self._folder, self._say = folder, say
        group = [free_port() for _ in range(NODES)]
        self.nodes = [Node(folder / f"node{i}", i, group) for i in range(1, NODES + 1)]
        self.machines: list[Machine] = []
        self.writers: list[Writer] = []
        self.outcome = Outcome()

    def start_nodes(self) -> None:
        """Start the database nodes."""
        self._say("three database nodes")
        self.nodes[0].found()
        for node in self.nodes[1:]:
            node.join()

    def start_machines(self) -> None:
        """Start the application machines, and sign up the keepers."""
        self._say("two application machines")
        secret = secrets.token_hex(32)
        urls = self._urls()
        settings = {"REEDMACE_DATABASE_URL": urls[0], "REEDMACE_MIGRATE_URL": urls[1], "REEDMACE_SECRET_KEY": secret}
        self.machines = [Machine(self._folder / f"machine{i}", 1, settings) for i in range(1, MACHINES + 1)]
        for machine in self.machines:
            machine.start()
        for i in range(WRITERS):
            turned = self.machines[i % MACHINES :] + self.machines[: i % MACHINES]
            keeper = Keeper([("127.0.0.1", m.port) for m in turned])
            keeper.sign_up(f"keeper-{i}")
            self.writers.append(Writer(keeper))

    def _urls(self) -> tuple[str, str]:
        nodes = ",".join(f"127.0.0.1:{node.port}" for node in self.nodes)
        first = self.nodes[0]
        return (
            first.app_url.replace(f"127.0.0.1:{first.port}", nodes),
            first.owner_url.replace(f"127.0.0.1:{first.port}", nodes),
        )

    @contextmanager
    def _event(self, what: str) -> Iterator[list[float]]:
        """Measure the longest wait while something is broken and repaired. Yields a list for the time of recovery."""
        time.sleep(USUAL_S)
        begun = time.monotonic()
        back: list[float] = []
        yield back
        time.sleep(USUAL_S)
        end = time.monotonic()
        longest = max(w.longest_wait_s(begun, end) for w in self.writers)
        self.outcome.events.append(Event(what, longest, back[0] if back else 0.0))
        self._say(f"{what}: the longest a keeper waited {longest:.1f} s")

    def inject_faults(self) -> None:
        """Kill a node, disconnect one, kill an application, upgrade both: one after another, under load."""
        first, second = self.nodes[:2]
        with self._event("the node that takes the writes killed") as back:
            first.kill()
            time.sleep(USUAL_S)
            back.append(_timed(first.join))
        with self._event("that node cut off from the others") as back:
            first.cut_off(off=True)
            time.sleep(USUAL_S)
            back.append(_timed(lambda: first.cut_off(off=False)))
        with self._event("another node killed") as back:
            second.kill()
            time.sleep(USUAL_S)
            back.append(_timed(second.join))
        with self._event("an application machine killed") as back:
            self.machines[0].stop(signal.SIGKILL)
            time.sleep(USUAL_S)
            back.append(_timed(self.machines[0].start))
        with self._event("both application machines upgraded, one after the other") as back:
            back.append(_timed(self._upgrade))

    def _upgrade(self) -> None:
        for machine in self.machines:
            machine.stop()
            machine.start()

    def judge(self) -> Outcome:
        """Stop the keepers and compare what every node holds."""
        for writer in self.writers:
            writer.halt()
        for node in self.nodes:
            node.wait_until_in_step()
        held = [node.keys() for node in self.nodes]
        for writer in self.writers:
            found = held[0].get(writer.keeper.tank, [])
            self.outcome.acknowledged += len(writer.acknowledged)
            self.outcome.lost += sorted(set(writer.acknowledged) - set(found))
            self.outcome.doubled += sorted({key for key in found if found.count(key) > 1})
            for status, count in writer.refused.items():
                self.outcome.refused[status] = self.outcome.refused.get(status, 0) + count
        self.outcome.apart = [node.number for node, keys in zip(self.nodes, held, strict=True) if keys != held[0]]
        return self.outcome

    def end(self) -> None:
        """Stop everything."""
        for machine in self.machines:
            machine.stop()
        for node in reversed(self.nodes):
            node.stop()


def _timed(work: Callable[[], None]) -> float:
    begun = time.monotonic()
    work()
    return time.monotonic() - begun


def run(trial: Trial) -> Outcome:
    """The whole trial, from running nodes to the result. trial: without load yet."""
    trial.start_machines()
    for writer in trial.writers:
        writer.start()
    trial.inject_faults()
    return trial.judge()


def trial_folder() -> Path:
    """A folder that the database's account may enter too: rsync sends nothing as root."""
    folder = Path(tempfile.mkdtemp(prefix="reedmace-cluster-"))
    folder.chmod(0o755)
    return folder


def cluster_trial() -> int:
    """Run the trial and print what it showed; 1 when anything acknowledged was lost or doubled."""
    folder = trial_folder()
    begun = time.monotonic()
    try:
        trial = Trial(folder, lambda text: print(f"reedmace: {text}", file=sys.stderr, flush=True))
        try:
            trial.start_nodes()
            outcome = run(trial)
        finally:
            trial.end()
    except (RuntimeError, TimeoutError) as error:
        print(f"reedmace: the trial could not be held: {error}; its logs stay in {folder}", file=sys.stderr)
        return 2
    shutil.rmtree(folder, ignore_errors=True)
    print(f"{'what':60s} {'longest wait':>14s} {'back after':>11s}")
    for event in outcome.events:
        print(f"{event.what:60s} {event.longest_wait_s:12.1f} s {event.back_s:9.1f} s")
    answers = ", ".join(f"{n} x {s or 'no answer'}" for s, n in sorted(outcome.refused.items())) or "none"
    print(f"{outcome.acknowledged} notes acknowledged; asked again after: {answers}")
    print(f"lost {len(outcome.lost)}, doubled {len(outcome.doubled)}, nodes that differ {len(outcome.apart)}")
    print(f"{time.monotonic() - begun:.0f} s in all")
    return 1 if outcome.lost or outcome.doubled or outcome.apart else 0
