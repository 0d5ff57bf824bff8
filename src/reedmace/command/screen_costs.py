"""screen-costs: what each request and keystroke costs the processor, by the readings a tank has.

One keeper uses one web worker. The processor time of all its threads is read before and after each request from the
kernel's own account, so that what else runs on the machine changes little. The database's time stands beside it.
"""

import shutil
import sys
import tempfile
import time
from collections import defaultdict
from collections.abc import Sequence
from datetime import UTC, datetime, timedelta
from pathlib import Path
from statistics import median, quantiles

from reedmace.command.load_trial import ANIMALS, STAGES, TANK, chosen, keystroke
from reedmace.command.mariadb import MariaDB
from reedmace.command.trial_keepers import Keeper
from reedmace.command.trial_machine import Machine, processes_of
from reedmace.database import connect
from reedmace.logbook.replay.entries import Reading

READINGS = (10, 1_000, 20_000, 1_000_000)
MOST_APART, LONGEST = timedelta(hours=1), timedelta(days=700)
"""Tests come hourly, or oftener where so many would take more than two years."""
FILL_S = 900.0
"""Longest wait for the database while tests are written, s."""
LOOKS = 12
KEYSTROKES = 40
WARM = 3
"""Requests of each kind before those that count: the first ones of a process load what all later ones share."""
PER_PROGRAM = {"web": "reedmace.command.web_server", "database": "mariadbd"}

Costs = dict[str, list[tuple[float, float]]]
"""By what was asked: processor time of web worker and database for each request, s."""


def processor_s(folder: Path) -> dict[str, float]:
    """Processor time used so far by web server and database, s. folder: REEDMACE_VAR of the machine."""
    used = dict.fromkeys(PER_PROGRAM, 0.0)
    for pid, command in processes_of(folder):
        name = next((name for name, part in PER_PROGRAM.items() if part in command), None)
        if name is None:
            continue
        for task in Path(f"/proc/{pid}/task").glob("*/schedstat"):
            try:
                used[name] += int(task.read_text().split()[0]) / 1e9
            except (OSError, IndexError):
                # A thread that has ended since.
                continue
    return used


def fill(url: str, tank: int, count: int, until: datetime) -> None:
    """Write a tank's tests straight into the database, as one would come by in years of a meter.

    url: of the database, for the owner of its tables; tank: its id; count: tests, at most a million; until: time of the
    newest.
    """
    figures = {"ammonia_ppm": 0, "nitrite_ppm": 0, "nitrate_ppm": 20, "ph": 7.4}
    body = Reading.model_validate({"kind": "reading", **figures}).model_dump_json()
    apart_s = min(MOST_APART, LONGEST / count).total_seconds()
    database = connect(url, FILL_S)
    with database.connection_context(), database.atomic():
        # MariaDB's sequence engine makes the rows.
        database.execute_sql(
            "INSERT INTO entry (tank_id, client_key, kind, at, written_at, body)"
            " SELECT %s, CONCAT('screen-', seq), 'reading', moment, moment, %s FROM"
            " (SELECT seq, %s - INTERVAL ROUND((%s - seq) * %s) SECOND AS moment FROM seq_1_to_1000000 WHERE seq <= %s)"
            " AS made",
            (tank, body, until.astimezone(UTC).replace(tzinfo=None, microsecond=0), count, apart_s, count),
        )
        database.execute_sql("UPDATE tank SET writes = writes + %s WHERE id = %s", (count, tank))
    database.close_all()


