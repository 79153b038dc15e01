"""The tables of access."""

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models

from dolmetsch.server.quantities.tables import CreateTables


class Migration(migrations.Migration):
    replaces = [
        ('access', '0001_initial'),
    ]
    initial = True
    dependencies = [
        ('kitchens', '0001_tables'),
    ]

    operations = [
        CreateTables(
            migrations.CreateModel(
                name='PasswordLink',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('code_hash', models.CharField(max_length=64, unique=True)),
                    ('made_at', models.DateTimeField()),
                    ('ends_at', models.DateTimeField()),
                    ('used_at', models.DateTimeField(null=True)),
                    ('made_by', models.ForeignKey(null=True, on_delete=django.db.models.deletion.SET_NULL, related_name='+', to=settings.AUTH_USER_MODEL)),
                    ('user', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='+', to=settings.AUTH_USER_MODEL)),
                ],
            ),
            migrations.CreateModel(
                name='SignedInDevice',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('session_key', models.CharField(max_length=40, unique=True)),
                    ('name', models.CharField(max_length=60)),
                    ('address', models.CharField(blank=True, max_length=45)),
                    ('since', models.DateTimeField()),
                    ('last_at', models.DateTimeField()),
                    ('kitchen', models.ForeignKey(null=True, on_delete=django.db.models.deletion.CASCADE, related_name='tablets', to='kitchens.kitchen')),
                    ('user', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='devices', to=settings.AUTH_USER_MODEL)),
                ],
                options={
                    'indexes': [
                        models.Index(fields=['user', 'last_at'], name='devices_of_user'),
                    ],
                },
            ),
        ),
    ]
