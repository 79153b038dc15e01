"""Deep calls: chunks of frames are mapped once, not at every call."""

import resource
import sys

from django.conf import settings

from dolmetsch.server.config.room import answer_with_room, with_room


def descend(depth):
    """Many calls of a call, from ``depth`` calls deep: at some depth they cross the end of a chunk."""
    return descend(depth - 1) if depth else sum(one(at) for at in range(100))


def one(at):
    return other(at)


def other(at):
    return at


def faults_at_every_depth():
    """Pages asked of the system: of whichever depth it took the most."""
    most = 0
    for depth in range(300):
        before = resource.getrusage(resource.RUSAGE_THREAD).ru_minflt
        descend(depth)
        most = max(most, resource.getrusage(resource.RUSAGE_THREAD).ru_minflt - before)
    return most


def test_below_it_no_call_asks_the_system_for_room():
    if sys.version_info < (3, 12):
        # without it, at each of a hundred calls
        assert faults_at_every_depth() > 50
    with_room(faults_at_every_depth)()
    assert with_room(faults_at_every_depth)() < 25


def test_every_request_has_it():
    assert settings.MIDDLEWARE[0] == f"{answer_with_room.__module__}.{answer_with_room.__name__}"
    middleware = answer_with_room(lambda _request: faults_at_every_depth())
    middleware(None)
    assert middleware(None) < 25


def test_it_is_called_as_before():
    assert with_room(lambda one, *, two: (one, two))(1, two=2) == (1, 2)
