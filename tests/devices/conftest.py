"""A simulated scale and a label printer, each a real process on a real port."""

import os
import socket
import subprocess
import sys
from contextlib import closing

import pytest

from dolmetsch.command.database import find_free_port
from tests.waiting import LONGEST, wait_for


def wait_for_port(port):
    def answers():
        with closing(socket.socket()) as probe:
            return probe.connect_ex(("127.0.0.1", port)) == 0

    wait_for(answers, f"something to listen on {port}")


def start_device(name, *more):
    port = find_free_port()
    command = [sys.executable, "-m", f"dolmetsch.devices.{name}", "--port", str(port), *more]
    process = subprocess.Popen(command, env={**os.environ, "PYTHONPATH": "src"})
    wait_for_port(port)
    return process, port


def stop_device(process):
    process.terminate()
    process.wait(timeout=LONGEST)


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
