"""A backup brought back: checked whole, loaded beside what is there, and put in its place in one step."""

import json
import os
import shutil
import tarfile
import time
from contextlib import ExitStack
from pathlib import Path
from typing import IO, Final

from dolmetsch.command import paths
from dolmetsch.command.backups.backup_file import CHUNK, RECORDS, SECRETS, load_dump, opened
from dolmetsch.command.backups.sealing import VARIABLE, ask_passphrase, unseal
from dolmetsch.command.database import Database
from dolmetsch.command.editions import refuse_other_editions
from dolmetsch.command.holding import hold
from dolmetsch.command.machine import set_up
from dolmetsch.command.telling import TroubleError, say, step

#: Where records and photos that were here go when they are put aside.
_KEPT: Final = ("mariadb", "photos")


def restore(file: Path, *, replace: bool, db_port: int) -> None:
    """Bring the records and photos of ``file`` here; with ``replace`` what is here is put aside, not removed.

    Raises:
        TroubleError: Dolmetsch runs, the file is none or of another edition, or records are here.
    """
    paths.prepare()
    busy = "Dolmetsch runs here, or is being restored already (process {pid}). ./dolmetsch stop ends it."
    with hold("start", busy=busy), ExitStack() as until_done:
        with step("Reading the backup"):
            tar, manifest = until_done.enter_context(opened(file.resolve()))
            refuse_other_editions(manifest["tables"])
        if (paths.PRIVATE / "mariadb" / "made").exists() and not replace:
            raise TroubleError(
                "There are records here already. restore --replace puts them aside, into .dolmetsch/aside-…"
            )
        set_up(for_tests=False)
        fresh = paths.PRIVATE / "restoring"
        shutil.rmtree(fresh, ignore_errors=True)
        try:
            _load(tar, fresh, db_port)
            secrets = _read_secrets(tar)
            _put_in_place(fresh)
        finally:
            shutil.rmtree(fresh, ignore_errors=True)
        if secrets is not None:
            _put_secrets(secrets)
    say(
        f"Restored: the records of {manifest['made_at']}. ./dolmetsch check recounts them, start serves them."
    )


def _load(tar: tarfile.TarFile, fresh: Path, db_port: int) -> None:
    fresh.mkdir(mode=0o700)
    database = Database(fresh / "mariadb", port=db_port, password=paths.get_secret("database"), durable=True)
    with step("Loading the records"):
        database.start()
        try:
            load_dump(database, _open(tar, RECORDS))
        finally:
            database.stop()
    with step("Bringing the photos"):
        for member in tar.getmembers():
            if member.name.startswith("photos/"):
                path = (fresh / member.name).resolve()
                if not path.is_relative_to(fresh):
                    raise ValueError(f"{member.name} does not belong in it")
                path.parent.mkdir(parents=True, exist_ok=True, mode=0o700)
                with _open(tar, member.name) as content, path.open("wb") as out:
                    shutil.copyfileobj(content, out, CHUNK)


def _read_secrets(tar: tarfile.TarFile) -> dict[str, str] | None:
    if SECRETS not in tar.getnames():
        return None
    if VARIABLE not in os.environ and not os.isatty(0):
        say(f"The secrets in it stay closed: set {VARIABLE} to bring them too. Everyone signs in anew.")
        return None
    sealed = _open(tar, SECRETS).read()
    found: dict[str, str] = json.loads(unseal(sealed, ask_passphrase(twice=False)))
    return found


def _put_in_place(fresh: Path) -> None:
    aside = paths.PRIVATE / f"aside-{time.strftime('%Y-%m-%d-%H%M%S')}"
    there = [name for name in _KEPT if (paths.PRIVATE / name).exists()]
    if there:
        aside.mkdir(mode=0o700)
        for name in there:
            os.rename(paths.PRIVATE / name, aside / name)
        say(f"What was here lies in {aside}.")
    for name in _KEPT:
        if (fresh / name).exists():
            os.rename(fresh / name, paths.PRIVATE / name)


def _put_secrets(secrets: dict[str, str]) -> None:
    """The key that signs comes along; the record store's password is this machine's own."""
    if "django" in secrets:
        paths.keep_secrets({**paths.read_secrets(), "django": secrets["django"]})


def _open(tar: tarfile.TarFile, name: str) -> IO[bytes]:
    content = tar.extractfile(name)
    if content is None:
        raise ValueError(f"{name} is missing")
    return content
