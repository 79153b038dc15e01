"""The tables of fires."""

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models

from dolmetsch.server.quantities.tables import CreateTables, guarded


class Migration(migrations.Migration):
    replaces = [
        ('fires', '0001_initial'),
        ('fires', '0002_never_changed'),
        ('fires', '0003_collector_lease'),
        ('fires', '0004_latest_reading'),
    ]
    initial = True
    dependencies = [
        ('batches', '0001_tables'),
        ('kitchens', '0001_tables'),
    ]

    operations = [
        CreateTables(
            migrations.CreateModel(
                name='CollectorLease',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('name', models.CharField(max_length=40, unique=True)),
                    ('holder', models.CharField(max_length=80)),
                    ('until', models.DateTimeField()),
                ],
            ),
            migrations.CreateModel(
                name='Fire',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('recorded_at', models.DateTimeField()),
                    ('key', models.UUIDField()),
                    ('fingerprint', models.CharField(max_length=64)),
                    ('name', models.CharField(max_length=80)),
                    ('cooker', models.CharField(blank=True, max_length=40)),
                    ('meat', models.CharField(max_length=8)),
                    ('is_ground', models.BooleanField(default=False)),
                    ('nitrite_ppm', models.DecimalField(decimal_places=2, max_digits=8, null=True)),
                    ('wood', models.CharField(blank=True, max_length=80)),
                    ('program', models.CharField(blank=True, max_length=160)),
                    ('pull_at', models.DecimalField(decimal_places=3, max_digits=7, null=True)),
                    ('meal_at', models.DateTimeField(null=True)),
                    ('stages', models.JSONField()),
                    ('begun_at', models.DateTimeField()),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='kitchens.kitchen')),
                    ('recorded_by', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL)),
                ],
                options={
                    'constraints': [
                        models.UniqueConstraint(fields=('kitchen', 'key'), name='fire_key_once'),
                        models.CheckConstraint(condition=models.Q(('name', ''), _negated=True), name='fire_named'),
                        models.CheckConstraint(condition=models.Q(('meat__in', ('pork', 'beef', 'poultry', 'other'))), name='fire_meat'),
                    ],
                },
            ),
            migrations.CreateModel(
                name='FireEvent',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('recorded_at', models.DateTimeField()),
                    ('key', models.UUIDField()),
                    ('fingerprint', models.CharField(max_length=64)),
                    ('at', models.DateTimeField()),
                    ('kind', models.CharField(max_length=8)),
                    ('data', models.JSONField(default=dict)),
                    ('fire', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='events', to='fires.fire')),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='kitchens.kitchen')),
                    ('recorded_by', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL)),
                ],
                options={
                    'indexes': [
                        models.Index(fields=['fire', 'at', 'id'], name='fire_events'),
                    ],
                    'constraints': [
                        models.UniqueConstraint(fields=('kitchen', 'key'), name='fireevent_key_once'),
                        models.CheckConstraint(condition=models.Q(('kind__in', ('probe', 'swap', 'stage', 'instant', 'wrap', 'spritz', 'fuel', 'taste', 'tender', 'note', 'rest', 'hold', 'cool', 'done', 'quiet', 'import'))), name='fire_event_kind'),
                    ],
                },
            ),
            migrations.CreateModel(
                name='FirePiece',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('mark', models.CharField(db_collation='utf8mb4_bin', max_length=60)),
                    ('rack', models.PositiveSmallIntegerField(default=0)),
                    ('slot', models.PositiveSmallIntegerField(default=0)),
                    ('grams', models.DecimalField(decimal_places=12, max_digits=20, null=True)),
                    ('batch', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='batches.batch')),
                    ('fire', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='pieces', to='fires.fire')),
                ],
                options={
                    'constraints': [
                        models.UniqueConstraint(fields=('fire', 'batch', 'mark'), name='fire_piece_once'),
                    ],
                },
            ),
            migrations.CreateModel(
                name='ProbeReading',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('cooker', models.CharField(max_length=40)),
                    ('at', models.DateTimeField()),
                    ('values', models.JSONField()),
                    ('heard_at', models.DateTimeField()),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='kitchens.kitchen')),
                ],
                options={
                    'indexes': [
                        models.Index(fields=['kitchen', 'cooker', 'id'], name='probe_reading_latest'),
                    ],
                    'constraints': [
                        models.UniqueConstraint(fields=('kitchen', 'cooker', 'at'), name='probe_reading_once'),
                    ],
                },
            ),
            migrations.CreateModel(
                name='Program',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('recorded_at', models.DateTimeField()),
                    ('key', models.UUIDField()),
                    ('fingerprint', models.CharField(max_length=64)),
                    ('name', models.CharField(max_length=80)),
                    ('version', models.PositiveIntegerField()),
                    ('stages', models.JSONField()),
                    ('pull_at', models.DecimalField(decimal_places=3, max_digits=7, null=True)),
                    ('wood', models.CharField(blank=True, max_length=80)),
                    ('way', models.CharField(blank=True, max_length=80)),
                    ('is_put_away', models.BooleanField(default=False)),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='kitchens.kitchen')),
                    ('recorded_by', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL)),
                ],
                options={
                    'constraints': [
                        models.UniqueConstraint(fields=('kitchen', 'key'), name='program_key_once'),
                        models.UniqueConstraint(fields=('kitchen', 'name', 'version'), name='program_version_once'),
                        models.CheckConstraint(condition=models.Q(('name', ''), _negated=True), name='program_named'),
                    ],
                },
            ),
        ),
        *guarded(
            'fires_fire',
            'fires_fireevent',
            'fires_firepiece',
            'fires_program',
        ),
    ]
