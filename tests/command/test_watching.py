"""The watch: what ends is started again with growing pauses, and nothing that fails ends the watch."""

import signal
import subprocess
import sys
import time
from itertools import pairwise

import pytest

from dolmetsch.command.children import end_orphans
from dolmetsch.command.telling import TroubleError
from dolmetsch.command.watching import (
    FIRST_PAUSE,
    LONGEST_PAUSE,
    LONGEST_REST,
    WELL_AFTER,
    Watched,
    look_after,
)
from tests.waiting import LONGEST


class Clock:
    def __init__(self):
        self.at = 1000.0

    def __call__(self):
        return self.at


class Thing:
    """Something to run; its next ``failing`` starts fail."""

    def __init__(self, failing=0, error=None):
        self.has_ended, self.failing, self.starts = True, failing, 0
        self.error = error or TroubleError("the port is taken")

    def start(self):
        self.starts += 1
        if self.failing:
            self.failing -= 1
            raise self.error
        self.has_ended = False


def watched(thing, clock, name="it"):
    return Watched(name=name, has_ended=lambda: thing.has_ended, start=thing.start, up_since=clock())


def test_what_has_ended_is_started_at_once_and_what_runs_is_left_alone():
    clock, thing = Clock(), Thing()
    one = watched(thing, clock)
    for _ in range(3):
        look_after([one], now=clock)
    assert (thing.starts, thing.has_ended) == (1, False)


@pytest.mark.parametrize("error", [TroubleError("no room"), OSError("no such file")])
def test_a_start_that_fails_is_tried_again_with_growing_pauses_for_as_long_as_it_takes(error):
    clock, thing = Clock(), Thing(failing=9, error=error)
    one = watched(thing, clock)
    tried = []
    while thing.has_ended:
        before = thing.starts
        look_after([one], now=clock)
        if thing.starts > before:
            tried.append(clock.at)
        clock.at += 0.5
    pauses = [later - earlier for earlier, later in pairwise(tried)]
    assert pauses == [1, 2, 4, 8, 16, 32, 60, 60, 60]
    assert (FIRST_PAUSE, LONGEST_PAUSE) == (1, 60)


def test_one_that_cannot_come_up_keeps_no_other_down(capsys):
    clock, broken, fine = Clock(), Thing(failing=99), Thing()
    look_after([watched(broken, clock, "MariaDB"), watched(fine, clock, "The application")], now=clock)
    assert (broken.has_ended, fine.has_ended) == (True, False)
    said = capsys.readouterr().out
    assert "MariaDB did not come up; trying again in 1 s. the port is taken" in said
    assert "The application is back." in said


def test_one_that_ends_over_and_over_waits_longer_until_it_has_run_well_for_a_while():
    clock, thing = Clock(), Thing()
    one = watched(thing, clock)
    look_after([one], now=clock)
    thing.has_ended = True
    look_after([one], now=clock)
    assert thing.starts == 1
    clock.at += 1
    look_after([one], now=clock)
    assert (thing.starts, one.pause) == (2, 4)
    for _ in range(3):
        clock.at, thing.has_ended = clock.at + LONGEST_REST, True
        look_after([one], now=clock)
    assert (thing.starts, one.pause) == (5, LONGEST_REST)
    clock.at += WELL_AFTER + 1
    look_after([one], now=clock)
    assert one.pause == FIRST_PAUSE


def test_orphans_are_ended_by_their_own_pid_even_those_that_do_not_listen():
    mark = f"dolmetsch-orphan-{time.time_ns()}"
    deaf = (
        "import signal, sys, time; signal.signal(signal.SIGTERM, signal.SIG_IGN); print(1, "
        "flush=True); time.sleep(60)"
    )
    orphan = subprocess.Popen([sys.executable, "-c", deaf, mark, "--bind", ":1"], stdout=subprocess.PIPE)
    other = subprocess.Popen([sys.executable, "-c", deaf, mark], stdout=subprocess.PIPE)
    try:
        for process in (orphan, other):
            process.stdout.readline()
        end_orphans(mark, ":1")
        assert orphan.wait(timeout=LONGEST) == -signal.SIGKILL
        assert other.poll() is None
    finally:
        for process in (orphan, other):
            process.kill()
            process.wait()
            process.stdout.close()
