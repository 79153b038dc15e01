"""The simulated devices that start with the application: scale, cooker, chamber and label printer."""

import json
import os
import socket
from subprocess import Popen
from typing import Final

from dolmetsch.command import paths
from dolmetsch.command.children import end, spawn
from dolmetsch.command.database import find_free_port
from dolmetsch.command.telling import TroubleError, say

SCALE: Final = "bench"
COOKER: Final = "drum"
CHAMBER: Final = "loft"
#: Whose the simulated devices are: the demo's kitchen.
KITCHEN: Final = "salt-lantern"
#: Where a running start keeps the ports of its devices, for ./dolmetsch scale, cooker and chamber.
PORTS: Final = paths.PRIVATE / "devices.json"


class Devices:
    """Scale, cooker, chamber and label printer, each a process of its own on a port of loopback."""

    def __init__(self) -> None:
        self.ports = {name: find_free_port() for name in ("scale", "cooker", "chamber", "printer")}
        self.processes: dict[str, Popen[bytes]] = {}

    def environment(self) -> dict[str, str]:
        """What the server needs to know of them, beside the real ones that the operator names."""
        simulated = {
            "DOLMETSCH_SCALES": f"{KITCHEN}/{SCALE}=line:127.0.0.1:{self.ports['scale']}",
            "DOLMETSCH_COOKERS": f"{KITCHEN}/{COOKER}=line:127.0.0.1:{self.ports['cooker']}",
            "DOLMETSCH_CHAMBERS": f"{KITCHEN}/{CHAMBER}=line:127.0.0.1:{self.ports['chamber']}",
        }
        named = {name: os.environ.get(name, "") for name in simulated}
        devices = {name: ",".join(filter(None, (named[name], simulated[name]))) for name in simulated}
        printer = os.environ.get("DOLMETSCH_PRINTER") or f"127.0.0.1:{self.ports['printer']}"
        return {**devices, "DOLMETSCH_PRINTER": printer}

    def start(self) -> None:
        """Start those that do not run."""
        wanted = {
            "scale": ["--name", SCALE],
            "cooker": ["--name", COOKER],
            "chamber": ["--name", CHAMBER],
            "printer": ["--tray", str(paths.PRIVATE / "labels")],
        }
        for name, more in wanted.items():
            if name in self.processes and self.processes[name].poll() is None:
                continue
            command = [str(paths.PYTHON), "-m", f"dolmetsch.devices.{name}", "--port", str(self.ports[name])]
            env = {**os.environ, "PYTHONPATH": str(paths.ROOT / "src")}
            self.processes[name] = spawn([*command, *more], log=paths.LOGS / f"{name}.log", env=env)
        PORTS.write_text(json.dumps(self.ports))

    def find_ended(self) -> str | None:
        """The name of one that ended by itself; None while all run."""
        ended = (name for name, process in self.processes.items() if process.poll() is not None)
        return next(ended, None)

    def stop(self) -> None:
        """Stop them."""
        for process in self.processes.values():
            end(process, patience=3)
        PORTS.unlink(missing_ok=True)


def command_device(device: str, words: list[str]) -> None:
    """Send the running scale, cooker or chamber a command: ``put 2595``, ``silent 5``, ``meat 1 45``.

    Raises:
        TroubleError: none runs here, or it refuses.
    """
    if not PORTS.is_file():
        raise TroubleError(f"No {device} runs here: ./dolmetsch start has one.")
    port = json.loads(PORTS.read_text())[device]
    try:
        with socket.create_connection(("127.0.0.1", port), timeout=3) as line:
            line.sendall(f"{words[0].upper()} {' '.join(words[1:])}".strip().encode() + b"\n")
            answer = _await_answer(line)
    except OSError as error:
        raise TroubleError(f"The {device} does not answer: {error}.") from error
    if answer != "OK":
        raise TroubleError(f"The {device} refuses: {answer.removeprefix('NO ')}.")
    say("Done.")


def _await_answer(line: socket.socket) -> str:
    with line.makefile("r", encoding="utf-8") as heard:
        return next(answer.strip() for answer in heard if answer.startswith(("OK", "NO ")))
