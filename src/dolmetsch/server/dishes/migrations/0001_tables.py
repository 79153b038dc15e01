"""The tables of dishes."""

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models

from dolmetsch.server.quantities.tables import CreateTables, guarded


class Migration(migrations.Migration):
    replaces = [
        ('dishes', '0001_initial'),
        ('dishes', '0002_never_changed'),
    ]
    initial = True
    dependencies = [
        ('kitchens', '0001_tables'),
    ]

    operations = [
        CreateTables(
            migrations.CreateModel(
                name='Dish',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('recorded_at', models.DateTimeField()),
                    ('key', models.UUIDField()),
                    ('fingerprint', models.CharField(max_length=64)),
                    ('name', models.CharField(max_length=80)),
                    ('version', models.PositiveIntegerField()),
                    ('input', models.JSONField()),
                    ('words', models.CharField(blank=True, max_length=2000)),
                    ('cost_then', models.DecimalField(decimal_places=8, max_digits=18, null=True)),
                    ('is_put_away', models.BooleanField(default=False)),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='kitchens.kitchen')),
                    ('recorded_by', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL)),
                ],
                options={
                    'constraints': [
                        models.UniqueConstraint(fields=('kitchen', 'key'), name='dish_key_once'),
                        models.UniqueConstraint(fields=('kitchen', 'name', 'version'), name='dish_version_once'),
                        models.CheckConstraint(condition=models.Q(('name', ''), _negated=True), name='dish_named'),
                    ],
                },
            ),
            migrations.CreateModel(
                name='DishAims',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('recorded_at', models.DateTimeField()),
                    ('key', models.UUIDField()),
                    ('fingerprint', models.CharField(max_length=64)),
                    ('low', models.DecimalField(decimal_places=4, max_digits=5)),
                    ('high', models.DecimalField(decimal_places=4, max_digits=5)),
                    ('threshold', models.DecimalField(decimal_places=4, max_digits=5)),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='kitchens.kitchen')),
                    ('recorded_by', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL)),
                ],
                options={
                    'constraints': [
                        models.UniqueConstraint(fields=('kitchen', 'key'), name='dishaims_key_once'),
                        models.CheckConstraint(condition=models.Q(('high__lte', 1), ('low__gt', 0), ('low__lte', models.F('high')), ('threshold__gt', 0)), name='dish_aims'),
                    ],
                },
            ),
            migrations.CreateModel(
                name='Plating',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('recorded_at', models.DateTimeField()),
                    ('key', models.UUIDField()),
                    ('fingerprint', models.CharField(max_length=64)),
                    ('name', models.CharField(max_length=80)),
                    ('plates', models.PositiveIntegerField()),
                    ('income', models.DecimalField(decimal_places=4, max_digits=12, null=True)),
                    ('at', models.DateTimeField()),
                    ('dish', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='platings', to='dishes.dish')),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='kitchens.kitchen')),
                    ('recorded_by', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL)),
                ],
                options={
                    'indexes': [
                        models.Index(fields=['kitchen', 'name', 'at'], name='plated_lately'),
                    ],
                    'constraints': [
                        models.UniqueConstraint(fields=('kitchen', 'key'), name='plating_key_once'),
                        models.CheckConstraint(condition=models.Q(('income__isnull', True), models.Q(('income__gte', 0), ('income__lte', 1000000)), _connector='OR'), name='plating_income'),
                        models.CheckConstraint(condition=models.Q(('plates__gt', 0)), name='plating_plates'),
                    ],
                },
            ),
            migrations.CreateModel(
                name='PlatingCanceled',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('recorded_at', models.DateTimeField()),
                    ('key', models.UUIDField()),
                    ('fingerprint', models.CharField(max_length=64)),
                    ('reason', models.CharField(max_length=200)),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='kitchens.kitchen')),
                    ('plating', models.OneToOneField(on_delete=django.db.models.deletion.PROTECT, related_name='canceled', to='dishes.plating')),
                    ('recorded_by', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL)),
                ],
                options={
                    'constraints': [
                        models.UniqueConstraint(fields=('kitchen', 'key'), name='platingcanceled_key_once'),
                    ],
                },
            ),
            migrations.CreateModel(
                name='StockNote',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('recorded_at', models.DateTimeField()),
                    ('key', models.UUIDField()),
                    ('fingerprint', models.CharField(max_length=64)),
                    ('what', models.CharField(max_length=80)),
                    ('sort', models.CharField(max_length=8)),
                    ('grams', models.DecimalField(decimal_places=12, max_digits=20, null=True)),
                    ('count', models.DecimalField(decimal_places=4, max_digits=12, null=True)),
                    ('typed', models.CharField(max_length=40)),
                    ('at', models.DateTimeField()),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='kitchens.kitchen')),
                    ('recorded_by', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL)),
                ],
                options={
                    'indexes': [
                        models.Index(fields=['kitchen', 'what', 'at'], name='stock_of'),
                    ],
                    'constraints': [
                        models.UniqueConstraint(fields=('kitchen', 'key'), name='stocknote_key_once'),
                        models.CheckConstraint(condition=models.Q(('grams__isnull', True), models.Q(('grams__gt', 0), ('grams__lte', 5000000)), _connector='OR'), name='stock_weight'),
                        models.CheckConstraint(condition=models.Q(('sort__in', ('bought', 'counted')), models.Q(('what', ''), _negated=True)), name='stock_sort'),
                        models.CheckConstraint(condition=models.Q(models.Q(('count__gte', 0), ('count__isnull', False), ('grams__isnull', True)), models.Q(('count__isnull', True), ('grams__isnull', False)), _connector='OR'), name='stock_one_amount'),
                    ],
                },
            ),
        ),
        *guarded(
            'dishes_dish',
            'dishes_dishaims',
            'dishes_plating',
            'dishes_platingcanceled',
            'dishes_stocknote',
        ),
    ]
