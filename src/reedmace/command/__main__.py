"""The command line: demo, serve, test, check, bench, types, account, compute."""

import argparse
import sys
from collections.abc import Callable
from importlib import import_module
from pathlib import Path
from typing import Any

from reedmace.command import STANDINS


def _module(module: str) -> Any:
    """A module of this package, imported only when its verb is used, to keep start-up short."""
    return import_module(f"reedmace.command.{module}")


def _parser() -> argparse.ArgumentParser:
    """The verbs and what each takes."""
    parser = argparse.ArgumentParser(prog="reedmace", description="Choose, fit and cycle an aquarium filter.")
    verbs = parser.add_subparsers(dest="verb", metavar="VERB")
    demo = verbs.add_parser("demo", help="start with the demo tanks and print the address")
    demo.add_argument("--fresh", action="store_true", help="write the demo tanks anew")
    for name, text in (("serve", "start without demo data"),):
        verbs.add_parser(name, help=text)
    test = verbs.add_parser("test", help="run every test, or those named")
    test.add_argument("--changed", action="store_true", help="only what a change since the last commit touches")
    test.add_argument("rest", nargs=argparse.REMAINDER)
    verbs.add_parser("trials", help="every test with every trial in full")
    verbs.add_parser("coverage", help="branches of the core its tests take")
    verbs.add_parser("check", help="linters, types, layers, generated files")
    verbs.add_parser("bench", help="measure speed as ratios within one run")
    saved = verbs.add_parser("backup", help="dump the database of serve, while it runs or not: FILE.sql.gz")
    saved.add_argument("file", type=Path)
    back = verbs.add_parser("restore", help="bring a backup back into an empty database")
    back.add_argument("file", type=Path)
    back.add_argument("--until", metavar="UTC", help="and what was written after it, up to a moment: 2026-11-27T08:00")
    verbs.add_parser("cluster-trial", help="three database nodes and two applications, broken one by one under load")
    verbs.add_parser("licences", help="write the list of packages that ship, with their licences")
    kills = verbs.add_parser("kill-trial", help="every process killed at random under load, again and again")
    kills.add_argument("kills", type=int, nargs="?", default=50)
    mails = verbs.add_parser("notice-trial", help="mails sent while database, mail server and worker are killed")
    mails.add_argument("kills", type=int, nargs="?", default=50)
    verbs.add_parser("notices", help="for the one who runs the server: what waits to be mailed, and what could not be")
    verbs.add_parser("load-trial", help="more and more keepers at once, and how long each waits")
    verbs.add_parser("screen-costs", help="what each screen and keystroke costs the processor")
    verbs.add_parser("types", help="write the front end's types from the API description")
    device = verbs.add_parser(
        "standin", help="a simulated device (meter, plug, kit, thermometer, probe), sending to a running Reedmace"
    )
    device.add_argument("kind", choices=STANDINS)
    device.add_argument("--address", default="http://127.0.0.1:8420")
    device.add_argument("--token", required=True, help="as the page shows it when the device is made")
    device.add_argument("--days", type=int, default=60)
    device.add_argument("--figure", type=float, default=700, help="L/h clean, or W")
    account = verbs.add_parser(
        "account", help="for the one who runs the server: a new password for a locked-out keeper"
    )
    account.add_argument("what", choices=["reset"])
    account.add_argument("email")
    one = verbs.add_parser("compute", help="answer one named computation: NAME < in.json")
    one.add_argument("name", nargs="?")
    one.add_argument("--list", action="store_true", help="the names and what each answers")
    one.add_argument("--lines", action="store_true", help="a question a line in, an answer a line out (JSON Lines)")
    one.add_argument("--schema", metavar="NAME", help="input and output of one, as JSON Schema")
    return parser


def main() -> int:
    """Run one verb and return its exit code."""
    parser = _parser()
    arguments = parser.parse_args()
    runs: dict[str, Callable[[], int]] = {
        "demo": lambda: _module("run").demo(fresh=arguments.fresh),
        "serve": lambda: _module("run").serve(),
        "test": lambda: _module("testing").run_tests(arguments.rest, changed=arguments.changed),
        "coverage": lambda: _module("testing").coverage(),
        "trials": lambda: _module("testing").run_tests([], whole=True),
        "check": lambda: _module("check").check(),
        "types": lambda: _module("generated").write_all(),
        "bench": lambda: _module("bench").bench(),
        "backup": lambda: _module("backup").backup(arguments.file),
        "restore": lambda: _module("backup").restore(arguments.file, arguments.until),
        "kill-trial": lambda: _module("kill_trial").kill_trial(arguments.kills),
        "notice-trial": lambda: _module("notice_trial").notice_trial(arguments.kills),
        "notices": lambda: _module("notice_report").report(),
        "load-trial": lambda: _module("load_trial").load_trial(),
        "screen-costs": lambda: _module("screen_costs").screen_costs(),
        "licences": lambda: _module("licences").write(),
        "cluster-trial": lambda: _module("cluster_trial").cluster_trial(),
        "account": lambda: _module("account_reset").reset(arguments.email),
        "standin": lambda: _module("simulated_device").standin(
            arguments.kind, arguments.address, arguments.token, arguments.days, arguments.figure
        ),
        "compute": lambda: _module("compute").main(
            arguments.name, list_names=arguments.list, schema=arguments.schema, lines=arguments.lines
        ),
    }
    if arguments.verb in runs:
        return runs[arguments.verb]()
    parser.print_help()
    return 0


if __name__ == "__main__":
    sys.exit(main())
