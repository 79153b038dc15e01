"""Saving a way: a new version each time."""

from dolmetsch.server.problems import refuse_fields
from dolmetsch.server.ways.models import Way
from dolmetsch.server.ways.reading import read_way
from dolmetsch.server.ways.schemas import WayIn
from dolmetsch.server.writing.kept import next_version
from dolmetsch.server.writing.once import Write, keep_once


def save_way(write: Write, data: WayIn) -> Way:
    """Save the next version of a way; a resend of the same key saves nothing.

    Raises:
        DomainError: bad_fields, key_reused.
    """
    return keep_once(write, Way, lambda: _save(write, data))


def _save(write: Write, data: WayIn) -> Way:
    name, version = next_version(write, Way, data.name)
    read = read_way(write.kitchen, data)
    if read.reader.problems:
        raise refuse_fields(read.reader.problems)
    return Way.objects.create(
        name=name,
        version=version,
        input=data.model_dump(mode="json"),
        is_put_away=data.put_away,
        **write.stamp,
    )
