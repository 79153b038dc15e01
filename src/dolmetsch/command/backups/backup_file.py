"""The file of a backup: all records, photos and, if asked, secrets; written while everything runs.

A tar file: ``manifest.json`` first (the format, when, the program's tables, every file's SHA-256), then
``records.sql.gz`` (one consistent look at the record store, by mariadb-dump), ``photos/`` and
``secrets.sealed``. Sessions are left out: nobody is signed in by a backup.
"""

import gzip
import hashlib
import io
import json
import os
import shutil
import tarfile
import tempfile
import time
from collections.abc import Iterator
from contextlib import ExitStack, contextmanager, suppress
from dataclasses import dataclass
from pathlib import Path
from subprocess import DEVNULL, PIPE, Popen, run
from typing import IO, Any, Final, cast

from dolmetsch.command import paths
from dolmetsch.command.backups.sealing import seal
from dolmetsch.command.database import USER, Database
from dolmetsch.command.telling import TroubleError

FORMAT: Final = "dolmetsch-backup/1"
RECORDS: Final = "records.sql.gz"
SECRETS: Final = "secrets.sealed"
FOLDER: Final = paths.PRIVATE / "backups"
#: Tables whose rows let someone in on a device; only their shape is kept.
SESSIONS: Final = ("django_session", "access_signedindevice")
CHUNK: Final = 1 << 20


@dataclass(frozen=True, slots=True, kw_only=True)
class Part:
    """A file of a backup: its name there, and where its content lies."""

    name: str
    path: Path


def name_backup(why: str = "") -> Path:
    """A name for a backup of now in the folder of backups, which is made."""
    FOLDER.mkdir(parents=True, exist_ok=True, mode=0o700)
    stamp = time.strftime("%Y-%m-%d-%H%M%S")
    return FOLDER / f"{stamp}{f'-{why}' if why else ''}.tar"


def write_backup(into: Path, database: Database, *, passphrase: str = "") -> None:
    """Write a backup of ``database``; the file is there only once it is whole and on the disk.

    Raises:
        TroubleError: the file is there already, no room, or the dump failed.
    """
    if into.exists():
        raise TroubleError(f"{into} is there already; choose another name.")
    if not into.parent.is_dir():
        raise TroubleError(f"There is no folder {into.parent}.")
    fresh = into.with_name(f".{into.name}.new")
    try:
        with tempfile.TemporaryDirectory(dir=into.parent, prefix=".backup-") as folder:
            dumped = Path(folder) / RECORDS
            _dump(database, dumped)
            parts = [Part(name=RECORDS, path=dumped), *_list_photos()]
            if passphrase:
                sealed = Path(folder) / SECRETS
                sealed.write_bytes(seal((paths.PRIVATE / "secrets.json").read_bytes(), passphrase))
                parts.append(Part(name=SECRETS, path=sealed))
            _pack(fresh, parts, database)
        os.replace(fresh, into)
        _sync(into.parent)
    except OSError as error:
        raise TroubleError(f"The backup could not be written to {into.parent}: {error.strerror}.") from error
    finally:
        fresh.unlink(missing_ok=True)


def _dump(database: Database, into: Path) -> None:
    form = ("--default-character-set=utf8mb4", "--hex-blob", "--no-tablespaces")
    common, env = database.client("mariadb-dump", *form)
    look = ["--single-transaction", "--quick", "--skip-lock-tables", "--skip-dump-date"]
    # records of an older program have not all of them
    sessions = [table for table in SESSIONS if table in ask(database, f"SHOW TABLES FROM {USER}").split()]
    left_out = [f"--ignore-table={USER}.{table}" for table in sessions]
    with gzip.open(into, "wb", compresslevel=6) as out:
        commands = [[*common, *look, "--triggers", *left_out, USER]]
        if sessions:
            commands.append([*common, "--no-data", "--skip-dump-date", USER, *sessions])
        for command in commands:
            with tempfile.TemporaryFile() as said:
                process = Popen(command, stdin=DEVNULL, stdout=PIPE, stderr=said, env=env)
                with process:
                    if process.stdout is not None:
                        shutil.copyfileobj(process.stdout, out, CHUNK)
                said.seek(0)
                words = said.read().decode(errors="replace").strip()
            if process.returncode:
                raise TroubleError(f"mariadb-dump failed: {words}")


def _list_photos() -> Iterator[Part]:
    folder = paths.PRIVATE / "photos"
    for path in sorted(folder.rglob("*.jpg")) if folder.is_dir() else []:
        yield Part(name=f"photos/{path.relative_to(folder)}", path=path)


