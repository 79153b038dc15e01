"""The tables of practice."""

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models

from dolmetsch.server.quantities.tables import CreateTables, guarded


class Migration(migrations.Migration):
    replaces = [
        ('practice', '0001_initial'),
        ('practice', '0002_never_changed'),
    ]
    initial = True
    dependencies = [
        ('kitchens', '0001_tables'),
    ]

    operations = [
        CreateTables(
            migrations.CreateModel(
                name='PracticeRun',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('recorded_at', models.DateTimeField()),
                    ('key', models.UUIDField()),
                    ('fingerprint', models.CharField(max_length=64)),
                    ('lesson', models.CharField(max_length=40)),
                    ('seed', models.PositiveIntegerField()),
                    ('speed', models.PositiveSmallIntegerField()),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='kitchens.kitchen')),
                    ('recorded_by', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL)),
                ],
                options={
                    'constraints': [
                        models.UniqueConstraint(fields=('kitchen', 'key'), name='practicerun_key_once'),
                    ],
                },
            ),
            migrations.CreateModel(
                name='PracticeAct',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('recorded_at', models.DateTimeField()),
                    ('key', models.UUIDField()),
                    ('fingerprint', models.CharField(max_length=64)),
                    ('seconds', models.PositiveIntegerField()),
                    ('kind', models.CharField(max_length=8)),
                    ('data', models.JSONField(default=dict)),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='kitchens.kitchen')),
                    ('recorded_by', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL)),
                    ('run', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='acts', to='practice.practicerun')),
                ],
                options={
                    'indexes': [
                        models.Index(fields=['run', 'seconds', 'id'], name='practice_acts'),
                    ],
                    'constraints': [
                        models.UniqueConstraint(fields=('kitchen', 'key'), name='practiceact_key_once'),
                    ],
                },
            ),
        ),
        *guarded(
            'practice_practiceact',
            'practice_practicerun',
        ),
    ]
