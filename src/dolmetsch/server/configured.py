"""Devices as an operator names them: ``quay/bench=line:127.0.0.1:7401,quay/floor=…``."""

from typing import NamedTuple


class ConfiguredDevice(NamedTuple):
    """A device, the kitchen it belongs to (its slug), and how it is reached."""

    kitchen: str
    name: str
    kind: str
    address: str


def read_configured(setting: str) -> list[ConfiguredDevice]:
    """The devices of a setting; one without a kitchen is nobody's."""
    found = []
    for part in filter(None, setting.split(",")):
        whose, _, where = part.strip().partition("=")
        kitchen, _, name = whose.rpartition("/")
        kind, _, address = where.partition(":")
        found.append(ConfiguredDevice(kitchen, name, kind, address))
    return found
