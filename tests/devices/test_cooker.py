"""The simulated cooker: its lines, its meat, its troubles, and what it remembers."""

from datetime import UTC, datetime, timedelta
from random import Random

import pytest

from dolmetsch.devices.cooker.lines import (
    CookerHello,
    CookerReading,
    RubbishError,
    read_line,
    write_hello,
    write_reading,
)
from dolmetsch.devices.cooker.meat import Cut, Slab
from dolmetsch.devices.cooker.simulated import SimulatedCooker
from dolmetsch.devices.cooker.source import LineCooker

NINE = datetime(2026, 11, 26, 9, tzinfo=UTC)


def test_lines_are_read_as_they_are_written():
    hello = CookerHello(name="drum", probes=8, is_simulated=True)
    reading = CookerReading(at=NINE, values={"air": "181.4", "1": "-2.5"})
    assert read_line(write_hello(hello)) == hello
    assert read_line(write_reading(reading)) == reading
    assert write_reading(reading) == "R 2026-11-26T09:00:00Z air=181.4 1=-2.5"
    assert read_line("NO such command") is None


@pytest.mark.parametrize(
    "line",
    [
        "",
        "#?&R 12:99",
        "R 2026-11-26T09:00:00Z",
        "R 2026-11-26T09:00:00Z 9=100",
        "R 2026-11-26T09:00:00Z 1=1001",
        "R 2026-11-26T09:00:00Z 1=-41",
        "R 2026-11-26T09:00:00Z 1=100 1=101",
        "R 2026-13-26T09:00:00Z 1=100",
        "R 2026-11-26T09:00:000 1=100",
        "COOKER 2 drum probes=8",
    ],
)
def test_anything_else_is_rubbish(line):
    with pytest.raises(RubbishError):
        read_line(line)


def cooker(**more):
    return SimulatedCooker(now=NINE, random=Random(3), **more)


def run(one, hours, step=30):
    for _ in range(int(hours * 3600 / step)):
        reading = one.go_on(step)
    return {name: float(text) for name, text in reading.values.items()}


def test_meat_lags_stalls_and_stops_stalling_when_it_is_wrapped():
    """A shoulder in air of 107 °C: slow at first, slowest above 60 °C, and quick again once it is wrapped."""
    cut = Cut(thickness=0.09)
    open_slab, wrapped = Slab.at(4, cut), Slab.at(4, cut)
    climbs = []
    for hour in range(14):
        before = open_slab.middle
        for slab in (open_slab, wrapped):
            if hour == 7:
                wrapped.is_wrapped = True
            slab.warm(3600, air=107)
        climbs.append(open_slab.middle - before)
    assert climbs[0] < max(climbs) > 3 * climbs[7]
    assert wrapped.middle > open_slab.middle + 8
    assert open_slab.lost > wrapped.lost


def test_the_thin_end_is_ahead_and_a_piece_in_ice_falls():
    one = cooker()
    for command in ("MEAT 1 50", "THIN 2 1", "SET 225"):
        assert one.do(command.split()) == "OK"
    values = run(one, 1.5)
    assert values["2"] > values["1"] + 5
    assert one.do(["ICE", "1"]) == "OK"
    assert run(one, 0.5)["1"] < values["1"] + 5
    assert run(one, 1.5)["1"] < 70


def test_carry_over_after_it_is_out():
    one = cooker()
    one.do(["MEAT", "1", "60"])
    one.do(["SET", "250"])
    hot = run(one, 2)["1"]
    one.do(["TAKE", "1"])
    assert run(one, 0.1)["1"] > hot


def test_the_fire_and_what_goes_wrong_with_it():
    one = cooker()
    one.do(["SET", "225"])
    assert run(one, 1.5)["air"] == pytest.approx(225, abs=15)
    one.do(["FIRE", "low"])
    assert run(one, 0.7)["air"] < 150
    one.do(["FIRE", "out"])
    assert run(one, 2)["air"] < 75
    one.do(["FIRE", "good"])
    run(one, 1.5)
    one.do(["DOOR", "open"])
    assert run(one, 0.2)["air"] < 150
    one.do(["DOOR", "closed"])
    one.do(["PROGRAM", "130/60", "200"])
    assert run(one, 0.95)["air"] == pytest.approx(130, abs=25)
    assert run(one, 1.5)["air"] == pytest.approx(200, abs=15)


