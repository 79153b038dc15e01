"""The tables of people."""

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models

from dolmetsch.server.quantities.tables import CreateTables


class Migration(migrations.Migration):
    replaces = [
        ('people', '0001_initial'),
    ]
    initial = True
    dependencies = [
        ('kitchens', '0001_tables'),
    ]

    operations = [
        CreateTables(
            migrations.CreateModel(
                name='Invitation',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('role', models.CharField(choices=[('reader', 'Reader'), ('helper', 'Helper'), ('cook', 'Cook'), ('owner', 'Owner')], max_length=6)),
                    ('called', models.CharField(blank=True, max_length=80)),
                    ('code_hash', models.CharField(max_length=64, unique=True)),
                    ('made_at', models.DateTimeField()),
                    ('ends_at', models.DateTimeField()),
                    ('used_at', models.DateTimeField(null=True)),
                    ('withdrawn_at', models.DateTimeField(null=True)),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='invitations', to='kitchens.kitchen')),
                    ('made_by', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL)),
                    ('used_by', models.ForeignKey(null=True, on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL)),
                ],
                options={
                    'indexes': [
                        models.Index(fields=['kitchen', 'made_at'], name='invitations_of_kitchen'),
                    ],
                    'constraints': [
                        models.CheckConstraint(condition=models.Q(('role__in', ['reader', 'helper', 'cook', 'owner'])), name='invitation_role'),
                    ],
                },
            ),
        ),
    ]
