"""The tables of hooks."""

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models

from dolmetsch.server.quantities.tables import CreateTables, guarded


class Migration(migrations.Migration):
    replaces = [
        ('hooks', '0001_initial'),
        ('hooks', '0002_never_changed'),
    ]
    initial = True
    dependencies = [
        ('batches', '0001_tables'),
        ('kitchens', '0001_tables'),
    ]

    operations = [
        CreateTables(
            migrations.CreateModel(
                name='Hook',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('recorded_at', models.DateTimeField()),
                    ('key', models.UUIDField()),
                    ('fingerprint', models.CharField(max_length=64)),
                    ('mark', models.CharField(db_collation='utf8mb4_bin', max_length=60)),
                    ('green_grams', models.DecimalField(decimal_places=12, max_digits=20)),
                    ('green_typed', models.CharField(max_length=40)),
                    ('target_loss', models.DecimalField(decimal_places=8, max_digits=9)),
                    ('hung_at', models.DateTimeField()),
                    ('chamber', models.CharField(blank=True, max_length=40)),
                    ('cell', models.CharField(blank=True, max_length=1)),
                    ('batch', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='hooks', to='batches.batch')),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='kitchens.kitchen')),
                    ('recorded_by', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL)),
                ],
                options={
                    'constraints': [
                        models.UniqueConstraint(fields=('kitchen', 'key'), name='hook_key_once'),
                        models.CheckConstraint(condition=models.Q(('green_grams__isnull', True), models.Q(('green_grams__gt', 0), ('green_grams__lte', 5000000)), _connector='OR'), name='hook_green'),
                        models.CheckConstraint(condition=models.Q(('target_loss__gt', 0), ('target_loss__lt', 1)), name='hook_target'),
                    ],
                },
            ),
            migrations.CreateModel(
                name='HookNote',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('recorded_at', models.DateTimeField()),
                    ('key', models.UUIDField()),
                    ('fingerprint', models.CharField(max_length=64)),
                    ('at', models.DateTimeField()),
                    ('kind', models.CharField(max_length=8)),
                    ('data', models.JSONField(default=dict)),
                    ('hook', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='notes', to='hooks.hook')),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='kitchens.kitchen')),
                    ('recorded_by', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL)),
                ],
                options={
                    'indexes': [
                        models.Index(fields=['hook', 'at', 'id'], name='hook_notes'),
                    ],
                    'constraints': [
                        models.UniqueConstraint(fields=('kitchen', 'key'), name='hooknote_key_once'),
                        models.CheckConstraint(condition=models.Q(('kind__in', ('air', 'ph', 'ferment', 'cut', 'down'))), name='hook_note_kind'),
                    ],
                },
            ),
        ),
        *guarded(
            'hooks_hook',
            'hooks_hooknote',
        ),
    ]
