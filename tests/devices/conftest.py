"""A simulated scale and a label printer, each a real process on a real port."""

import os
import socket
import subprocess
import sys
import time
from contextlib import closing

import pytest

from dolmetsch.command.database import find_free_port


def wait_for_port(port):
    deadline = time.monotonic() + 10
    while time.monotonic() < deadline:
        with closing(socket.socket()) as probe:
            if probe.connect_ex(("127.0.0.1", port)) == 0:
                return
        time.sleep(0.05)
    raise AssertionError(f"nothing listens on {port}")


def start_device(name, *more):
    port = find_free_port()
    command = [sys.executable, "-m", f"dolmetsch.devices.{name}", "--port", str(port), *more]
    process = subprocess.Popen(command, env={**os.environ, "PYTHONPATH": "src"})
    wait_for_port(port)
    return process, port


def stop_device(process):
    process.terminate()
    process.wait(timeout=5)


@pytest.fixture(scope="module")
def scale():
    """The port of a simulated scale that shows steps of 5 g."""
    process, port = start_device("scale", "--name", "bench")
    yield port
    stop_device(process)


@pytest.fixture(scope="module")
def printer(tmp_path_factory):
    """The port of a simulated label printer, and its tray."""
    tray = tmp_path_factory.mktemp("tray")
    process, port = start_device("printer", "--tray", str(tray))
    yield port, tray
    stop_device(process)


@pytest.fixture
def cooker():
    """The port of a simulated cooker, cold and empty."""
    process, port = start_device("cooker", "--name", "drum", "--seed", "7")
    yield port
    stop_device(process)
