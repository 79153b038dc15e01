"""The tables of ways."""

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models

from dolmetsch.server.quantities.tables import CreateTables, guarded


class Migration(migrations.Migration):
    replaces = [
        ('ways', '0001_initial'),
        ('ways', '0002_never_deleted'),
        ('ways', '0003_input'),
    ]
    initial = True
    dependencies = [
        ('kitchens', '0001_tables'),
    ]

    operations = [
        CreateTables(
            migrations.CreateModel(
                name='Way',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('recorded_at', models.DateTimeField()),
                    ('key', models.UUIDField()),
                    ('fingerprint', models.CharField(max_length=64)),
                    ('name', models.CharField(max_length=80)),
                    ('version', models.PositiveIntegerField()),
                    ('input', models.JSONField()),
                    ('is_put_away', models.BooleanField(default=False)),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='ways', to='kitchens.kitchen')),
                    ('recorded_by', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL)),
                ],
                options={
                    'constraints': [
                        models.UniqueConstraint(fields=('kitchen', 'name', 'version'), name='way_version_once'),
                        models.UniqueConstraint(fields=('kitchen', 'key'), name='way_key'),
                        models.CheckConstraint(condition=models.Q(('name', ''), _negated=True), name='way_named'),
                    ],
                },
            ),
        ),
        *guarded(
            'ways_way',
        ),
    ]
