"""The tables of diary."""

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models

from dolmetsch.server.quantities.tables import CreateTables, guarded


class Migration(migrations.Migration):
    replaces = [
        ('diary', '0001_initial'),
        ('diary', '0002_never_deleted'),
    ]
    initial = True
    dependencies = [
        ('batches', '0001_tables'),
        ('kitchens', '0001_tables'),
    ]

    operations = [
        CreateTables(
            migrations.CreateModel(
                name='Note',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('recorded_at', models.DateTimeField()),
                    ('key', models.UUIDField()),
                    ('fingerprint', models.CharField(max_length=64)),
                    ('mark', models.CharField(blank=True, db_collation='utf8mb4_bin', max_length=60)),
                    ('text', models.CharField(max_length=2000)),
                    ('happened_at', models.DateTimeField()),
                    ('batch', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='notes', to='batches.batch')),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='kitchens.kitchen')),
                    ('recorded_by', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL)),
                ],
                options={
                    'constraints': [
                        models.UniqueConstraint(fields=('kitchen', 'key'), name='note_key_once'),
                        models.CheckConstraint(condition=models.Q(('text', ''), _negated=True), name='note_said'),
                    ],
                },
            ),
            migrations.CreateModel(
                name='Photo',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('recorded_at', models.DateTimeField()),
                    ('key', models.UUIDField()),
                    ('fingerprint', models.CharField(max_length=64)),
                    ('mark', models.CharField(blank=True, db_collation='utf8mb4_bin', max_length=60)),
                    ('note', models.CharField(blank=True, max_length=200)),
                    ('digest', models.CharField(max_length=64)),
                    ('width', models.PositiveIntegerField()),
                    ('height', models.PositiveIntegerField()),
                    ('batch', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='photos', to='batches.batch')),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='kitchens.kitchen')),
                    ('recorded_by', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL)),
                ],
                options={
                    'indexes': [
                        models.Index(fields=['batch'], name='photos_of_batch'),
                    ],
                    'constraints': [
                        models.UniqueConstraint(fields=('kitchen', 'key'), name='photo_key_once'),
                    ],
                },
            ),
        ),
        *guarded(
            'diary_note',
            'diary_photo',
        ),
    ]
