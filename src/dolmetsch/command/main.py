"""The words of the one command."""

import argparse
import os
import sys
from pathlib import Path
from subprocess import run

from dolmetsch.command import paths
from dolmetsch.command.telling import RefusedError, TroubleError, must, say

# the rest is imported by the verb that needs it: an answer to a document is to be quick


def main(words: list[str]) -> int:
    """Run the command; gives its exit status."""
    options = _read(words)
    # where Debian keeps servers, and ordinary users do not look
    os.environ["PATH"] = f"{os.environ.get('PATH', '')}:/usr/local/sbin:/usr/sbin:/sbin"
    try:
        options.run(options)
    except TroubleError as trouble:
        say(str(trouble))
        return 1
    except RefusedError as refused:
        sys.stderr.buffer.write(f"dolmetsch: {' '.join(str(refused).split())}\n".encode())
        return 2
    except BrokenPipeError:
        # whoever read the answer had enough of it
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())
        return 0
    except KeyboardInterrupt:
        say("Stopped.")
        return 130
    return 0


def _read(words: list[str]) -> argparse.Namespace:
    parser = argparse.ArgumentParser(prog="./dolmetsch", description="What house-cured meat really costs.")
    verbs = parser.add_subparsers(required=True, metavar="VERB")
    start = verbs.add_parser("start", help="set up what is missing, start MariaDB and serve, until Ctrl-C")
    start.add_argument("--port", type=_port, default=paths.PORT, help="of the application (%(default)s)")
    start.add_argument("--db-port", type=_port, default=paths.DB_PORT, help="of MariaDB (%(default)s)")
    start.add_argument(
        "--address",
        default="",
        metavar="URL",
        help="by which phones and tablets open it, like http://192.168.1.20; else this machine alone",
    )
    start.add_argument(
        "--demo-sign-in",
        action="store_true",
        help="with --address: show the demo's sign-in to whoever opens it there",
    )
    start.set_defaults(run=_start)
    stop = verbs.add_parser("stop", help="stop a start that runs elsewhere")
    stop.set_defaults(run=_stop)
    test = verbs.add_parser("test", help="set up and run every check")
    test.add_argument("--only", help="run only the checks whose name contains this")
    test.add_argument(
        "--changed",
        nargs="?",
        const="HEAD",
        metavar="COMMIT",
        help="run only what the changes since COMMIT can touch (the last one, if none is named)",
    )
    test.set_defaults(run=_test)
    for name, of in (
        ("cost", "what a batch document came to"),
        ("cure", "what to weigh out for a cure"),
        ("cook", "how a cook log's meat stands: inside, lethality, cooling, when it is ready"),
        ("dry", "what a drying log's piece has lost, and when it is dry"),
    ):
        verb = verbs.add_parser(name, help=f"{of}, as JSON; - reads standard input")
        verb.add_argument("file", metavar="FILE|-")
        verb.set_defaults(run=_answer, verb=name)
    for name, of in (
        ("scale", "what is on the simulated scale: put 2595, take, tare, silent 5"),
        ("chamber", "what goes on in the simulated chamber: hang 1 1640, humidity 78, door open, fan off"),
        ("cooker", "what goes on in the simulated cooker: meat 1 45, set 225, speed 60, fire low, swap 1 2"),
    ):
        verb = verbs.add_parser(name, help=of)
        verb.add_argument("words", nargs="+", metavar="WORD")
        verb.set_defaults(run=_command_device, device=name)
    recount = verbs.add_parser(
        "recount", help="count all batches anew, and say which kept other figures for the books"
    )
    recount.add_argument("--mend", action="store_true", help="renew what differs")
    recount.add_argument("--db-port", type=_port, default=paths.DB_PORT, help="of MariaDB (%(default)s)")
    recount.set_defaults(run=_recount)
    export = verbs.add_parser("export", help="write everything of a kitchen as one ZIP")
    export.add_argument("kitchen", metavar="KITCHEN", help="its name in addresses, like salt-lantern")
    export.add_argument("file", metavar="FILE", type=Path)
    export.add_argument("--db-port", type=_port, default=paths.DB_PORT, help="of MariaDB (%(default)s)")
    export.set_defaults(run=_export)
    api = verbs.add_parser("api", help="write the API document and the client's types again")
    api.set_defaults(run=lambda _options: _write_api())
    for name, script, words_of in (
        ("screenshots", "docs/screenshots/make.py", "take the pictures in docs/screenshots again"),
        ("bench", "benchmarks/run.py", "measure, and write docs/speed.md again"),
    ):
        verb = verbs.add_parser(name, help=words_of)
        verb.set_defaults(run=lambda _options, script=script: _run_script(script))
    return parser.parse_args(words)


def _start(options: argparse.Namespace) -> None:
    from dolmetsch.command import serving
    from dolmetsch.command.addresses import read_address

    address = read_address(options.address, port=options.port) if options.address else None
    serving.start(
        port=options.port, db_port=options.db_port, address=address, demo_everywhere=options.demo_sign_in
    )


def _stop(_options: argparse.Namespace) -> None:
    from dolmetsch.command import serving

    serving.stop()


def _test(options: argparse.Namespace) -> None:
    from dolmetsch.command import checking

    checking.check_all(only=options.only, since=options.changed)


def _answer(options: argparse.Namespace) -> None:
    from dolmetsch.command import answering

    answering.answer(options.verb, options.file)


def _recount(options: argparse.Namespace) -> None:
    from dolmetsch.command.managing import manage

    manage("recount", *(["--mend"] if options.mend else []), db_port=options.db_port)


def _export(options: argparse.Namespace) -> None:
    from dolmetsch.command.managing import manage

    manage("export_kitchen", options.kitchen, str(options.file.resolve()), db_port=options.db_port)


def _command_device(options: argparse.Namespace) -> None:
    from dolmetsch.command.devices import command_device

    command_device(options.device, options.words)


def _port(typed: str) -> int:
    if not typed.isdigit() or not 1024 <= int(typed) <= 65535:
        raise argparse.ArgumentTypeError(f"“{typed}” is not a port; choose a number from 1024 to 65535")
    return int(typed)


def _write_api() -> None:
    from dolmetsch.command import serving
    from dolmetsch.command.database import close_scratch, open_scratch
    from dolmetsch.command.machine import set_up

    set_up(for_tests=False)
    database = open_scratch()
    try:
        document = paths.ROOT / "docs" / "openapi.json"
        export = [str(paths.PYTHON), "-m", "django", "export_openapi_schema", "--indent", "2"]
        export += ["--api", "dolmetsch.server.config.api.api", "--output", str(document)]
        log = paths.LOGS / "api.log"
        must(export, doing="the API document", log=log, env=serving.server_environment(database))
        must(["npm", "run", "api-types"], doing="the client's types", log=log, cwd=paths.WEB)
    finally:
        close_scratch(database)
    say(f"Written: {document}, web/src/shared/api/schema.ts")


def _run_script(script: str) -> None:
    """Run a script of the project's beside a scratch record store."""
    from dolmetsch.command import serving
    from dolmetsch.command.database import close_scratch, open_scratch
    from dolmetsch.command.machine import build_web, set_up

    set_up(for_tests=True)
    build_web()
    database = open_scratch()
    try:
        environment = {**serving.server_environment(database), "DOLMETSCH_DEMO": "1"}
        path = str(paths.ROOT / script)
        status = run([str(paths.PYTHON), path], env=environment, check=False).returncode
    finally:
        close_scratch(database)
    if status:
        raise TroubleError(f"{script} failed.")
