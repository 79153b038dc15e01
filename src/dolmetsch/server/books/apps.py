"""The books as a Django app."""

from django.apps import AppConfig


class BooksConfig(AppConfig):
    """Books: yields, money and prices."""

    name = "dolmetsch.server.books"
    default_auto_field = "django.db.models.BigAutoField"
