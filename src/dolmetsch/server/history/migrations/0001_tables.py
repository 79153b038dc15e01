"""The tables of history."""

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models

from dolmetsch.server.quantities.tables import CreateTables


class Migration(migrations.Migration):
    replaces = [
        ('history', '0001_initial'),
    ]
    initial = True
    dependencies = [
        ('kitchens', '0001_tables'),
    ]

    operations = [
        CreateTables(
            migrations.CreateModel(
                name='HistoryFile',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('name', models.CharField(max_length=120)),
                    ('heads', models.JSONField()),
                    ('table', models.JSONField()),
                    ('rows_count', models.PositiveIntegerField()),
                    ('notes', models.JSONField(default=list)),
                    ('match', models.JSONField(default=dict)),
                    ('next_row', models.PositiveIntegerField(default=0)),
                    ('added', models.PositiveIntegerField(default=0)),
                    ('known', models.PositiveIntegerField(default=0)),
                    ('faulty', models.PositiveIntegerField(default=0)),
                    ('uploaded_at', models.DateTimeField()),
                    ('key', models.UUIDField()),
                    ('fingerprint', models.CharField(max_length=64)),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='kitchens.kitchen')),
                    ('uploaded_by', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL)),
                ],
                options={
                    'constraints': [
                        models.UniqueConstraint(fields=('kitchen', 'key'), name='history_file_key'),
                    ],
                },
            ),
            migrations.CreateModel(
                name='HistoryMatch',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('digest', models.CharField(max_length=64)),
                    ('match', models.JSONField()),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='+', to='kitchens.kitchen')),
                ],
                options={
                    'constraints': [
                        models.UniqueConstraint(fields=('kitchen', 'digest'), name='history_match_once'),
                    ],
                },
            ),
        ),
    ]
