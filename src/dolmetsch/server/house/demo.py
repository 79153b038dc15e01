"""The demo kitchen put away, and brought back; its records stay."""

from django.utils import timezone

from dolmetsch.server.access.demo_sign_in import DEMO_USERNAME
from dolmetsch.server.house.schemas import DemoOut
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.problems import DomainError


def find_demo() -> Kitchen | None:
    """The demo's kitchen, where it was loaded."""
    return Kitchen.objects.filter(memberships__user__username=DEMO_USERNAME).order_by("pk").first()


def show_demo() -> DemoOut:
    """Whether the demo is there."""
    demo = find_demo()
    return DemoOut(is_there=demo is not None, is_away=demo is not None and demo.put_away_at is not None)


def put_demo_away(is_away: bool) -> DemoOut:
    """Put the demo away or bring it back.

    Raises:
        DomainError: not_found (there is none).
    """
    demo = find_demo()
    if demo is None:
        raise DomainError("not_found", 404, "Not here", "The demo was not loaded on this machine.")
    demo.put_away_at = timezone.now() if is_away else None
    demo.save(update_fields=["put_away_at"])
    return show_demo()
