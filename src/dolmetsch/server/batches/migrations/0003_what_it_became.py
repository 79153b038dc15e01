"""What batches became is kept for the books, beside the method they were made by."""


from django.conf import settings
from django.db import migrations, models


class Migration(migrations.Migration):

    dependencies = [
        ('batches', '0002_course'),
        ('kitchens', '0001_tables'),
        migrations.swappable_dependency(settings.AUTH_USER_MODEL),
    ]

    operations = [
        migrations.RemoveIndex(
            model_name='batchfacts',
            name='facts_by_cut',
        ),
        migrations.AddField(
            model_name='batchfacts',
            name='course',
            field=models.CharField(blank=True, db_default='', default='', max_length=16),
        ),
        migrations.AddField(
            model_name='batchfacts',
            name='is_long',
            field=models.BooleanField(db_default=False, default=False),
        ),
        migrations.AddIndex(
            model_name='batchfacts',
            index=models.Index(fields=['kitchen', 'cut', 'way', 'course', 'is_long', 'finished_at'], name='facts_by_cut'),
        ),
    ]
