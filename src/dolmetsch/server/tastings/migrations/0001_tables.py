"""The tables of tastings."""

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models

from dolmetsch.server.quantities.tables import CreateTables, guarded


class Migration(migrations.Migration):
    replaces = [
        ('tastings', '0001_initial'),
        ('tastings', '0002_never_changed'),
    ]
    initial = True
    dependencies = [
        ('batches', '0001_tables'),
        ('kitchens', '0001_tables'),
    ]

    operations = [
        CreateTables(
            migrations.CreateModel(
                name='Trial',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('recorded_at', models.DateTimeField()),
                    ('key', models.UUIDField()),
                    ('fingerprint', models.CharField(max_length=64)),
                    ('name', models.CharField(max_length=80)),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='kitchens.kitchen')),
                    ('recorded_by', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL)),
                ],
                options={
                    'constraints': [
                        models.UniqueConstraint(fields=('kitchen', 'key'), name='trial_key_once'),
                        models.CheckConstraint(condition=models.Q(('name', ''), _negated=True), name='trial_named'),
                    ],
                },
            ),
            migrations.CreateModel(
                name='Tasting',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('recorded_at', models.DateTimeField()),
                    ('key', models.UUIDField()),
                    ('fingerprint', models.CharField(max_length=64)),
                    ('token', models.CharField(db_collation='utf8mb4_bin', max_length=43, unique=True)),
                    ('closes_at', models.DateTimeField()),
                    ('codes', models.JSONField()),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='kitchens.kitchen')),
                    ('recorded_by', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL)),
                    ('trial', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='tastings', to='tastings.trial')),
                ],
                options={
                    'constraints': [
                        models.UniqueConstraint(fields=('kitchen', 'key'), name='tasting_key_once'),
                    ],
                },
            ),
            migrations.CreateModel(
                name='TrialSide',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('letter', models.CharField(max_length=1)),
                    ('mark', models.CharField(blank=True, db_collation='utf8mb4_bin', max_length=60)),
                    ('what', models.CharField(max_length=40)),
                    ('batch', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='batches.batch')),
                    ('trial', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='sides', to='tastings.trial')),
                ],
                options={
                    'constraints': [
                        models.UniqueConstraint(fields=('trial', 'letter'), name='trial_letter_once'),
                        models.UniqueConstraint(fields=('trial', 'batch', 'mark'), name='trial_side_once'),
                    ],
                },
            ),
            migrations.CreateModel(
                name='TastingSheet',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('taster', models.CharField(max_length=40)),
                    ('device', models.UUIDField()),
                    ('scores', models.JSONField()),
                    ('again', models.CharField(blank=True, max_length=1)),
                    ('recorded_at', models.DateTimeField()),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='kitchens.kitchen')),
                    ('tasting', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='sheets', to='tastings.tasting')),
                ],
                options={
                    'constraints': [
                        models.UniqueConstraint(fields=('tasting', 'device'), name='tasting_device_once'),
                    ],
                },
            ),
        ),
        *guarded(
            'tastings_tasting',
            'tastings_tastingsheet',
            'tastings_trial',
            'tastings_trialside',
        ),
    ]