class Screens:
    """A keeper at one machine, whose requests are weighed. folder: of the machine; port: where it listens."""

    def __init__(self, folder: Path, port: int) -> None:
        self._folder = folder
        self._keeper = Keeper([("127.0.0.1", port)])
        self.costs: Costs = defaultdict(list)

    def settle(self, readings: int) -> None:
        """Sign up with a tank, its plans and its tests. readings: how many. Raises RuntimeError when refused."""
        self._keeper.sign_up(f"screens-{readings}")
        now = datetime.now(UTC)
        begun = now - LONGEST - MOST_APART
        plans = ({"kind": "tank-plan", "tank": TANK}, ANIMALS, chosen(), {"kind": "situation", "stands": "running"})
        for number, body in enumerate(plans, 1):
            entry = {"key": f"screen-plan-{number}", "at": begun.isoformat(), "body": body}
            self._must("POST", f"/api/tanks/{self._keeper.tank}/entries", entry)
        server = MariaDB(self._folder / "serve")
        # Reads the port it listens on, too.
        server.running_url()
        fill(server.owner_url, self._keeper.tank, readings, now)

    def _must(self, method: str, path: str, body: object) -> None:
        status, answer = self._keeper.ask(method, path, body)
        if status not in (200, 201):
            raise RuntimeError(f"{method} {path} was refused with {status}: {str(answer)[:300]}")

    def use(self, looks: int = LOOKS, keystrokes: int = KEYSTROKES) -> Costs:
        """Look at each screen and type in each stage; their costs. looks, keystrokes: of each, at least 2."""
        tank = self._keeper.tank
        for n in range(WARM + looks):
            # A test between two looks makes the answers new; without one they are kept.
            reading = {"kind": "reading", "ammonia_ppm": 0, "nitrite_ppm": 0, "ph": 7.4}
            entry = {"key": f"screen-test-{time.monotonic_ns()}", "at": datetime.now(UTC).isoformat(), "body": reading}
            counts = n >= WARM
            self._weigh("log a test", counts, "POST", f"/api/tanks/{tank}/entries", entry)
            self._weigh("Today after it", counts, "GET", "/api/today")
            self._weigh("Today again", counts, "GET", "/api/today")
            self._weigh("open the tank", counts, "GET", f"/api/tanks/{tank}")
            self._weigh("open Cycle", counts, "GET", f"/api/tanks/{tank}/cycle")
            self._weigh("open Keep", counts, "GET", f"/api/tanks/{tank}/views/keep")
        for stage in dict.fromkeys(STAGES):
            for n in range(WARM + keystrokes):
                path, body = keystroke(stage, tank, 37 * n)
                self._weigh(f"a keystroke: {stage}", n >= WARM, "POST", path, body)
        return self.costs

    def _weigh(self, what: str, counts: bool, method: str, path: str, body: object = None) -> None:
        before = processor_s(self._folder)
        self._must(method, path, body)
        after = processor_s(self._folder)
        if counts:
            self.costs[what].append((after["web"] - before["web"], after["database"] - before["database"]))

    def leave(self) -> None:
        """Close the connection."""
        self._keeper.close()


def row(what: str, spent: Sequence[tuple[float, float]]) -> str:
    """One row of the table: median and 95th percentile of the worker, median of the database, ms.

    what: was asked; spent: at least two requests.
    """
    web, database = ([1000 * one[part] for one in spent] for part in (0, 1))
    return f"{what} | {median(web):.0f}, {quantiles(web, n=20)[18]:.0f} | {median(database):.1f}"


def screen_costs() -> int:
    """Print the table: ms of processor, by the readings of the tank. 2 where it could not be held."""
    folder = Path(tempfile.mkdtemp(prefix="reedmace-screens-"))
    # Looking for what is owed by mail is no part of a request.
    machine = Machine(folder, workers=1, settings={"REEDMACE_NOTICE_S": "86400"})
    try:
        machine.start()
        print("| readings | asked | web worker, median and p95, ms | database, median, ms |\n|---|---|---|---|")
        for readings in READINGS:
            screens = Screens(folder, machine.port)
            screens.settle(readings)
            for what, spent in screens.use().items():
                print(f"| {readings:,} | {row(what, spent)} |", flush=True)
            screens.leave()
    except (RuntimeError, TimeoutError) as error:
        print(f"reedmace: the costs could not be measured: {error}", file=sys.stderr)
        return 2
    finally:
        machine.stop()
        shutil.rmtree(folder, ignore_errors=True)
    return 0
