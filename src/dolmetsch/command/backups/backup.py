"""``backup``: all that is kept here, in one file."""

from pathlib import Path

from dolmetsch.command import paths
from dolmetsch.command.backups.backup_file import name_backup, write_backup
from dolmetsch.command.backups.sealing import ask_passphrase
from dolmetsch.command.managing import running_database
from dolmetsch.command.telling import say


def back_up(file: Path | None, *, with_secrets: bool, db_port: int) -> Path:
    """Write a backup into ``file``, or into .dolmetsch/backups under its time; gives where it is.

    Raises:
        TroubleError: there are no records, the file is there already, no room, or the dump failed.
    """
    paths.prepare()
    passphrase = ask_passphrase(twice=True) if with_secrets else ""
    with running_database(db_port) as database:
        into = name_backup() if file is None else file.resolve()
        write_backup(into, database, passphrase=passphrase)
    say(f"Written: {into} ({into.stat().st_size / 1e6:.1f} MB). Keep it on another machine too.")
    return into
