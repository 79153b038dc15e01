"""The simulated chamber: its air, its load cells, its troubles; and readings that cannot be."""

from datetime import UTC, datetime
from random import Random

import pytest

from dolmetsch.devices.chamber.simulated import SimulatedChamber
from dolmetsch.devices.cooker.lines import CookerHello, CookerReading, RubbishError, read_line, write_reading
from dolmetsch.devices.cooker.source import LineCooker
from tests.devices.conftest import start_device, stop_device

NINE = datetime(2026, 11, 1, 9, tzinfo=UTC)


@pytest.fixture
def chamber():
    return SimulatedChamber(now=NINE, random=Random(5))


def run(chamber, hours, *, step=600):
    for _ in range(int(hours * 3600 / step)):
        reading = chamber.go_on(step)
    return {name: float(text) for name, text in reading.values.items()}


def test_a_chambers_lines_carry_humidity_and_weights():
    reading = CookerReading(at=NINE, values={"air": "55.1", "humidity": "76.2", "w1": "1520.5"})
    assert read_line(write_reading(reading)) == reading


@pytest.mark.parametrize("value", ["humidity=140", "humidity=-1", "w1=100001", "w9=10", "w1=-5"])
def test_what_no_chamber_reads_is_rubbish(value):
    with pytest.raises(RubbishError):
        read_line(f"R 2026-11-26T09:00:00Z {value}")


def test_a_piece_on_a_load_cell_dries_and_drier_air_dries_it_faster(chamber):
    assert chamber.do(["HANG", "1", "1640"]) == "OK"
    month = run(chamber, 24 * 30)["w1"]
    assert 0.6 * 1640 < month < 0.75 * 1640
    dry = SimulatedChamber(now=NINE, random=Random(5))
    for command in (["HANG", "1", "1640"], ["HUMIDITY", "60"]):
        dry.do(command)
    assert run(dry, 24 * 30)["w1"] < month - 100
    chamber.do(["OFF", "1"])
    assert "w1" not in run(chamber, 1)


def test_the_room_comes_in_by_the_door_and_where_the_humidifier_is_out(chamber):
    chamber.do(["DOOR", "open"])
    after = run(chamber, 2)
    assert after["air"] > 60
    assert after["humidity"] < 60
    chamber.do(["DOOR", "closed"])
    assert abs(run(chamber, 6)["air"] - 55) < 1
    chamber.do(["HUMIDIFIER", "out"])
    assert run(chamber, 6)["humidity"] < 50


def test_it_is_silent_sends_rubbish_and_forgets_what_is_kept(chamber):
    chamber.do(["SILENT", "60"])
    assert chamber.is_silent()
    chamber.do(["RUBBISH", "60"])
    assert chamber.is_rubbish()
    run(chamber, 1)
    assert not chamber.is_silent()
    assert not chamber.is_rubbish()
    assert len(chamber.list_since(NINE)) == 6
    chamber.do(["GOT", chamber.now.isoformat()])
    assert chamber.list_since(NINE) == []


@pytest.mark.parametrize(
    "words",
    [
        ["HANG", "9", "100"],
        ["HANG", "1", "5"],
        ["OFF", "3"],
        ["SPEED", "601"],
        ["SET", "200"],
        ["HUMIDITY", "140"],
        ["DOOR", "ajar"],
        ["FAN", "fast"],
        ["WHISTLE"],
        [],
    ],
)
def test_what_it_cannot_do_it_refuses(chamber, words):
    assert chamber.do(words).startswith("NO ")


def test_it_speaks_on_a_port_as_a_cooker_does():
    process, port = start_device("chamber", "--name", "loft", "--seed", "3")
    try:
        source = LineCooker(f"127.0.0.1:{port}")
        source.send("SPEED 600")
        found = []
        for one in source.listen():
            found.append(one)
            if isinstance(one, CookerReading):
                break
        source.close()
    finally:
        stop_device(process)
    assert isinstance(found[0], CookerHello)
    assert set(found[-1].values) == {"air", "humidity"}