def test_what_goes_wrong_with_probes():
    one = cooker()
    for command in ("MEAT 1 50", "MEAT 2 30", "SET 225"):
        one.do(command.split())
    before = run(one, 1)
    one.do(["SWAP", "1", "2"])
    after = run(one, 0.01)
    assert after["1"] == pytest.approx(before["2"], abs=3)
    one.do(["SWAP", "1", "2"])
    one.do(["OFFSET", "1", "20"])
    assert run(one, 0.01)["1"] == pytest.approx(before["1"] + 20, abs=3)
    one.do(["PULL", "2"])
    assert run(one, 0.01)["2"] == pytest.approx(run(one, 0.01)["air"], abs=5)
    one.do(["PUSH", "2"])
    one.do(["FAT", "2"])
    assert before["2"] < run(one, 0.01)["2"] < run(one, 0.01)["air"] - 30


@pytest.mark.parametrize(
    "command",
    [
        "",
        "BURN",
        "SPEED 0",
        "SPEED 601",
        "SPEED fast",
        "SET 10",
        "MEAT 9 40",
        "MEAT 1 5",
        "TAKE 1",
        "SWAP 1 2",
        "FIRE hot",
        "DOOR ajar",
        "PROGRAM",
        "GOT yesterday",
    ],
)
def test_a_command_it_cannot_do_says_so(command):
    assert cooker().do(command.split()).startswith("NO ")


def test_it_remembers_what_nobody_said_they_have():
    one = cooker()
    for _ in range(5):
        one.go_on(10)
    assert [reading.at.second for reading in one.list_since(NINE + timedelta(seconds=20))] == [30, 40, 50]
    assert one.do(["GOT", "2026-11-26T09:00:30Z"]) == "OK"
    assert [reading.at.second for reading in one.list_since(NINE)] == [40, 50]


def test_over_a_real_line_readings_silence_and_what_was_missed(cooker):
    source = LineCooker(f"127.0.0.1:{cooker}")
    for command in ("MEAT 1 40", "SPEED 600"):
        source.send(command)
    heard = []
    for one in source.listen():
        if isinstance(one, CookerHello | CookerReading):
            heard.append(one)
        if len(heard) == 3:
            break
    assert heard[0] == CookerHello(name="drum", probes=8, is_simulated=True)
    assert (heard[2].at - heard[1].at).total_seconds() == pytest.approx(600, abs=1)
    source.close()
    again = LineCooker(f"127.0.0.1:{cooker}")
    again.ask_since(heard[1].at)
    missed = next(one for one in again.listen() if isinstance(one, CookerReading))
    assert missed.at == heard[2].at
    again.close()


def test_a_recorded_log_is_played_back_at_its_own_pace(tmp_path):
    log = tmp_path / "night.csv"
    log.write_text(
        "time,1,air,lid\n2026-11-01T09:00:00Z,40.5,130,\n2026-11-01T09:00:30Z,,131,shut\n"
        "2026-11-01T09:01:00Z,41.5,132,\n"
    )
    cooker = SimulatedCooker(now=NINE, random=Random(1))
    assert cooker.do(["PLAY", str(log)]) == "OK"
    said = [cooker.go_on(20) for _ in range(4)]
    assert [one.values for one in said[:3]] == [
        {"1": "40.5", "air": "130"},
        {"air": "131"},
        {"1": "41.5", "air": "132"},
    ]
    assert [one.at for one in said] == [NINE + timedelta(seconds=20 * number) for number in (1, 2, 3, 4)]
    # it is over: the fire goes on
    assert said[3].values.keys() == {"air"}
    assert cooker.kept[0] is said[0]


@pytest.mark.parametrize(
    "text",
    [
        None,
        "",
        "time,1\n2026-11-01T09:00:00Z,40\n",
        "time,1\n2026-11-01T09:01:00Z,40\n2026-11-01T09:00:00Z,41\n",
        "time,1\nnoon,40\nlater,41\n",
        "hour,1\n9,40\n10,41\n",
    ],
)
def test_what_is_no_log_is_not_played(tmp_path, text):
    path = tmp_path / "night.csv"
    if text is not None:
        path.write_text(text)
    cooker = SimulatedCooker(now=NINE, random=Random(1))
    assert cooker.do(["PLAY", str(path)]).startswith("NO ")
    assert cooker.played is None
