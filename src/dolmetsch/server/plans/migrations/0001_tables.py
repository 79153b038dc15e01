"""The tables of plans."""

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models

from dolmetsch.server.quantities.tables import CreateTables, guarded


class Migration(migrations.Migration):
    replaces = [
        ('plans', '0001_initial'),
        ('plans', '0002_hang'),
        ('plans', '0003_tasks'),
    ]
    initial = True
    dependencies = [
        ('batches', '0001_tables'),
        ('kitchens', '0001_tables'),
    ]

    operations = [
        CreateTables(
            migrations.CreateModel(
                name='PlannedTask',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('recorded_at', models.DateTimeField()),
                    ('key', models.UUIDField()),
                    ('fingerprint', models.CharField(max_length=64)),
                    ('uid', models.UUIDField(unique=True)),
                    ('follows', models.UUIDField()),
                    ('kind', models.CharField(max_length=10)),
                    ('words', models.CharField(blank=True, max_length=60)),
                    ('marks', models.JSONField()),
                    ('due_at', models.DateTimeField()),
                    ('until_at', models.DateTimeField()),
                    ('minutes', models.PositiveIntegerField(null=True)),
                    ('state', models.CharField(choices=[('open', 'Open'), ('done', 'Done'), ('dropped', 'Dropped')], default='open', max_length=8)),
                    ('changes', models.PositiveIntegerField(default=0)),
                    ('changed_at', models.DateTimeField()),
                    ('batch', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='planned_tasks', to='batches.batch')),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='kitchens.kitchen')),
                    ('recorded_by', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL)),
                ],
                options={
                    'indexes': [
                        models.Index(fields=['kitchen', 'state', 'due_at'], name='acts_due'),
                        models.Index(fields=['batch', 'due_at'], name='acts_of_batch'),
                        models.Index(fields=['kitchen', 'key'], name='acts_of_key'),
                    ],
                    'constraints': [
                        models.CheckConstraint(condition=models.Q(('kind__in', ['turn', 'check', 'spice', 'out', 'rinse', 'taste', 'soak', 'dry', 'reseason', 'smoke', 'hang', 'weigh', 'other'])), name='act_kind'),
                        models.CheckConstraint(condition=models.Q(('state__in', ['open', 'done', 'dropped'])), name='act_state'),
                        models.CheckConstraint(condition=models.Q(('until_at__gte', models.F('due_at'))), name='act_times'),
                    ],
                },
            ),
            migrations.CreateModel(
                name='TaskNews',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('recorded_at', models.DateTimeField()),
                    ('key', models.UUIDField()),
                    ('fingerprint', models.CharField(max_length=64)),
                    ('sort', models.CharField(max_length=8)),
                    ('happened_at', models.DateTimeField()),
                    ('due_before', models.DateTimeField()),
                    ('due_now', models.DateTimeField()),
                    ('taste', models.CharField(blank=True, max_length=6)),
                    ('note', models.CharField(blank=True, max_length=200)),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='kitchens.kitchen')),
                    ('recorded_by', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL)),
                    ('task', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='news', to='plans.plannedtask')),
                ],
                options={
                    'constraints': [
                        models.UniqueConstraint(fields=('kitchen', 'key'), name='tasknews_key_once'),
                        models.CheckConstraint(condition=models.Q(('sort__in', ['done', 'moved', 'dropped', 'open'])), name='act_news_sort'),
                        models.CheckConstraint(condition=models.Q(('taste__in', ['', 'salty', 'right', 'flat'])), name='act_news_taste'),
                    ],
                },
            ),
        ),
        *guarded(
            'plans_tasknews',
        ),
    ]
