"""Cook documents written short, for tests."""

import json
from datetime import UTC, datetime, timedelta

from dolmetsch.core.documents.answers import answer_cook

NOON = datetime(2026, 11, 26, 12, tzinfo=UTC)


def at(minutes):
    """So many minutes after noon, as a document has it."""
    return (NOON + timedelta(minutes=float(minutes))).strftime("%Y-%m-%dT%H:%M:%SZ")


def readings(*rows):
    """``(minutes, inside, air)`` or ``(minutes, {probe: value})`` as readings of probe 1 and the air."""
    found = []
    for row in rows:
        values = row[1] if isinstance(row[1], dict) else dict(zip(("1", "air"), row[1:], strict=False))
        found.append({"at": at(row[0]), **{name: str(value) for name, value in values.items()}})
    return found


def phase(kind, start=0, end=None):
    return {"kind": kind, "from": at(start), "to": None if end is None else at(end)}


def document(*rows, probes=("1",), **more):
    listed = [probe if isinstance(probe, dict) else {"id": probe, "piece": f"P{probe}"} for probe in probes]
    return {
        "format": "dolmetsch-cook/1",
        "unit": "F",
        "meat": "pork",
        "probes": [*listed, {"id": "air", "role": "air"}],
        "readings": readings(*rows),
        **more,
    }


def cook(*rows, **more):
    return answer_cook(json.dumps(document(*rows, **more)))


def troubles(answer, code):
    return [one for one in answer["troubles"] if one["code"] == code]
