"""The command line: demo, serve, test, check, bench, types, account, compute."""

import argparse
import sys
from collections.abc import Callable

from reedmace.command import account as account_command
from reedmace.command import bench, check, compute, run, standin


def main() -> int:
    """Run one verb and return its exit code."""
    parser = argparse.ArgumentParser(prog="reedmace", description="Choose, fit and cycle an aquarium filter.")
    verbs = parser.add_subparsers(dest="verb", metavar="VERB")
    demo = verbs.add_parser("demo", help="start with the demo tanks and print the address")
    demo.add_argument("--fresh", action="store_true", help="write the demo tanks anew")
    for name, text in (("serve", "start without demo data"),):
        verbs.add_parser(name, help=text)
    test = verbs.add_parser("test", help="run every test, or those named")
    test.add_argument("rest", nargs=argparse.REMAINDER)
    verbs.add_parser("check", help="linters, types, layers, generated files")
    verbs.add_parser("bench", help="measure speed as ratios within one run")
    verbs.add_parser("types", help="write the front end's types from the API description")
    device = verbs.add_parser(
        "standin", help="a simulated device (meter, plug, kit, thermometer, probe), sending to a running Reedmace"
    )
    device.add_argument("kind", choices=standin.KINDS)
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
    one.add_argument("--schema", metavar="NAME", help="input and output of one, as JSON Schema")
    arguments = parser.parse_args()
    runs: dict[str, Callable[[], int]] = {
        "demo": lambda: run.demo(fresh=arguments.fresh),
        "serve": run.serve,
        "test": lambda: check.test(arguments.rest),
        "check": check.check,
        "types": check.types,
        "bench": bench.bench,
        "account": lambda: account_command.reset(arguments.email),
        "standin": lambda: standin.standin(
            arguments.kind, arguments.address, arguments.token, arguments.days, arguments.figure
        ),
        "compute": lambda: compute.main(arguments.name, list_names=arguments.list, schema=arguments.schema),
    }
    if arguments.verb in runs:
        return runs[arguments.verb]()
    parser.print_help()
    return 0


if __name__ == "__main__":
    sys.exit(main())
