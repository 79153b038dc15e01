"""Where things lie. All that the command makes is below .dolmetsch/ and web/, ignored by git."""

import hashlib
import json
import os
import secrets
from collections.abc import Iterable
from pathlib import Path
from typing import Final

ROOT: Final = Path(__file__).resolve().parents[3]
PRIVATE: Final = ROOT / ".dolmetsch"
WEB: Final = ROOT / "web"
VENV: Final = PRIVATE / "venv"
PYTHON: Final = VENV / "bin" / "python"
LOGS: Final = PRIVATE / "logs"
#: Where the application and MariaDB listen, unless set otherwise.
PORT: Final = 8137
DB_PORT: Final = 33137
#: What drives pages in tests, benchmarks and for the pictures of the docs: no windows, half the work.
BROWSER: Final = "/usr/bin/chromium-headless-shell"


def prepare() -> None:
    """Make the private folder."""
    for folder in (PRIVATE, PRIVATE / "stamps", LOGS):
        folder.mkdir(parents=True, exist_ok=True)


def fingerprint(files: Iterable[Path], *also: str) -> str:
    """SHA-256 over names and contents of ``files`` and the words ``also``."""
    found = hashlib.sha256()
    for path in sorted(files):
        found.update(f"{path.relative_to(ROOT)}\0".encode() + path.read_bytes() + b"\0")
    for word in also:
        found.update(word.encode() + b"\0")
    return found.hexdigest()


def is_stamped(name: str, mark: str) -> bool:
    """Whether step ``name`` was last done for ``mark``."""
    stamp = PRIVATE / "stamps" / name
    return stamp.is_file() and stamp.read_text() == mark


def set_stamp(name: str, mark: str) -> None:
    """Remember that step ``name`` was done for ``mark``."""
    (PRIVATE / "stamps" / name).write_text(mark)


def get_secret(name: str) -> str:
    """A random secret of this checkout, made at first use and kept readable to its owner alone."""
    known = read_secrets()
    if name not in known:
        known[name] = secrets.token_urlsafe(40)
        keep_secrets(known)
    return known[name]


def read_secrets() -> dict[str, str]:
    """The secrets of this checkout so far."""
    path = PRIVATE / "secrets.json"
    known: dict[str, str] = json.loads(path.read_text()) if path.is_file() else {}
    return known


def keep_secrets(known: dict[str, str]) -> None:
    """Keep ``known`` as the secrets of this checkout, readable to its owner alone."""
    path = PRIVATE / "secrets.json"
    fresh = path.with_suffix(".new")
    fresh.touch(mode=0o600)
    fresh.write_text(json.dumps(known))
    os.replace(fresh, path)
