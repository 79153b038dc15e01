"""The tables of pieces."""

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models

from dolmetsch.server.quantities.tables import CreateTables, guarded


class Migration(migrations.Migration):
    replaces = [
        ('pieces', '0001_initial'),
        ('pieces', '0002_never_deleted'),
        ('pieces', '0003_product'),
        ('pieces', '0004_owner'),
    ]
    initial = True
    dependencies = [
        ('batches', '0001_tables'),
        ('kitchens', '0001_tables'),
    ]

    operations = [
        CreateTables(
            migrations.CreateModel(
                name='LookOver',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('recorded_at', models.DateTimeField()),
                    ('key', models.UUIDField()),
                    ('fingerprint', models.CharField(max_length=64)),
                    ('found', models.JSONField()),
                    ('note', models.CharField(blank=True, max_length=200)),
                    ('batch', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='look_overs', to='batches.batch')),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='kitchens.kitchen')),
                    ('recorded_by', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL)),
                ],
                options={
                    'constraints': [
                        models.UniqueConstraint(fields=('kitchen', 'key'), name='lookover_key_once'),
                    ],
                },
            ),
            migrations.CreateModel(
                name='PieceFact',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('recorded_at', models.DateTimeField()),
                    ('key', models.UUIDField()),
                    ('fingerprint', models.CharField(max_length=64)),
                    ('mark', models.CharField(db_collation='utf8mb4_bin', max_length=60)),
                    ('length_mm', models.DecimalField(decimal_places=2, max_digits=7, null=True)),
                    ('width_mm', models.DecimalField(decimal_places=2, max_digits=7, null=True)),
                    ('thickness_mm', models.DecimalField(decimal_places=2, max_digits=7, null=True)),
                    ('skin', models.CharField(blank=True, max_length=3)),
                    ('product', models.CharField(blank=True, default='', max_length=12)),
                    ('owner', models.CharField(blank=True, default='', max_length=80)),
                    ('store', models.CharField(blank=True, max_length=40)),
                    ('level', models.PositiveSmallIntegerField(null=True)),
                    ('slot', models.PositiveSmallIntegerField(null=True)),
                    ('batch', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='piece_facts', to='batches.batch')),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='kitchens.kitchen')),
                    ('recorded_by', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL)),
                ],
                options={
                    'indexes': [
                        models.Index(fields=['batch', 'mark'], name='piece_facts'),
                    ],
                    'constraints': [
                        models.UniqueConstraint(fields=('kitchen', 'key'), name='piecefact_key_once'),
                        models.CheckConstraint(condition=models.Q(('skin__in', ['', 'on', 'off'])), name='piece_fact_skin'),
                        models.CheckConstraint(condition=models.Q(('product__in', ['', 'bacon', 'whole_muscle', 'comminuted'])), name='piece_fact_product'),
                        models.CheckConstraint(condition=models.Q(('length_mm__isnull', True), ('length_mm__gt', 0), _connector='OR'), name='piece_fact_length'),
                        models.CheckConstraint(condition=models.Q(('width_mm__isnull', True), ('width_mm__gt', 0), _connector='OR'), name='piece_fact_width'),
                        models.CheckConstraint(condition=models.Q(('thickness_mm__isnull', True), ('thickness_mm__gt', 0), _connector='OR'), name='piece_fact_thickness'),
                    ],
                },
            ),
            migrations.CreateModel(
                name='Store',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('recorded_at', models.DateTimeField()),
                    ('key', models.UUIDField()),
                    ('fingerprint', models.CharField(max_length=64)),
                    ('name', models.CharField(max_length=40)),
                    ('sort', models.CharField(max_length=8)),
                    ('levels', models.PositiveSmallIntegerField()),
                    ('slots', models.PositiveSmallIntegerField()),
                    ('is_put_away', models.BooleanField(default=False)),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='kitchens.kitchen')),
                    ('recorded_by', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL)),
                ],
                options={
                    'constraints': [
                        models.UniqueConstraint(fields=('kitchen', 'key'), name='store_key_once'),
                        models.CheckConstraint(condition=models.Q(('name', ''), _negated=True), name='store_named'),
                        models.CheckConstraint(condition=models.Q(('sort__in', ('fridge', 'smoker', 'chamber', 'freezer'))), name='store_sort'),
                        models.CheckConstraint(condition=models.Q(('levels__gte', 1), ('levels__lte', 20), ('slots__gte', 1), ('slots__lte', 20)), name='store_room'),
                    ],
                },
            ),
        ),
        *guarded(
            'pieces_lookover',
            'pieces_piecefact',
            'pieces_store',
        ),
    ]
