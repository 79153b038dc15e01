"""Reads: which kitchens someone cooks in."""

from django.http import HttpRequest

from dolmetsch.server.kitchens.models import Kitchen, User
from dolmetsch.server.problems import DomainError


def get_kitchen(user: User, slug: str) -> Kitchen:
    """The kitchen ``slug`` where ``user`` is a member.

    Raises:
        DomainError: not_found, also where it exists but is not theirs.
    """
    try:
        return Kitchen.objects.get(slug=slug, memberships__user=user)
    except Kitchen.DoesNotExist as error:
        said = f"You cook in no kitchen called “{slug}”."
        raise DomainError("not_found", 404, "Not here", said) from error


def list_kitchens(user: User) -> list[Kitchen]:
    """The kitchens of ``user``, by name."""
    return list(Kitchen.objects.filter(memberships__user=user).order_by("name"))


def signed_in(request: HttpRequest) -> User:
    """The user of a request that has passed authentication."""
    user = request.user
    if not isinstance(user, User):
        raise TypeError("called for a request that is not signed in")
    return user


def kitchen_of(request: HttpRequest, slug: str) -> Kitchen:
    """The kitchen a request is about, where its user is a member; looked up once a request."""
    known: dict[str, Kitchen] = request.__dict__.setdefault("kitchens", {})
    if slug not in known:
        known[slug] = get_kitchen(signed_in(request), slug)
    return known[slug]
