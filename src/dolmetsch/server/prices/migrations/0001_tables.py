"""The tables of prices."""

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models

from dolmetsch.server.quantities.tables import CreateTables, guarded


class Migration(migrations.Migration):
    replaces = [
        ('prices', '0001_initial'),
        ('prices', '0002_lengths'),
        ('prices', '0003_uploaded_table'),
    ]
    initial = True
    dependencies = [
        ('kitchens', '0001_tables'),
    ]

    operations = [
        CreateTables(
            migrations.CreateModel(
                name='PriceFile',
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
                    ('source', models.CharField(max_length=60)),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='kitchens.kitchen')),
                    ('uploaded_by', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL)),
                ],
                options={
                    'constraints': [
                        models.UniqueConstraint(fields=('kitchen', 'key'), name='price_file_key'),
                    ],
                },
            ),
            migrations.CreateModel(
                name='PriceItem',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('sort', models.CharField(choices=[('meat', 'Raw meat'), ('ingredient', 'Ingredients'), ('packaging', 'Packaging'), ('fuel', 'Fuel'), ('by_product', 'What trim is worth'), ('shop_pack', 'Shop packs')], max_length=10)),
                    ('name', models.CharField(max_length=80)),
                    ('kind', models.CharField(blank=True, max_length=40)),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='price_items', to='kitchens.kitchen')),
                ],
                options={
                    'constraints': [
                        models.UniqueConstraint(fields=('kitchen', 'sort', 'name'), name='price_item_once'),
                        models.CheckConstraint(condition=models.Q(('name', ''), _negated=True), name='price_item_named'),
                        models.CheckConstraint(condition=models.Q(('sort__in', ['meat', 'ingredient', 'packaging', 'fuel', 'by_product', 'shop_pack'])), name='price_item_sort'),
                        models.CheckConstraint(condition=models.Q(('kind', ''), ('sort', 'shop_pack'), _connector='OR'), name='price_item_kind'),
                    ],
                },
            ),
            migrations.CreateModel(
                name='FryTest',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('raw_grams', models.DecimalField(decimal_places=12, max_digits=20)),
                    ('raw_typed', models.CharField(max_length=40)),
                    ('cooked_grams', models.DecimalField(decimal_places=12, max_digits=20)),
                    ('cooked_typed', models.CharField(max_length=40)),
                    ('tested_on', models.DateField()),
                    ('recorded_at', models.DateTimeField()),
                    ('key', models.UUIDField()),
                    ('fingerprint', models.CharField(max_length=64)),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='fry_tests', to='kitchens.kitchen')),
                    ('recorded_by', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL)),
                    ('item', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='fry_tests', to='prices.priceitem')),
                ],
                options={
                    'constraints': [
                        models.UniqueConstraint(fields=('kitchen', 'key'), name='fry_test_key'),
                        models.CheckConstraint(condition=models.Q(('raw_grams__isnull', True), models.Q(('raw_grams__gt', 0), ('raw_grams__lte', 5000000)), _connector='OR'), name='fry_test_raw'),
                        models.CheckConstraint(condition=models.Q(('cooked_grams__isnull', True), models.Q(('cooked_grams__gt', 0), ('cooked_grams__lte', 5000000)), _connector='OR'), name='fry_test_cooked'),
                        models.CheckConstraint(condition=models.Q(('cooked_grams__lte', models.F('raw_grams'))), name='fry_test_shrinks'),
                    ],
                },
            ),
            migrations.CreateModel(
                name='Quote',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('source', models.CharField(max_length=60)),
                    ('seen_on', models.DateField()),
                    ('paid', models.DecimalField(decimal_places=4, max_digits=12)),
                    ('grams', models.DecimalField(blank=True, decimal_places=12, max_digits=20, null=True)),
                    ('count', models.DecimalField(blank=True, decimal_places=4, max_digits=12, null=True)),
                    ('typed', models.CharField(max_length=85)),
                    ('is_pack', models.BooleanField(default=False)),
                    ('slices', models.PositiveIntegerField(blank=True, null=True)),
                    ('solution_ratio', models.DecimalField(blank=True, decimal_places=8, max_digits=9, null=True)),
                    ('is_withdrawal', models.BooleanField(default=False)),
                    ('reason', models.CharField(blank=True, max_length=200)),
                    ('recorded_at', models.DateTimeField()),
                    ('key', models.UUIDField(blank=True, null=True)),
                    ('fingerprint', models.CharField(blank=True, max_length=64)),
                    ('corrects', models.ForeignKey(blank=True, null=True, on_delete=django.db.models.deletion.PROTECT, related_name='corrections', to='prices.quote')),
                    ('file', models.ForeignKey(blank=True, null=True, on_delete=django.db.models.deletion.PROTECT, related_name='quotes', to='prices.pricefile')),
                    ('item', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='quotes', to='prices.priceitem')),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='quotes', to='kitchens.kitchen')),
                    ('recorded_by', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL)),
                ],
                options={
                    'indexes': [
                        models.Index(fields=['item', 'seen_on', 'id'], name='quote_history'),
                    ],
                    'constraints': [
                        models.UniqueConstraint(fields=('kitchen', 'key'), name='quote_key'),
                        models.CheckConstraint(condition=models.Q(('paid__isnull', True), models.Q(('paid__gte', 0), ('paid__lte', 1000000)), _connector='OR'), name='quote_paid'),
                        models.CheckConstraint(condition=models.Q(('grams__isnull', True), models.Q(('grams__gt', 0), ('grams__lte', 5000000)), _connector='OR'), name='quote_weight'),
                        models.CheckConstraint(condition=models.Q(('solution_ratio__isnull', True), models.Q(('solution_ratio__gte', 0), ('solution_ratio__lte', 1)), _connector='OR'), name='quote_solution'),
                        models.CheckConstraint(condition=models.Q(models.Q(('count__isnull', True), ('grams__isnull', False)), models.Q(('count__gt', 0), ('count__isnull', False), ('grams__isnull', True)), _connector='OR'), name='quote_for_one_thing'),
                        models.CheckConstraint(condition=models.Q(models.Q(('corrects__isnull', True), ('is_withdrawal', False), ('reason', '')), models.Q(('corrects__isnull', False), models.Q(('reason', ''), _negated=True)), _connector='OR'), name='quote_reason'),
                    ],
                },
            ),
            migrations.CreateModel(
                name='SourceMatch',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('source', models.CharField(max_length=60)),
                    ('match', models.JSONField()),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='source_matches', to='kitchens.kitchen')),
                ],
                options={
                    'constraints': [
                        models.UniqueConstraint(fields=('kitchen', 'source'), name='source_match_once'),
                    ],
                },
            ),
        ),
        *guarded(
            'prices_frytest',
            'prices_quote',
        ),
    ]
