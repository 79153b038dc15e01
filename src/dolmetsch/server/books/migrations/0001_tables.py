"""The tables of books."""

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models

from dolmetsch.server.quantities.tables import CreateTables, guarded


class Migration(migrations.Migration):
    replaces = [
        ('books', '0001_initial'),
        ('books', '0002_never_changed'),
    ]
    initial = True
    dependencies = [
        ('kitchens', '0001_tables'),
    ]

    operations = [
        CreateTables(
            migrations.CreateModel(
                name='Tool',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('recorded_at', models.DateTimeField()),
                    ('key', models.UUIDField()),
                    ('fingerprint', models.CharField(max_length=64)),
                    ('name', models.CharField(max_length=40)),
                    ('paid', models.DecimalField(decimal_places=4, max_digits=12)),
                    ('paid_typed', models.CharField(max_length=40)),
                    ('bought_on', models.DateField()),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='kitchens.kitchen')),
                    ('recorded_by', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL)),
                ],
                options={
                    'constraints': [
                        models.UniqueConstraint(fields=('kitchen', 'key'), name='tool_key_once'),
                        models.CheckConstraint(condition=models.Q(('paid__isnull', True), models.Q(('paid__gte', 0), ('paid__lte', 1000000)), _connector='OR'), name='tool_paid'),
                        models.CheckConstraint(condition=models.Q(('name', ''), _negated=True), name='tool_named'),
                    ],
                },
            ),
            migrations.CreateModel(
                name='ToolCanceled',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('recorded_at', models.DateTimeField()),
                    ('key', models.UUIDField()),
                    ('fingerprint', models.CharField(max_length=64)),
                    ('reason', models.CharField(max_length=200)),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='kitchens.kitchen')),
                    ('recorded_by', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL)),
                    ('tool', models.OneToOneField(on_delete=django.db.models.deletion.PROTECT, related_name='canceled', to='books.tool')),
                ],
                options={
                    'constraints': [
                        models.UniqueConstraint(fields=('kitchen', 'key'), name='toolcanceled_key_once'),
                    ],
                },
            ),
        ),
        *guarded(
            'books_tool',
            'books_toolcanceled',
        ),
    ]
