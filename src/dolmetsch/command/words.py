"""The words of the one command, and what each does."""

import argparse
from collections.abc import Callable
from pathlib import Path
from typing import Any, Final

from dolmetsch.command import paths

# what does the work is imported by the verb that needs it: an answer to a document is to be quick

Verbs = Any


#: What a verb runs in place of its script, by the flag that asks for it.
_LARGER: Final = {
    "bench": (
        "--town",
        "benchmarks.town.run",
        "of 500 kitchens and people at work in them (docs/scale.md); takes an hour and 30 GB",
    ),
    "soak": (
        "--cluster",
        "benchmarks.soak.cluster",
        "of a set of several machines, on this one's loopback",
    ),
}


def read_words(words: list[str]) -> argparse.Namespace:
    """The options of the command; ``run`` is what does it."""
    parser = argparse.ArgumentParser(prog="./dolmetsch", description="What house-cured meat really costs.")
    verbs = parser.add_subparsers(required=True, metavar="VERB")
    for add in (
        _add_serving,
        _add_cluster,
        _add_keeping,
        _add_people,
        _add_documents,
        _add_devices,
        _add_developing,
    ):
        add(verbs)
    options, more = parser.parse_known_args(words)
    if more and options.run is not _run_script:
        parser.error(f"unrecognized arguments: {' '.join(more)}")
    if more:
        # a script's own flags
        options.words = [*more, *options.words]
    return options


def _add(
    verbs: Verbs, name: str, run: Callable[[argparse.Namespace], None], says: str
) -> argparse.ArgumentParser:
    verb: argparse.ArgumentParser = verbs.add_parser(name, help=says)
    verb.set_defaults(run=run)
    return verb


def _add_db_port(verb: argparse.ArgumentParser) -> None:
    verb.add_argument("--db-port", type=_port, default=paths.DB_PORT, help="of MariaDB (%(default)s)")


def _add_serving(verbs: Verbs) -> None:
    start = _add(verbs, "start", _start, "set up what is missing, start MariaDB and serve, until Ctrl-C")
    start.add_argument("--port", type=_port, default=paths.PORT, help="of the application (%(default)s)")
    _add_db_port(start)
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
    start.add_argument("--no-demo", action="store_true", help="load no demo, and show none")
    start.add_argument(
        "--own-certificate",
        action="store_true",
        help="with --address https://…: speak HTTPS with a certificate made here, no proxy needed",
    )
    start.add_argument(
        "--keep-backups", type=int, default=7, metavar="N", help="daily ones (%(default)s; 0: none)"
    )
    _add(verbs, "stop", _stop, "stop a start that runs elsewhere")
    _add(verbs, "prepare", _prepare, "install and build what start needs, and start nothing")


def _add_cluster(verbs: Verbs) -> None:
    cluster = _add(
        verbs, "cluster", _start_cluster, "start: a set of several machines, on this one's loopback"
    )
    cluster.add_argument("word", choices=["start"])
    cluster.add_argument("--port", type=_port, default=paths.PORT, help="of the proxy (%(default)s)")


def _add_keeping(verbs: Verbs) -> None:
    backup = _add(
        verbs, "backup", _backup, "write all records, photos and settings into one file, also while it runs"
    )
    backup.add_argument("file", nargs="?", type=Path, metavar="FILE")
    backup.add_argument(
        "--with-secrets", action="store_true", help="also its secrets, encrypted by a passphrase"
    )
    _add_db_port(backup)
    restore = _add(verbs, "restore", _restore, "bring a backup into a machine without records of its own")
    restore.add_argument("file", type=Path, metavar="FILE")
    restore.add_argument("--replace", action="store_true", help="put the records here aside first")
    _add_db_port(restore)
    check = _add(
        verbs, "check", _check, "recompute every sheet, every kept sum and every photo, and say what differs"
    )
    _add_db_port(check)
    recount = _add(
        verbs, "recount", _recount, "count all batches anew, and say which kept other figures for the books"
    )
    recount.add_argument("--mend", action="store_true", help="renew what differs")
    _add_db_port(recount)
    export = _add(verbs, "export", _export, "write everything of a kitchen as one ZIP")
    export.add_argument("kitchen", metavar="KITCHEN", help="its name in addresses, like salt-lantern")
    export.add_argument("file", metavar="FILE", type=Path)
    _add_db_port(export)


def _add_people(verbs: Verbs) -> None:
    kitchen = _add(verbs, "kitchen", _manage_kitchens, "new NAME --owner NAME, list, demo away, demo back")
    user = _add(verbs, "user", _manage_users, "new NAME --kitchen KITCHEN, password, lock, unlock NAME, list")
    for verb in (kitchen, user):
        verb.add_argument("words", nargs=argparse.REMAINDER, metavar="WORD")
        _add_db_port(verb)


def _add_documents(verbs: Verbs) -> None:
    for name, of in (
        ("cost", "what a batch document came to"),
        ("cure", "what to weigh out for a cure"),
        ("cook", "how a cook log's meat stands: inside, lethality, cooling, when it is ready"),
        ("dry", "what a drying log's piece has lost, and when it is dry"),
    ):
        verb = _add(verbs, name, _answer, f"{of}, as JSON; - reads standard input")
        verb.add_argument("file", metavar="FILE|-")
        verb.set_defaults(verb=name)


