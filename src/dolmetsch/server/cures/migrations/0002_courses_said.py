"""What was said at the desk a piece is to become is kept as its course."""

import uuid

from django.db import migrations

_COURSES = {"cold_smoked": "cold_smoked_raw", "air_dried": "air_dried"}


def state_courses(apps, schema_editor):
    """An entry for each piece that was said to be cold-smoked or air-dried; "cooked" was no choice of anyone."""
    cures = apps.get_model("cures", "PieceCure").objects.filter(taken_back=None).order_by("id")
    entries = apps.get_model("batches", "Entry").objects
    batches = apps.get_model("batches", "Batch").objects
    for cure in cures.iterator():
        course = _COURSES.get(cure.answer.get("finish"))
        if course is None:
            continue
        batch = batches.get(pk=cure.batch_id)
        entries.create(
            kitchen_id=batch.kitchen_id,
            batch=batch,
            sequence=batch.last_sequence + 1,
            act="course",
            marks=[cure.mark],
            course=course,
            happened_at=cure.in_at,
            recorded_at=cure.recorded_at,
            recorded_by_id=cure.recorded_by_id,
            key=uuid.uuid5(cure.key, f"course {cure.mark}"),
            fingerprint=cure.fingerprint,
        )
        batches.filter(pk=batch.pk).update(last_sequence=batch.last_sequence + 1)


class Migration(migrations.Migration):
    dependencies = [("cures", "0001_tables"), ("batches", "0002_course")]

    operations = [migrations.RunPython(state_courses, migrations.RunPython.noop)]
