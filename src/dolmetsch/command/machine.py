"""What this machine must have: Debian's packages, Node, the Python packages, the npm packages."""

import os
import shutil
import sys
import sysconfig
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from typing import Final

from dolmetsch.command import paths
from dolmetsch.command.holding import wait_for
from dolmetsch.command.telling import TroubleError, answer_of, must, say, step

SERVING: Final = (
    *("mariadb-server", "libmariadb-dev", "pkg-config", "gcc"),
    # what the printed sheets are drawn with
    *("libpango-1.0-0", "libpangoft2-1.0-0", "libharfbuzz0b", "libharfbuzz-subset0", "fontconfig"),
)
#: What a record store of several nodes needs too.
CLUSTERED: Final = ("galera-4", "mariadb-backup", "socat", "lsof", "haproxy")
TESTING: Final = ("chromium-headless-shell", *CLUSTERED)
DEBIANS_PYTHON: Final = "/usr/bin/python3"


def set_up(*, for_tests: bool, clustered: bool = False, meanwhile: Callable[[], None] = lambda: None) -> None:
    """Install what is missing, and build the web client where its sources changed; quick where nothing is.

    ``meanwhile``: what needs Debian's and the Python packages alone, done while the web client is built.

    Raises:
        TroubleError: something cannot be installed or built; says what to do.
    """
    paths.prepare()
    with wait_for("setup"), ThreadPoolExecutor(1) as beside:
        web = beside.submit(_make_web)
        more = TESTING if for_tests else CLUSTERED if clustered else ()
        _set_up_debian((*SERVING, *more))
        _set_up_python("requirements-test.txt" if for_tests else "requirements.txt")
        meanwhile()
        built = web.result()
        if built is not None:
            _put_web_in_place(built)


def _set_up_debian(wanted: tuple[str, ...]) -> None:
    headers = Path(sysconfig.get_path("include")) / "Python.h"
    packages = wanted if headers.is_file() else (*wanted, "python3-dev")
    missing = [package for package in packages if not _is_installed(package)]
    if not missing:
        return
    by_hand = f"apt-get update && apt-get install -y --no-install-recommends {' '.join(missing)}"
    if shutil.which("apt-get") is None:
        raise TroubleError(f"This is not Debian, and these are missing: {' '.join(missing)}.")
    sudo = [] if os.geteuid() == 0 else ["sudo"]
    if sudo and shutil.which("sudo") is None:
        raise TroubleError(f"Neither root nor sudo here. Ask someone who is to run:\n    {by_hand}")
    with step(f"Installing {', '.join(missing)} from Debian's packages (a minute or two)"):
        apt = [*sudo, "env", "DEBIAN_FRONTEND=noninteractive", "apt-get"]
        log = paths.LOGS / "apt.log"
        must([*apt, "update"], doing="apt-get update", log=log)
        must(
            [*apt, "install", "-y", "--no-install-recommends", *missing],
            doing=f"“{by_hand}”",
            log=log,
        )


def _is_installed(package: str) -> bool:
    state = answer_of(["dpkg-query", "-W", "-f=${db:Status-Abbrev}", package])
    return state is not None and state.startswith("ii")


def _set_up_python(lock: str) -> None:
    """The packages of ``lock``; those for tests have all of those that run."""
    marks = {
        name: paths.fingerprint([paths.ROOT / name], sys.version, str(paths.VENV))
        for name in {lock, "requirements-test.txt"}
    }
    if paths.PYTHON.exists() and any(paths.is_stamped("python", mark) for mark in marks.values()):
        return
    with step("Installing the Python packages"):
        uv = _set_up_uv()
        log = paths.LOGS / "python.log"
        shutil.rmtree(paths.VENV, ignore_errors=True)
        must([sys.executable, "-m", "venv", "--without-pip", str(paths.VENV)], doing="venv", log=log)
        env = {**os.environ, "VIRTUAL_ENV": str(paths.VENV), "UV_LINK_MODE": "copy"}
        must(
            [str(uv), "pip", "sync", "--system-certs", "--require-hashes", str(paths.ROOT / lock)],
            doing="uv",
            log=log,
            env=env,
        )
    paths.set_stamp("python", marks[lock])