def _add_devices(verbs: Verbs) -> None:
    for name, of in (
        ("scale", "what is on the simulated scale: put 2595, take, tare, silent 5"),
        ("chamber", "what goes on in the simulated chamber: hang 1 1640, humidity 78, door open, fan off"),
        ("cooker", "what goes on in the simulated cooker: meat 1 45, set 225, speed 60, fire low, swap 1 2"),
    ):
        verb = _add(verbs, name, _command_device, of)
        verb.add_argument("words", nargs="+", metavar="WORD")
        verb.set_defaults(device=name)


def _add_developing(verbs: Verbs) -> None:
    test = _add(verbs, "test", _test, "set up and run every check")
    test.add_argument("--only", help="run only the checks whose name contains this")
    test.add_argument(
        "--changed",
        nargs="?",
        const="HEAD",
        metavar="COMMIT",
        help="run only what is nearest to the changes since COMMIT (the last one, if none is named)",
    )
    _add(verbs, "advisories", _advisories, "ask what is known against the packages, where that is answered")
    _add(verbs, "api", _write_api, "write the API document and the client's types again")
    many = _add(verbs, "many", _copy_kitchen, "copy a kitchen many times in the record store, for measuring")
    many.add_argument("words", nargs=argparse.REMAINDER, metavar="COUNT [--like KITCHEN] [--owner NAME]")
    _add_db_port(many)
    for name, script, says in (
        ("screenshots", "docs/screenshots/make.py", "take the pictures in docs/screenshots again"),
        ("bench", "benchmarks.speed.run", "measure, and write docs/speed.md again"),
        (
            "soak",
            "benchmarks.soak.run",
            "write under kills, stops and a full disk; count what is lost or doubled",
        ),
        ("licenses", "docs/materials/make.py", "list what is shipped and its licenses (docs/materials)"),
    ):
        verb = _add(verbs, name, _run_script, says)
        verb.set_defaults(script=script)
        if name in _LARGER:
            flag, larger, of = _LARGER[name]
            verb.add_argument(flag, dest="script", action="store_const", const=larger, help=of)
        verb.add_argument("words", nargs=argparse.REMAINDER, metavar="WORD")


def _start(options: argparse.Namespace) -> None:
    from dolmetsch.command import serving
    from dolmetsch.command.addresses import read_address

    address = read_address(options.address, port=options.port) if options.address else None
    serving.start(
        serving.Wanted(
            port=options.port,
            db_port=options.db_port,
            address=address,
            has_demo=not options.no_demo,
            demo_everywhere=options.demo_sign_in,
            own_certificate=options.own_certificate,
            backups=options.keep_backups,
        )
    )


def _prepare(_options: argparse.Namespace) -> None:
    from dolmetsch.command.machine import set_up

    set_up(for_tests=False)


def _stop(_options: argparse.Namespace) -> None:
    from dolmetsch.command import serving

    serving.stop()


def _test(options: argparse.Namespace) -> None:
    from dolmetsch.command.checks import checking

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


def _start_cluster(options: argparse.Namespace) -> None:
    from dolmetsch.command.cluster.machines import start_cluster

    start_cluster(options.port)


def _backup(options: argparse.Namespace) -> None:
    from dolmetsch.command.backups.backup import back_up

    back_up(options.file, with_secrets=options.with_secrets, db_port=options.db_port)


def _restore(options: argparse.Namespace) -> None:
    from dolmetsch.command.backups.restore import restore

    restore(options.file, replace=options.replace, db_port=options.db_port)


def _check(options: argparse.Namespace) -> None:
    from dolmetsch.command.managing import manage

    manage("check_records", db_port=options.db_port)


def _manage_kitchens(options: argparse.Namespace) -> None:
    from dolmetsch.command.managing import manage

    manage("kitchen", *(options.words or ["--help"]), db_port=options.db_port)


def _copy_kitchen(options: argparse.Namespace) -> None:
    from dolmetsch.command.managing import manage

    manage("copy_kitchen", *(options.words or ["--help"]), db_port=options.db_port)


def _manage_users(options: argparse.Namespace) -> None:
    from dolmetsch.command.managing import manage

    manage("user", *(options.words or ["--help"]), db_port=options.db_port)


def _port(typed: str) -> int:
    if not typed.isdigit() or not 1024 <= int(typed) <= 65535:
        raise argparse.ArgumentTypeError(f"“{typed}” is not a port; choose a number from 1024 to 65535")
    return int(typed)


def _advisories(_options: argparse.Namespace) -> None:
    from dolmetsch.command.checks.developing import ask_advisories

    ask_advisories()


def _write_api(_options: argparse.Namespace) -> None:
    from dolmetsch.command.checks.developing import write_api

    write_api()


def _run_script(options: argparse.Namespace) -> None:
    from dolmetsch.command.checks.developing import run_script

    run_script(options.script, options.words)
