"""The tables of larder."""

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models

from dolmetsch.server.quantities.tables import CreateTables, guarded


class Migration(migrations.Migration):
    replaces = [
        ('larder', '0001_initial'),
        ('larder', '0002_never_changed'),
        ('larder', '0003_weighings'),
        ('larder', '0004_customers'),
    ]
    initial = True
    dependencies = [
        ('batches', '0001_tables'),
        ('kitchens', '0001_tables'),
    ]

    operations = [
        CreateTables(
            migrations.CreateModel(
                name='Packing',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('recorded_at', models.DateTimeField()),
                    ('key', models.UUIDField()),
                    ('fingerprint', models.CharField(max_length=64)),
                    ('batch', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='packings', to='batches.batch')),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='kitchens.kitchen')),
                    ('recorded_by', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL)),
                ],
                options={
                    'constraints': [
                        models.UniqueConstraint(fields=('kitchen', 'key'), name='packing_key_once'),
                    ],
                },
            ),
            migrations.CreateModel(
                name='Pack',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('number', models.PositiveIntegerField()),
                    ('mark', models.CharField(db_collation='utf8mb4_bin', max_length=60)),
                    ('piece', models.CharField(db_collation='utf8mb4_bin', max_length=60)),
                    ('product', models.CharField(max_length=80)),
                    ('form', models.CharField(max_length=8)),
                    ('grams', models.DecimalField(decimal_places=12, max_digits=20)),
                    ('typed', models.CharField(max_length=40)),
                    ('slices', models.PositiveIntegerField(null=True)),
                    ('store', models.CharField(blank=True, max_length=40)),
                    ('packed_at', models.DateTimeField()),
                    ('batch', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='packs', to='batches.batch')),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='kitchens.kitchen')),
                    ('packing', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='packs', to='larder.packing')),
                ],
                options={
                    'constraints': [
                        models.UniqueConstraint(fields=('batch', 'mark'), name='pack_mark_once'),
                        models.CheckConstraint(condition=models.Q(('grams__isnull', True), models.Q(('grams__gt', 0), ('grams__lte', 5000000)), _connector='OR'), name='pack_weight'),
                        models.CheckConstraint(condition=models.Q(models.Q(('product', ''), _negated=True), models.Q(('mark', ''), _negated=True)), name='pack_named'),
                        models.CheckConstraint(condition=models.Q(('form__in', ('slices', 'dice', 'lardons', 'pulled', 'ends', 'whole'))), name='pack_form'),
                        models.CheckConstraint(condition=models.Q(('slices__isnull', True), ('slices__gt', 0), _connector='OR'), name='pack_slices'),
                    ],
                },
            ),
            migrations.CreateModel(
                name='Taken',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('fate', models.CharField(max_length=9)),
                    ('grams', models.DecimalField(decimal_places=12, max_digits=20, null=True)),
                    ('typed', models.CharField(blank=True, max_length=40)),
                    ('slices', models.PositiveIntegerField(null=True)),
                    ('income', models.DecimalField(decimal_places=4, max_digits=12, null=True)),
                    ('why', models.CharField(blank=True, max_length=200)),
                    ('dish', models.CharField(blank=True, max_length=80)),
                    ('at', models.DateTimeField()),
                    ('recorded_at', models.DateTimeField()),
                    ('key', models.UUIDField()),
                    ('fingerprint', models.CharField(max_length=64)),
                    ('position', models.PositiveIntegerField(default=0)),
                    ('into', models.ForeignKey(null=True, on_delete=django.db.models.deletion.PROTECT, related_name='packs_used', to='batches.batch')),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='kitchens.kitchen')),
                    ('pack', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='takings', to='larder.pack')),
                    ('recorded_by', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL)),
                ],
                options={
                    'indexes': [
                        models.Index(fields=['pack', 'id'], name='taken_of_pack'),
                    ],
                    'constraints': [
                        models.UniqueConstraint(fields=('kitchen', 'key', 'position'), name='taken_key_once'),
                        models.CheckConstraint(condition=models.Q(('fate__in', ('eaten', 'plated', 'sold', 'given', 'used', 'spoiled', 'discarded'))), name='taken_fate'),
                        models.CheckConstraint(condition=models.Q(('grams__isnull', True), ('slices__isnull', True), _connector='OR'), name='taken_one_amount'),
                        models.CheckConstraint(condition=models.Q(('slices__isnull', True), ('slices__gt', 0), _connector='OR'), name='taken_slices'),
                        models.CheckConstraint(condition=models.Q(('grams__isnull', True), models.Q(('grams__gt', 0), ('grams__lte', 5000000)), _connector='OR'), name='taken_weight'),
                        models.CheckConstraint(condition=models.Q(('income__isnull', True), models.Q(('income__gte', 0), ('income__lte', 1000000)), _connector='OR'), name='taken_income'),
                        models.CheckConstraint(condition=models.Q(('income__isnull', True), ('fate__in', ['plated', 'sold']), _connector='OR'), name='taken_income_fate'),
                    ],
                },
            ),
            migrations.CreateModel(
                name='PackMove',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('recorded_at', models.DateTimeField()),
                    ('key', models.UUIDField()),
                    ('fingerprint', models.CharField(max_length=64)),
                    ('sort', models.CharField(max_length=8)),
                    ('store', models.CharField(blank=True, max_length=40)),
                    ('at', models.DateTimeField()),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='kitchens.kitchen')),
                    ('pack', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='moves', to='larder.pack')),
                    ('recorded_by', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL)),
                ],
                options={
                    'constraints': [
                        models.UniqueConstraint(fields=('kitchen', 'key'), name='packmove_key_once'),
                        models.CheckConstraint(condition=models.Q(('sort__in', ('placed', 'opened'))), name='pack_move_sort'),
                    ],
                },
            ),
            migrations.CreateModel(
                name='PackWeighing',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('recorded_at', models.DateTimeField()),
                    ('key', models.UUIDField()),
                    ('fingerprint', models.CharField(max_length=64)),
                    ('grams', models.DecimalField(decimal_places=12, max_digits=20)),
                    ('typed', models.CharField(max_length=40)),
                    ('book_grams', models.DecimalField(decimal_places=12, max_digits=20)),
                    ('at', models.DateTimeField()),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='kitchens.kitchen')),
                    ('pack', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='weighings', to='larder.pack')),
                    ('recorded_by', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL)),
                ],
                options={
                    'constraints': [
                        models.UniqueConstraint(fields=('kitchen', 'key'), name='packweighing_key_once'),
                        models.CheckConstraint(condition=models.Q(('grams__isnull', True), models.Q(('grams__gt', 0), ('grams__lte', 5000000)), _connector='OR'), name='pack_weighed'),
                        models.CheckConstraint(condition=models.Q(('book_grams__isnull', True), models.Q(('book_grams__gt', 0), ('book_grams__lte', 5000000)), _connector='OR'), name='pack_weighed_of'),
                    ],
                },
            ),
            migrations.CreateModel(
                name='ShelfCount',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('recorded_at', models.DateTimeField()),
                    ('key', models.UUIDField()),
                    ('fingerprint', models.CharField(max_length=64)),
                    ('expected', models.PositiveIntegerField()),
                    ('missing', models.PositiveIntegerField()),
                    ('found_again', models.PositiveIntegerField()),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='kitchens.kitchen')),
                    ('recorded_by', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL)),
                ],
                options={
                    'constraints': [
                        models.UniqueConstraint(fields=('kitchen', 'key'), name='shelfcount_key_once'),
                    ],
                },
            ),
            migrations.CreateModel(
                name='TakenNow',
                fields=[
                    ('taken', models.OneToOneField(on_delete=django.db.models.deletion.CASCADE, primary_key=True, related_name='now', serialize=False, to='larder.taken')),
                    ('fate', models.CharField(max_length=9)),
                    ('product', models.CharField(max_length=80)),
                    ('day', models.DateField()),
                    ('grams', models.DecimalField(decimal_places=12, max_digits=20)),
                    ('cost', models.DecimalField(decimal_places=12, max_digits=24)),
                    ('income', models.DecimalField(decimal_places=4, max_digits=12)),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='+', to='kitchens.kitchen')),
                ],
                options={
                    'indexes': [
                        models.Index(fields=['kitchen', 'day'], name='taken_lately'),
                    ],
                },
            ),
            migrations.CreateModel(
                name='TakenCanceled',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('recorded_at', models.DateTimeField()),
                    ('key', models.UUIDField()),
                    ('fingerprint', models.CharField(max_length=64)),
                    ('reason', models.CharField(max_length=200)),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='kitchens.kitchen')),
                    ('recorded_by', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL)),
                    ('taken', models.OneToOneField(on_delete=django.db.models.deletion.PROTECT, related_name='canceled', to='larder.taken')),
                ],
                options={
                    'constraints': [
                        models.UniqueConstraint(fields=('kitchen', 'key'), name='takencanceled_key_once'),
                    ],
                },
            ),
            migrations.CreateModel(
                name='PackNow',
                fields=[
                    ('pack', models.OneToOneField(on_delete=django.db.models.deletion.CASCADE, primary_key=True, related_name='now', serialize=False, to='larder.pack')),
                    ('cost', models.DecimalField(decimal_places=12, max_digits=24)),
                    ('left_grams', models.DecimalField(decimal_places=12, max_digits=20)),
                    ('left_slices', models.PositiveIntegerField(null=True)),
                    ('left_cost', models.DecimalField(decimal_places=12, max_digits=24)),
                    ('state', models.CharField(max_length=8)),
                    ('store', models.CharField(blank=True, max_length=40)),
                    ('keeps', models.CharField(blank=True, max_length=12)),
                    ('is_raw', models.BooleanField()),
                    ('keep_until', models.DateField(null=True)),
                    ('is_gone', models.BooleanField()),
                    ('owner', models.CharField(blank=True, default='', max_length=80)),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='+', to='kitchens.kitchen')),
                ],
                options={
                    'indexes': [
                        models.Index(fields=['kitchen', 'is_gone'], name='packs_here'),
                    ],
                    'constraints': [
                        models.CheckConstraint(condition=models.Q(('left_grams__gte', 0)), name='pack_left'),
                        models.CheckConstraint(condition=models.Q(('state__in', ('chilled', 'frozen', 'thawed', 'open'))), name='pack_state'),
                        models.CheckConstraint(condition=models.Q(('keeps__in', ['', 'bacon', 'ham', 'raw_sausage', 'sausage', 'fresh', 'cooked'])), name='pack_keeps'),
                    ],
                },
            ),
            migrations.CreateModel(
                name='PackCanceled',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('recorded_at', models.DateTimeField()),
                    ('key', models.UUIDField()),
                    ('fingerprint', models.CharField(max_length=64)),
                    ('reason', models.CharField(max_length=200)),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='kitchens.kitchen')),
                    ('pack', models.OneToOneField(on_delete=django.db.models.deletion.PROTECT, related_name='canceled', to='larder.pack')),
                    ('recorded_by', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL)),
                ],
                options={
                    'constraints': [
                        models.UniqueConstraint(fields=('kitchen', 'key'), name='packcanceled_key_once'),
                    ],
                },
            ),
        ),
        *guarded(
            'larder_pack',
            'larder_packcanceled',
            'larder_packing',
            'larder_packmove',
            'larder_packweighing',
            'larder_shelfcount',
            'larder_taken',
            'larder_takencanceled',
        ),
    ]
