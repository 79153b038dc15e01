from django.db import migrations, models


class Migration(migrations.Migration):

    dependencies = [
        ('larder', '0003_weighings'),
    ]

    operations = [
        migrations.AddField(
            model_name='packnow',
            name='owner',
            field=models.CharField(blank=True, default='', max_length=80),
        ),
    ]
