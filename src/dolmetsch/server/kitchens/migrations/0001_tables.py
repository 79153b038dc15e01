"""The tables of kitchens."""

import django.contrib.auth.models
import django.contrib.auth.validators
import django.db.models.deletion
import django.utils.timezone
from django.conf import settings
from django.db import migrations, models

from dolmetsch.server.quantities.tables import CreateTables


class Migration(migrations.Migration):
    replaces = [
        ('kitchens', '0001_initial'),
        ('kitchens', '0002_whole_ledger'),
        ('kitchens', '0003_yields_edition'),
        ('kitchens', '0004_sign_in_failures'),
        ('kitchens', '0005_derived_edition'),
        ('kitchens', '0006_writes'),
        ('kitchens', '0007_roles_and_clock'),
    ]
    initial = True
    dependencies = [
        ('auth', '0012_alter_user_first_name_max_length'),
    ]

    operations = [
        CreateTables(
            migrations.CreateModel(
                name='User',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('password', models.CharField(max_length=128, verbose_name='password')),
                    ('last_login', models.DateTimeField(blank=True, null=True, verbose_name='last login')),
                    ('is_superuser', models.BooleanField(default=False, help_text='Designates that this user has all permissions without explicitly assigning them.', verbose_name='superuser status')),
                    ('username', models.CharField(error_messages={'unique': 'A user with that username already exists.'}, help_text='Required. 150 characters or fewer. Letters, digits and @/./+/-/_ only.', max_length=150, unique=True, validators=[django.contrib.auth.validators.UnicodeUsernameValidator()], verbose_name='username')),
                    ('first_name', models.CharField(blank=True, max_length=150, verbose_name='first name')),
                    ('last_name', models.CharField(blank=True, max_length=150, verbose_name='last name')),
                    ('email', models.EmailField(blank=True, max_length=254, verbose_name='email address')),
                    ('is_staff', models.BooleanField(default=False, help_text='Designates whether the user can log into this admin site.', verbose_name='staff status')),
                    ('is_active', models.BooleanField(default=True, help_text='Designates whether this user should be treated as active. Unselect this instead of deleting accounts.', verbose_name='active')),
                    ('date_joined', models.DateTimeField(default=django.utils.timezone.now, verbose_name='date joined')),
                    ('groups', models.ManyToManyField(blank=True, help_text='The groups this user belongs to. A user will get all permissions granted to each of their groups.', related_name='user_set', related_query_name='user', to='auth.group', verbose_name='groups')),
                    ('user_permissions', models.ManyToManyField(blank=True, help_text='Specific permissions for this user.', related_name='user_set', related_query_name='user', to='auth.permission', verbose_name='user permissions')),
                ],
                options={
                    'verbose_name': 'user',
                    'verbose_name_plural': 'users',
                },
                managers=[
                    ('objects', django.contrib.auth.models.UserManager()),
                ],
            ),
            migrations.CreateModel(
                name='Kitchen',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('slug', models.SlugField(max_length=40, unique=True)),
                    ('name', models.CharField(max_length=80)),
                    ('weight_unit', models.CharField(choices=[('lb', 'Lb'), ('kg', 'Kg')], default='lb', max_length=2)),
                    ('currency', models.CharField(default='USD', max_length=3)),
                    ('temperature_unit', models.CharField(choices=[('F', 'Fahrenheit'), ('C', 'Celsius')], default='F', max_length=1)),
                    ('time_zone', models.CharField(blank=True, default='', max_length=60)),
                    ('decimal_sign', models.CharField(default='.', max_length=1)),
                    ('helpers_see_money', models.BooleanField(default=True)),
                    ('put_away_at', models.DateTimeField(blank=True, null=True)),
                    ('labour_rate', models.DecimalField(blank=True, decimal_places=2, max_digits=8, null=True)),
                    ('credit_by_products', models.BooleanField(default=True)),
                    ('count_fuel', models.BooleanField(default=True)),
                    ('count_packaging', models.BooleanField(default=True)),
                    ('count_overhead', models.BooleanField(default=True)),
                    ('scale_grams', models.DecimalField(blank=True, decimal_places=3, max_digits=9, null=True)),
                    ('fridge_slabs', models.PositiveSmallIntegerField(blank=True, null=True)),
                    ('smoker_slabs', models.PositiveSmallIntegerField(blank=True, null=True)),
                    ('derived_edition', models.CharField(default='', editable=False, max_length=8)),
                    ('writes', models.PositiveBigIntegerField(default=0, editable=False)),
                ],
                options={
                    'constraints': [
                        models.CheckConstraint(condition=models.Q(('scale_grams__isnull', True), ('scale_grams__gt', 0), _connector='OR'), name='kitchen_scale'),
                        models.CheckConstraint(condition=models.Q(('weight_unit__in', ['lb', 'kg'])), name='kitchen_unit'),
                        models.CheckConstraint(condition=models.Q(('temperature_unit__in', ['F', 'C'])), name='kitchen_temperature_unit'),
                        models.CheckConstraint(condition=models.Q(('decimal_sign__in', ['.', ','])), name='kitchen_decimal_sign'),
                        models.CheckConstraint(condition=models.Q(('labour_rate__isnull', True), ('labour_rate__gte', 0), _connector='OR'), name='kitchen_labour_rate'),
                    ],
                },
            ),
            migrations.CreateModel(
                name='SignInFailure',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('name', models.CharField(max_length=150)),
                    ('address', models.CharField(max_length=45)),
                    ('at', models.DateTimeField()),
                ],
                options={
                    'indexes': [
                        models.Index(fields=['address', 'name', 'at'], name='failures_of_name'),
                        models.Index(fields=['address', 'at'], name='failures_of_address'),
                        models.Index(fields=['at'], name='failures_by_age'),
                    ],
                },
            ),
            migrations.CreateModel(
                name='Membership',
                fields=[
                    ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                    ('role', models.CharField(choices=[('reader', 'Reader'), ('helper', 'Helper'), ('cook', 'Cook'), ('owner', 'Owner')], default='owner', max_length=6)),
                    ('joined_at', models.DateTimeField(blank=True, null=True)),
                    ('left_at', models.DateTimeField(blank=True, null=True)),
                    ('tablet_code', models.CharField(blank=True, default='', max_length=128)),
                    ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='memberships', to='kitchens.kitchen')),
                    ('user', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='memberships', to=settings.AUTH_USER_MODEL)),
                ],
                options={
                    'constraints': [
                        models.UniqueConstraint(fields=('user', 'kitchen'), name='membership_once'),
                        models.CheckConstraint(condition=models.Q(('role__in', ['reader', 'helper', 'cook', 'owner'])), name='membership_role'),
                    ],
                },
            ),
        ),
    ]
