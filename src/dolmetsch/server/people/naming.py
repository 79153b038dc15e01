"""A person's name, changed wherever it is shown."""

from django.db import transaction
from django.db.models import F

from dolmetsch.server.kitchens.models import Kitchen, User


def rename(user: User, called: str) -> None:
    """Call ``user`` by another name, also on what they recorded."""
    with transaction.atomic():
        user.first_name = called
        user.save(update_fields=["first_name"])
        kitchens = Kitchen.objects.filter(memberships__user=user)
        # answers kept until the next write name them
        Kitchen.objects.filter(pk__in=[one.pk for one in kitchens]).update(writes=F("writes") + 1)
