"""The simulated scale: as a platform by itself, and over a real socket; its lines, and what is none."""

import socket
import threading
import time
from decimal import Decimal as D

import pytest
from hypothesis import given
from hypothesis import strategies as st

from dolmetsch.devices.lines import Hello, RubbishError, ScaleReading, read_line, write_reading
from dolmetsch.devices.scale import STEADY_AFTER, Platform
from dolmetsch.devices.sources import LineScale
from tests.waiting import LONGEST


def platform(**more):
    return Platform(step=D(5), most=D(15_000), seed=7, **more)


def test_it_swings_in_and_settles_within_a_step():
    scale = platform()
    scale.put(2595, now=100)
    early = [scale.read(100 + tenth / 10) for tenth in range(10)]
    assert not any(reading.is_steady for reading in early)
    assert max(abs(reading.net - 2595) for reading in early) > 500
    late = [scale.read(100 + STEADY_AFTER + 2 + tenth / 10) for tenth in range(200)]
    assert all(reading.is_steady and abs(reading.net - 2595) <= 5 for reading in late)
    assert {reading.net % 5 for reading in late} == {0}


def test_a_load_on_a_step_is_shown_as_it_is_and_one_between_two_wavers():
    scale = platform()
    scale.put(2595, now=0)
    assert {scale.read(10 + tenth / 10).net for tenth in range(3000)} == {2595}
    scale.put(2597.5, now=400)
    assert {scale.read(410 + tenth / 10).net for tenth in range(3000)} == {2595, 2600}


def test_tare_makes_what_lies_on_it_nothing_and_lifting_it_less_than_nothing():
    scale = platform()
    scale.put(190, now=0)
    scale.set_tare(now=10)
    assert (scale.tare, abs(scale.read(20).net) <= 5) == (190, True)
    scale.put(0, now=30)
    assert scale.read(40).net < -150
    scale.clear_tare()
    assert abs(scale.read(41).net) <= 5


def test_too_much_is_no_weight():
    scale = platform()
    scale.put(40_000, now=0)
    assert scale.read(10).is_over
    assert write_reading(scale.read(10)) == "OVER"


@given(st.integers(-99_999, 9_999_999), st.integers(0, 99_999), st.booleans())
def test_a_reading_reads_back_as_it_was_written(tenths, tare, is_steady):
    reading = ScaleReading(net=D(tenths) / 10, tare=D(tare) / 10, is_steady=is_steady)
    assert read_line(write_reading(reading)) == reading


@pytest.mark.parametrize(
    ("line", "grams"),
    [("W 1 kg steady", 1000), ("W 2 lb moving", D("907.18474")), ("W 16 oz steady", D("453.59237"))],
)
def test_other_units_are_read_exactly(line, grams):
    assert read_line(line).net == grams


@pytest.mark.parametrize(
    "line",
    ["", "W", "W x g steady", "W 1 st steady", "W 1e3 g steady", "SCALE 2 b step=1 max=2", "W " + "9" * 40],
)
def test_rubbish_is_told_apart(line):
    with pytest.raises(RubbishError):
        read_line(line)


def test_a_command_arrives_though_what_the_scale_said_was_never_read():
    with socket.create_server(("127.0.0.1", 0)) as server:
        source = LineScale(f"127.0.0.1:{server.getsockname()[1]}")
        connection, _ = server.accept()
        connection.sendall(b"W 5.0 g steady\n" * 50)
        source.send("TARE")
        closing = threading.Thread(target=source.close)
        closing.start()
        for _ in range(3):  # a device that speaks before it listens; a reset would fail it here
            time.sleep(0.1)
            connection.sendall(b"W 5.0 g steady\n")
        assert connection.makefile().readline() == "TARE\n"
        connection.close()
        closing.join(LONGEST)


def hear(source, until, *, patience=LONGEST):
    """What the scale says, until something is true of it."""
    heard, deadline = [], time.monotonic() + patience
    for answer in source.listen():
        heard.append(answer)
        if until(answer) or time.monotonic() > deadline:
            return heard
    return heard


@pytest.fixture
def line(scale):
    source = LineScale(f"127.0.0.1:{scale}")
    source.send("TAKE")
    source.send("CLEAR")
    yield source
    source.close()


def is_steady_near(grams):
    return lambda answer: (
        isinstance(answer, ScaleReading) and answer.is_steady and abs(answer.net - grams) <= 5
    )


def test_over_a_socket_it_says_who_it_is_and_several_times_a_second_what_it_weighs(line):
    line.send("PUT 2595")
    begun = time.monotonic()
    heard = hear(line, is_steady_near(2595))
    assert is_steady_near(2595)(heard[-1])
    (hello,) = [answer for answer in heard if isinstance(answer, Hello)]
    assert (hello.name, hello.step, hello.is_simulated) == ("bench", 5, True)
    readings = [answer for answer in heard if isinstance(answer, ScaleReading)]
    assert len(readings) / (time.monotonic() - begun) > 4


def test_over_a_socket_it_is_tared_and_overloaded(line):
    line.send("PUT 190")
    hear(line, is_steady_near(190))
    line.send("TARE")
    assert hear(line, lambda answer: isinstance(answer, ScaleReading) and answer.tare > 180)[-1].net <= 5
    line.send("PUT 99999")
    assert hear(line, lambda answer: isinstance(answer, ScaleReading) and answer.is_over)[-1].is_over


def test_it_falls_silent_and_sends_rubbish_when_told(line):
    line.send("SILENT 1.2")
    assert None in hear(line, lambda answer: answer is None)
    line.send("RUBBISH 3")
    assert isinstance(hear(line, lambda answer: isinstance(answer, ValueError))[-1], ValueError)


def test_a_command_it_does_not_know_is_refused_and_nothing_breaks(line):
    line.send("DANCE")
    line.send("PUT a lot")
    line.send("PUT 500")
    assert is_steady_near(500)(hear(line, is_steady_near(500))[-1])


def test_where_nothing_listens_is_said():
    with pytest.raises(OSError, match="refused"):
        LineScale("127.0.0.1:1")
