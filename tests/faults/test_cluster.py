"""Three database nodes and two application machines: whatever is lost, nothing acknowledged is."""

import shutil
import threading
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from datetime import UTC, datetime

import pytest

from reedmace.command.cluster_trial import NODES, Trial, run, trial_folder
from reedmace.database import connect
from reedmace.logbook.replay.entries import NewEntry
from reedmace.store import Accounts, PlanMoved, Tanks

NOW = datetime(2026, 11, 27, 8, 0, tzinfo=UTC)
TABS = 8


@pytest.fixture(scope="module")
def trial() -> Iterator[Trial]:
    folder = trial_folder()
    made = Trial(folder, lambda _: None)
    try:
        made.start_nodes()
        yield made
    finally:
        made.end()
        shutil.rmtree(folder, ignore_errors=True)


def plan(key: str, length_cm: float) -> NewEntry:
    body = {"kind": "tank-plan", "tank": {"length_cm": length_cm, "width_cm": 30, "height_cm": 36}}
    return NewEntry.model_validate({"key": key, "at": NOW, "body": body})


def test_one_plan_saved_at_two_nodes_at_once_is_saved_once_and_the_others_are_told(trial: Trial) -> None:
    first = trial.nodes[0]
    databases = [connect(first.app_url.replace(f":{first.port}/", f":{node.port}/")) for node in trial.nodes]
    with databases[0].connection_context():
        account = Accounts(databases[0]).sign_up("two@nodes.example", "reed and water", NOW.replace(tzinfo=None))
        tanks = [Tanks(databases[0], account.id).make(f"Tank {n}", NOW).id for n in range(6)]
    ready = threading.Barrier(TABS)

    def save(number: int, tank: int) -> str:
        database = databases[number % NODES]
        mine = plan(f"from-tab-{number}", 60 + number)
        with database.connection_context():
            ready.wait(30)
            try:
                return Tanks(database, account.id).add(tank, mine, NOW)[0].key
            except PlanMoved:
                return "moved"

    with ThreadPoolExecutor(TABS) as tabs:
        for tank in tanks:
            told = list(tabs.map(save, range(TABS), [tank] * TABS))
            assert told.count("moved") == TABS - 1, told
            saved = [key for key in told if key != "moved"]
            for database in databases:
                with database.connection_context():
                    assert [e.key for e in Tanks(database, account.id).entries(tank)] == saved
    for database in databases:
        database.close_idle()


@pytest.mark.timeout(900)
def test_nodes_and_machines_lost_under_load_lose_and_double_nothing(trial: Trial) -> None:
    outcome = run(trial)
    assert outcome.acknowledged > 200
    assert outcome.lost == []
    assert outcome.doubled == []
    assert outcome.apart == []
    assert len(outcome.events) == 5
    # The load was really felt: losing the node that takes the writes made somebody ask again.
    assert sum(outcome.refused.values()) > 0
    assert trial.nodes[0].status("wsrep_cluster_size") == str(NODES)