def _pack(into: Path, parts: list[Part], database: Database) -> None:
    files: dict[str, Any] = {}
    for part in parts:
        files[part.name] = {"bytes": part.path.stat().st_size, "sha256": digest_of(part.path)}
    manifest = {
        "format": FORMAT,
        "made_at": time.strftime("%Y-%m-%dT%H:%M:%SZ", time.gmtime()),
        "tables": list_migrations(database),
        "files": files,
    }
    with open(os.open(into, os.O_WRONLY | os.O_CREAT | os.O_TRUNC, 0o600), "wb") as out:
        with tarfile.open(fileobj=out, mode="w") as tar:
            _add(tar, "manifest.json", (json.dumps(manifest, indent=1) + "\n").encode())
            for part in parts:
                tar.add(part.path, arcname=part.name, filter=_plain)
        out.flush()
        os.fsync(out.fileno())


def _add(tar: tarfile.TarFile, name: str, content: bytes) -> None:
    info = tarfile.TarInfo(name)
    info.size, info.mode = len(content), 0o600
    tar.addfile(info, io.BytesIO(content))


def _plain(info: tarfile.TarInfo) -> tarfile.TarInfo:
    info.uid = info.gid = 0
    info.uname = info.gname = ""
    return info


def list_migrations(database: Database) -> list[str]:
    """The changes of tables that ``database`` has seen, as ``app.name``; none where it has no tables yet."""
    if not ask(database, f"SHOW TABLES FROM {USER} LIKE 'django_migrations'"):
        return []
    query = f"SELECT CONCAT(app, '.', name) FROM {USER}.django_migrations ORDER BY app, name"  # noqa: S608
    return ask(database, query).split()


def ask(database: Database, query: str) -> str:
    """What the record store answers, a row a line.

    Raises:
        TroubleError: there are no records.
    """
    command, env = database.client("mariadb", "--batch", "--skip-column-names", "-e", query)
    done = run(command, env=env, stdin=DEVNULL, capture_output=True, text=True, check=False)
    if done.returncode:
        raise TroubleError("There are no records here to back up; ./dolmetsch start makes them.")
    return done.stdout


def digest_of(path: Path) -> str:
    """SHA-256 of a file, in hexadecimal digits."""
    with path.open("rb") as content:
        return digest_stream(content)


def digest_stream(content: IO[bytes]) -> str:
    """SHA-256 of what is read, in hexadecimal digits."""
    found = hashlib.sha256()
    while chunk := content.read(CHUNK):
        found.update(chunk)
    return found.hexdigest()


def _sync(folder: Path) -> None:
    handle = os.open(folder, os.O_RDONLY)
    try:
        os.fsync(handle)
    finally:
        os.close(handle)


@contextmanager
def opened(file: Path) -> Iterator[tuple[tarfile.TarFile, dict[str, Any]]]:
    """A backup and its manifest, after every file in it was held against its sum.

    Raises:
        TroubleError: it is none, cut short, or changed.
    """
    with ExitStack() as held:
        try:
            tar = held.enter_context(tarfile.open(file, mode="r:"))
            manifest = _read_manifest(tar)
        except (tarfile.TarError, EOFError, ValueError, KeyError, TypeError, AttributeError) as error:
            said = f"{file} is no whole backup of Dolmetsch: it is cut short, or something else. ({error})"
            raise TroubleError(said) from error
        except OSError as error:
            raise TroubleError(f"{file} cannot be read: {error.strerror or error}.") from error
        yield tar, manifest


def _read_manifest(tar: tarfile.TarFile) -> dict[str, Any]:
    first = tar.next()
    if first is None or first.name != "manifest.json" or first.size > 100_000_000:
        raise ValueError("it has no manifest")
    held = tar.extractfile(first)
    manifest: dict[str, Any] = json.loads(held.read() if held else b"")
    if manifest["format"] != FORMAT:
        raise ValueError(f"its format is {manifest['format']}")
    expected = dict(manifest["files"])
    while (member := tar.next()) is not None:
        wanted = expected.pop(member.name, None)
        content = tar.extractfile(member) if member.isreg() else None
        if wanted is None or content is None:
            raise ValueError(f"{member.name} does not belong in it")
        if member.size != wanted["bytes"] or digest_stream(content) != wanted["sha256"]:
            raise ValueError(f"{member.name} was changed or cut short")
    if expected:
        raise ValueError(f"{next(iter(expected))} is missing")
    return manifest


def load_dump(database: Database, packed: IO[bytes]) -> None:
    """Load the records of a dump into ``database``, in place of what is there.

    Raises:
        TroubleError: they do not load.
    """
    command, env = database.client("mariadb", "--default-character-set=utf8mb4", USER)
    with tempfile.TemporaryFile() as said:
        with Popen(command, stdin=PIPE, stdout=DEVNULL, stderr=said, env=env) as process:
            try:
                with gzip.open(packed, "rb") as content, suppress(BrokenPipeError):
                    shutil.copyfileobj(content, cast("IO[bytes]", process.stdin), CHUNK)
            except (EOFError, gzip.BadGzipFile) as error:
                process.kill()
                raise TroubleError(f"The records in it are cut short: {error}") from error
        said.seek(0)
        words = said.read().decode(errors="replace").strip()
    if process.returncode:
        raise TroubleError(f"The records do not load: {words}")
