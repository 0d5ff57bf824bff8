"""The sample files for an operator say what the program does."""

import configparser
import re
import subprocess
from pathlib import Path

import pytest

from reedmace.command.cluster_trial import Node
from tests.support.running import ROOT

SAMPLES = ROOT / "deploy"
OPERATING = (ROOT / "docs" / "operating.md").read_text()


def unit(path: Path) -> dict[str, list[str]]:
    """Every value of a systemd unit, by name: names come more than once."""
    found: dict[str, list[str]] = {}
    for line in path.read_text().splitlines():
        name, equals, value = line.partition("=")
        if equals and not line.startswith("#"):
            found.setdefault(name, []).append(value)
    return found


@pytest.mark.parametrize("path", sorted(SAMPLES.glob("*.service")), ids=lambda p: p.name)
def test_a_unit_runs_a_verb_there_is_and_sets_what_is_documented(path: Path) -> None:
    said = subprocess.run([str(ROOT / "reedmace"), "help"], capture_output=True, text=True, check=True).stdout
    settings = unit(path)
    (verb,) = re.findall(r"/opt/reedmace/reedmace (\w+)", settings["ExecStart"][0])
    assert f"./reedmace {verb} " in said
    for named in settings["Environment"]:
        assert f"`{named.partition('=')[0]}`" in OPERATING


def test_a_node_for_real_has_the_options_the_trial_is_held_with(tmp_path: Path) -> None:
    sample = configparser.ConfigParser()
    sample.read(SAMPLES / "node.cnf")
    for_real = dict(sample["mysqld"])
    tried = dict(
        option.removeprefix("--").replace("-", "_").split("=", 1) for option in Node(tmp_path, 1, [1, 2, 3])._more()
    )
    # These name this machine's ports and nodes; the rest decides whether anything is lost.
    own = ("wsrep_provider_options", "wsrep_cluster_address", "wsrep_node_name", "wsrep_sst_receive_address")
    for name in tried.keys() - own - {"wsrep_node_address"}:
        assert for_real.get(name) == tried[name], name
    timing = {part for part in tried["wsrep_provider_options"].split(";") if part.startswith("evs.")}
    assert timing == set(for_real["wsrep_provider_options"].strip('"').split(";"))
