"""The tables of meals."""

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models

from dolmetsch.server.quantities.tables import CreateTables, guarded


class Migration(migrations.Migration):
    replaces = [
        ('meals', '0001_initial'),
        ('meals', '0002_never_changed'),
        ('meals', '0003_made_in_batches'),
    ]
    initial = True
    dependencies = [
        ('batches', '0001_tables'),
        ('kitchens', '0001_tables'),
    ]

    operations = [
        CreateTables(
            migrations.CreateModel(
                name='Meal',
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
                        models.UniqueConstraint(fields=('kitchen', 'key'), name='meal_key_once'),
                        models.UniqueConstraint(fields=('kitchen', 'name', 'version'), name='meal_version_once'),
                        models.CheckConstraint(condition=models.Q(('name', ''), _negated=True), name='meal_named'),
                    ],
                },
            ),
            migrations.CreateModel(
                name='MealJob',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('recorded_at', models.DateTimeField()),
                    ('key', models.UUIDField()),
                    ('fingerprint', models.CharField(max_length=64)),
                    ('listing', models.UUIDField()),
                    ('uid', models.UUIDField(unique=True)),
                    ('position', models.PositiveIntegerField()),
                    ('kind', models.CharField(max_length=60)),
                    ('words', models.CharField(max_length=80)),
                    ('products', models.JSONField(default=list)),
                    ('due_at', models.DateTimeField()),
                    ('minutes', models.PositiveIntegerField()),
                    ('wait_minutes', models.PositiveIntegerField()),
                    ('ends_at', models.DateTimeField()),
                    ('stores', models.JSONField(default=list)),
                    ('pieces', models.PositiveIntegerField(default=0)),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='kitchens.kitchen')),
                    ('meal', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='jobs', to='meals.meal')),
                    ('recorded_by', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL)),
                ],
                options={
                    'indexes': [
                        models.Index(fields=['meal', 'position'], name='meal_jobs'),
                    ],
                    'constraints': [
                        models.UniqueConstraint(fields=('kitchen', 'key'), name='mealjob_key_once'),
                    ],
                },
            ),
            migrations.CreateModel(
                name='MealJobNews',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('recorded_at', models.DateTimeField()),
                    ('key', models.UUIDField()),
                    ('fingerprint', models.CharField(max_length=64)),
                    ('sort', models.CharField(max_length=8)),
                    ('happened_at', models.DateTimeField()),
                    ('job', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='news', to='meals.mealjob')),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='kitchens.kitchen')),
                    ('recorded_by', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL)),
                ],
                options={
                    'constraints': [
                        models.UniqueConstraint(fields=('kitchen', 'key'), name='mealjobnews_key_once'),
                        models.CheckConstraint(condition=models.Q(('sort__in', ['done', 'open'])), name='meal_news_sort'),
                    ],
                },
            ),
            migrations.CreateModel(
                name='MealMade',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('recorded_at', models.DateTimeField()),
                    ('key', models.UUIDField()),
                    ('fingerprint', models.CharField(max_length=64)),
                    ('products', models.JSONField(default=list)),
                    ('batch', models.ForeignKey(null=True, on_delete=django.db.models.deletion.PROTECT, related_name='made_for', to='batches.batch')),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='kitchens.kitchen')),
                    ('meal', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='made', to='meals.meal')),
                    ('recorded_by', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL)),
                ],
                options={
                    'constraints': [
                        models.UniqueConstraint(fields=('kitchen', 'key'), name='mealmade_key_once'),
                    ],
                },
            ),
        ),
        *guarded(
            'meals_meal',
            'meals_mealjob',
            'meals_mealjobnews',
            'meals_mealmade',
        ),
    ]
