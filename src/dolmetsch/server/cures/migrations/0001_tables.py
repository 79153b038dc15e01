"""The tables of cures."""

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models

from dolmetsch.server.quantities.tables import CreateTables, guarded


class Migration(migrations.Migration):
    replaces = [
        ('cures', '0001_initial'),
        ('cures', '0002_never_deleted'),
        ('cures', '0003_input'),
        ('cures', '0004_kept_answers'),
    ]
    initial = True
    dependencies = [
        ('batches', '0001_tables'),
        ('kitchens', '0001_tables'),
    ]

    operations = [
        CreateTables(
            migrations.CreateModel(
                name='CureRecipe',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('recorded_at', models.DateTimeField()),
                    ('key', models.UUIDField()),
                    ('fingerprint', models.CharField(max_length=64)),
                    ('name', models.CharField(max_length=80)),
                    ('version', models.PositiveIntegerField()),
                    ('input', models.JSONField()),
                    ('is_put_away', models.BooleanField(default=False)),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='kitchens.kitchen')),
                    ('recorded_by', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL)),
                ],
                options={
                    'constraints': [
                        models.UniqueConstraint(fields=('kitchen', 'key'), name='curerecipe_key_once'),
                        models.UniqueConstraint(fields=('kitchen', 'name', 'version'), name='recipe_version_once'),
                        models.CheckConstraint(condition=models.Q(('name', ''), _negated=True), name='recipe_named'),
                    ],
                },
            ),
            migrations.CreateModel(
                name='MadeMix',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('recorded_at', models.DateTimeField()),
                    ('key', models.UUIDField()),
                    ('fingerprint', models.CharField(max_length=64)),
                    ('grams', models.DecimalField(decimal_places=12, max_digits=20)),
                    ('note', models.CharField(blank=True, max_length=200)),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='kitchens.kitchen')),
                    ('recipe', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='mixes', to='cures.curerecipe')),
                    ('recorded_by', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL)),
                ],
                options={
                    'constraints': [
                        models.UniqueConstraint(fields=('kitchen', 'key'), name='mademix_key_once'),
                        models.CheckConstraint(condition=models.Q(('grams__isnull', True), models.Q(('grams__gt', 0), ('grams__lte', 5000000)), _connector='OR'), name='made_mix_weight'),
                    ],
                },
            ),
            migrations.CreateModel(
                name='OwnFigure',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('recorded_at', models.DateTimeField()),
                    ('key', models.UUIDField()),
                    ('fingerprint', models.CharField(max_length=64)),
                    ('sort', models.CharField(max_length=5)),
                    ('name', models.CharField(max_length=40)),
                    ('value', models.DecimalField(decimal_places=3, max_digits=10, null=True)),
                    ('source', models.CharField(max_length=200)),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='kitchens.kitchen')),
                    ('recorded_by', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL)),
                ],
                options={
                    'constraints': [
                        models.UniqueConstraint(fields=('kitchen', 'key'), name='ownfigure_key_once'),
                        models.CheckConstraint(condition=models.Q(('sort__in', ['limit', 'spoon'])), name='figure_sort'),
                        models.CheckConstraint(condition=models.Q(('value__isnull', True), models.Q(('value__gte', 0), ('value__lte', 100000)), _connector='OR'), name='figure_value'),
                    ],
                },
            ),
            migrations.CreateModel(
                name='PieceCure',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('recorded_at', models.DateTimeField()),
                    ('key', models.UUIDField()),
                    ('fingerprint', models.CharField(max_length=64)),
                    ('mark', models.CharField(db_collation='utf8mb4_bin', max_length=60)),
                    ('input', models.JSONField()),
                    ('answer', models.JSONField()),
                    ('green_grams', models.DecimalField(decimal_places=12, max_digits=20)),
                    ('school', models.CharField(max_length=14)),
                    ('in_at', models.DateTimeField()),
                    ('first_at', models.DateTimeField()),
                    ('last_at', models.DateTimeField()),
                    ('out_at', models.DateTimeField()),
                    ('mix_grams', models.DecimalField(decimal_places=12, max_digits=20, null=True)),
                    ('batch', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='cures', to='batches.batch')),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='kitchens.kitchen')),
                    ('mix', models.ForeignKey(null=True, on_delete=django.db.models.deletion.PROTECT, related_name='uses', to='cures.mademix')),
                    ('recipe', models.ForeignKey(null=True, on_delete=django.db.models.deletion.PROTECT, related_name='+', to='cures.curerecipe')),
                    ('recorded_by', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL)),
                ],
                options={
                    'indexes': [
                        models.Index(fields=['batch', 'mark'], name='cures_of_batch'),
                    ],
                    'constraints': [
                        models.UniqueConstraint(fields=('kitchen', 'key', 'mark'), name='cure_key_once'),
                        models.CheckConstraint(condition=models.Q(('green_grams__isnull', True), models.Q(('green_grams__gt', 0), ('green_grams__lte', 5000000)), _connector='OR'), name='cure_green'),
                        models.CheckConstraint(condition=models.Q(('mix_grams__isnull', True), models.Q(('mix_grams__gt', 0), ('mix_grams__lte', 5000000)), _connector='OR'), name='cure_mix_weight'),
                    ],
                },
            ),
            migrations.CreateModel(
                name='CureTakenBack',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('recorded_at', models.DateTimeField()),
                    ('key', models.UUIDField()),
                    ('fingerprint', models.CharField(max_length=64)),
                    ('reason', models.CharField(max_length=200)),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='kitchens.kitchen')),
                    ('recorded_by', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL)),
                    ('cure', models.OneToOneField(on_delete=django.db.models.deletion.PROTECT, related_name='taken_back', to='cures.piececure')),
                ],
                options={
                    'constraints': [
                        models.UniqueConstraint(fields=('kitchen', 'key'), name='curetakenback_key_once'),
                        models.CheckConstraint(condition=models.Q(('reason', ''), _negated=True), name='cure_back_reason'),
                    ],
                },
            ),
        ),
        *guarded(
            'cures_curerecipe',
            'cures_curetakenback',
            'cures_mademix',
            'cures_ownfigure',
            'cures_piececure',
        ),
    ]
