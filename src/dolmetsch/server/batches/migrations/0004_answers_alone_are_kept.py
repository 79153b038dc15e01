"""A batch no longer keeps its page and the figures of its verdict: answers are kept, all by one rule.

The columns stay for programs of the edition before, which go on writing them, and go with a later one.
"""

from django.db import migrations

UNUSED = {'page': "''", 'page_edition': "''", 'renewals': '0', 'figures': "''"}


class Migration(migrations.Migration):

    dependencies = [
        ('batches', '0003_what_it_became'),
    ]

    operations = [
        migrations.SeparateDatabaseAndState(
            database_operations=[
                migrations.RunSQL(
                    f'ALTER TABLE batches_batch ALTER COLUMN {column} SET DEFAULT {default}',
                    f'ALTER TABLE batches_batch ALTER COLUMN {column} DROP DEFAULT',
                )
            ],
            state_operations=[migrations.RemoveField('batch', column)],
        )
        for column, default in UNUSED.items()
    ]
