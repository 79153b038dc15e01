"""The tables of audit."""

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models

from dolmetsch.server.quantities.tables import CreateTables, guarded


class Migration(migrations.Migration):
    replaces = [
        ('audit', '0001_initial'),
    ]
    initial = True
    dependencies = [
        ('kitchens', '0001_tables'),
    ]

    operations = [
        CreateTables(
            migrations.CreateModel(
                name='AuditRow',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('at', models.DateTimeField()),
                    ('outcome', models.CharField(choices=[('done', 'Done'), ('refused', 'Refused')], default='done', max_length=7)),
                    ('operation', models.CharField(max_length=40)),
                    ('words', models.CharField(max_length=200)),
                    ('page', models.CharField(blank=True, max_length=200)),
                    ('made', models.CharField(blank=True, max_length=60)),
                    ('before', models.CharField(blank=True, max_length=60)),
                    ('device', models.CharField(blank=True, max_length=60)),
                    ('address', models.CharField(blank=True, max_length=45)),
                    ('about', models.ForeignKey(null=True, on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL)),
                    ('kitchen', models.ForeignKey(null=True, on_delete=django.db.models.deletion.PROTECT, related_name='+', to='kitchens.kitchen')),
                    ('user', models.ForeignKey(null=True, on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL)),
                ],
                options={
                    'indexes': [
                        models.Index(fields=['kitchen', 'at', 'id'], name='audit_of_kitchen'),
                        models.Index(fields=['user', 'at', 'id'], name='audit_of_user'),
                    ],
                    'constraints': [
                        models.CheckConstraint(condition=models.Q(('outcome__in', ['done', 'refused'])), name='audit_outcome'),
                    ],
                },
            ),
        ),
        *guarded(
            'audit_auditrow',
        ),
    ]
