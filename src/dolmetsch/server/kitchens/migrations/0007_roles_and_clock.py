from django.db import migrations, models


class Migration(migrations.Migration):

    dependencies = [
        ('kitchens', '0006_writes'),
    ]

    operations = [
        migrations.AddField(
            model_name='kitchen',
            name='decimal_sign',
            field=models.CharField(default='.', max_length=1),
        ),
        migrations.AddField(
            model_name='kitchen',
            name='helpers_see_money',
            field=models.BooleanField(default=True),
        ),
        migrations.AddField(
            model_name='kitchen',
            name='put_away_at',
            field=models.DateTimeField(blank=True, null=True),
        ),
        migrations.AddField(
            model_name='kitchen',
            name='temperature_unit',
            field=models.CharField(choices=[('F', 'Fahrenheit'), ('C', 'Celsius')], default='F', max_length=1),
        ),
        migrations.AddField(
            model_name='kitchen',
            name='time_zone',
            field=models.CharField(blank=True, default='', max_length=60),
        ),
        migrations.AddField(
            model_name='membership',
            name='joined_at',
            field=models.DateTimeField(blank=True, null=True),
        ),
        migrations.AddField(
            model_name='membership',
            name='left_at',
            field=models.DateTimeField(blank=True, null=True),
        ),
        migrations.AddField(
            model_name='membership',
            name='role',
            field=models.CharField(choices=[('reader', 'Reader'), ('helper', 'Helper'), ('cook', 'Cook'), ('owner', 'Owner')], default='owner', max_length=6),
        ),
        migrations.AddField(
            model_name='membership',
            name='tablet_code',
            field=models.CharField(blank=True, default='', max_length=128),
        ),
        migrations.RunSQL(
            "UPDATE kitchens_kitchen SET temperature_unit = 'C' WHERE weight_unit = 'kg'",
            migrations.RunSQL.noop,
        ),
        migrations.AddConstraint(
            model_name='kitchen',
            constraint=models.CheckConstraint(condition=models.Q(('temperature_unit__in', ['F', 'C'])), name='kitchen_temperature_unit'),
        ),
        migrations.AddConstraint(
            model_name='kitchen',
            constraint=models.CheckConstraint(condition=models.Q(('decimal_sign__in', ['.', ','])), name='kitchen_decimal_sign'),
        ),
        migrations.AddConstraint(
            model_name='membership',
            constraint=models.CheckConstraint(condition=models.Q(('role__in', ['reader', 'helper', 'cook', 'owner'])), name='membership_role'),
        ),
    ]
