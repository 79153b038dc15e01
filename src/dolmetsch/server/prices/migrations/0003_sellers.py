"""Sellers' names that stand for another one."""

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [
        ("kitchens", "0001_tables"),
        ("prices", "0002_replaces"),
        migrations.swappable_dependency(settings.AUTH_USER_MODEL),
    ]

    operations = [
        migrations.CreateModel(
            name="SellerName",
            fields=[
                (
                    "id",
                    models.BigAutoField(
                        auto_created=True, primary_key=True, serialize=False, verbose_name="ID"
                    ),
                ),
                ("recorded_at", models.DateTimeField()),
                ("key", models.UUIDField()),
                ("fingerprint", models.CharField(max_length=64)),
                ("name", models.CharField(max_length=60)),
                ("same_as", models.CharField(blank=True, max_length=60)),
                (
                    "kitchen",
                    models.ForeignKey(
                        on_delete=django.db.models.deletion.PROTECT, related_name="+", to="kitchens.kitchen"
                    ),
                ),
                (
                    "recorded_by",
                    models.ForeignKey(
                        on_delete=django.db.models.deletion.PROTECT,
                        related_name="+",
                        to=settings.AUTH_USER_MODEL,
                    ),
                ),
            ],
            options={
                "constraints": [
                    models.UniqueConstraint(fields=("kitchen", "key"), name="sellername_key_once")
                ],
            },
        ),
    ]