def _set_up_uv() -> Path:
    folder = paths.PRIVATE / "uv"
    uv = folder / "bin" / "uv"
    locked = paths.ROOT / "requirements-uv.txt"
    mark = paths.fingerprint([locked])
    if uv.exists() and paths.is_stamped("uv", mark):
        return uv
    if not _has_pip(sys.executable) and not _has_pip(DEBIANS_PYTHON):
        _set_up_debian(("python3-pip",))
    python = sys.executable if _has_pip(sys.executable) else DEBIANS_PYTHON
    pip = [python, "-m", "pip", "install", "--quiet", "--upgrade", "--require-hashes"]
    log = paths.LOGS / "uv.log"
    must([*pip, "--target", str(folder), "-r", str(locked)], doing="pip install uv", log=log)
    paths.set_stamp("uv", mark)
    return uv


def _has_pip(python: str) -> bool:
    return answer_of([python, "-m", "pip", "--version"]) is not None


def can_build(version: str) -> bool:
    """Whether Node of ``version``, such as v20.19.4, builds the web client."""
    major, minor = (int(part) for part in version.lstrip("v").split(".")[:2])
    return major > 22 or (major, minor) >= (22, 12) or (major == 20 and minor >= 19)


def _set_up_node() -> None:
    version = answer_of(["node", "--version"])
    if version is None or not can_build(version) or shutil.which("npm") is None:
        found = "no Node" if version is None else f"Node {version}"
        raise TroubleError(
            f"Node 20.19, 22.12 or newer with npm is needed to build the web client; found {found}.\n"
            "    Install it (Debian: nodejs and npm of a release that carries it) and run this again."
        )
    files = [paths.WEB / "package.json", paths.WEB / "package-lock.json", paths.WEB / ".npmrc"]
    mark = paths.fingerprint(files, version)
    if (paths.WEB / "node_modules").is_dir() and paths.is_stamped("node", mark):
        return
    with step("Installing the web client's packages"):
        npm = ["npm", "ci", "--ignore-scripts", "--no-audit", "--no-fund"]
        must(npm, doing="npm ci", log=paths.LOGS / "npm.log", cwd=paths.WEB)
    paths.set_stamp("node", mark)


def _make_web() -> str | None:
    """The npm packages, and the client built into dist.new; its mark, or None where dist is up to date."""
    _set_up_node()
    sources = [path for path in paths.WEB.rglob("*") if path.is_file() and not _is_made(path)]
    # the one table that client and server share
    sources.append(paths.ROOT / "src/dolmetsch/server/quantities/countries.json")
    mark = paths.fingerprint(sources)
    if (paths.WEB / "dist" / "index.html").is_file() and paths.is_stamped("web", mark):
        return None
    with step("Building the web client"):
        npm = ["npm", "run", "build", "--", "--outDir", "dist.new", "--emptyOutDir"]
        must(npm, doing="vite build", log=paths.LOGS / "web.log", cwd=paths.WEB)
    return mark


def _put_web_in_place(mark: str) -> None:
    """Compress the built client for serving, and put it in the place of the one before."""
    dist = paths.WEB / "dist"
    fresh, old = dist.with_suffix(".new"), dist.with_suffix(".old")
    compress = [str(paths.PYTHON), "-m", "whitenoise.compress", "--quiet", str(fresh)]
    must(compress, doing="compressing", log=paths.LOGS / "compress.log")
    shutil.rmtree(old, ignore_errors=True)
    if dist.exists():
        dist.rename(old)
    fresh.rename(dist)
    shutil.rmtree(old, ignore_errors=True)
    paths.set_stamp("web", mark)
    say("The web client is built.")


def _is_made(path: Path) -> bool:
    """Whether ``path`` goes into no build: made by one, or a test."""
    top = path.relative_to(paths.WEB).parts[0]
    return top in ("node_modules", "dist", "dist.new", "dist.old") or path.name.endswith(".test.ts")
