"""Devices as an operator names them: ``quay/bench=line:127.0.0.1:7401,quay/floor=…``."""

from collections.abc import Collection
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


def list_names(setting: str, kitchen: str) -> list[str]:
    """The names of the devices of ``kitchen`` (its slug), in their order."""
    return [one.name for one in read_configured(setting) if one.kitchen == kitchen]


def find_configured(
    setting: str, kitchen: str, name: str, *, kinds: Collection[str]
) -> ConfiguredDevice | None:
    """The device ``name`` of ``kitchen`` (its slug), reached in one of ``kinds``; None: there is none."""
    return next(
        (
            one
            for one in read_configured(setting)
            if (one.kitchen, one.name) == (kitchen, name) and one.kind in kinds
        ),
        None,
    )
