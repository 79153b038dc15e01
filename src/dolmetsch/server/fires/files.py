"""A fire as a file to take away."""

import json
from typing import Final, Literal

from dolmetsch.core.documents.cook_document import write_cook_document, write_readings_csv
from dolmetsch.server.fires.models import Fire
from dolmetsch.server.fires.story import build_log, list_readings, read_story

FileForm = Literal["json", "csv"]
CONTENT_TYPES: Final[dict[FileForm, str]] = {
    "json": "application/json",
    "csv": "text/csv; charset=utf-8",
}


def write_file(fire: Fire, form: FileForm) -> bytes:
    """The cook log document of a fire (``json``), or its readings (``csv``)."""
    story = read_story(fire)
    log = build_log(story, list_readings(story))
    if form == "csv":
        return write_readings_csv(log).encode()
    return json.dumps(write_cook_document(log), ensure_ascii=False, indent=1).encode()
