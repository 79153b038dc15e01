"""Reads: which kitchens someone cooks in, and as what."""

from django.http import HttpRequest

from dolmetsch.server.kitchens.models import Kitchen, Membership, Role, User
from dolmetsch.server.problems import DomainError


def get_membership(user: User, slug: str) -> Membership:
    """The place of ``user`` in the kitchen ``slug``, with the kitchen.

    Raises:
        DomainError: not_found, also where the kitchen exists but is not theirs, or theirs no more.
    """
    try:
        places = Membership.objects.select_related("kitchen")
        return places.get(kitchen__slug=slug, user=user, left_at=None, kitchen__put_away_at=None)
    except Membership.DoesNotExist as error:
        said = f"You cook in no kitchen called “{slug}”."
        raise DomainError("not_found", 404, "Not here", said) from error


def list_memberships(user: User) -> list[Membership]:
    """The places of ``user`` in kitchens, by the kitchens' names."""
    places = Membership.objects.select_related("kitchen")
    return list(places.filter(user=user, left_at=None, kitchen__put_away_at=None).order_by("kitchen__name"))


def signed_in(request: HttpRequest) -> User:
    """The user of a request that has passed authentication.

    Raises:
        TypeError: nobody is signed in.
    """
    user = request.user
    if not isinstance(user, User):
        raise TypeError("called for a request that is not signed in")
    return user


def membership_of(request: HttpRequest, slug: str) -> Membership:
    """The place in the kitchen ``slug`` of whoever asks; looked up once a request.

    Raises:
        DomainError: not_found.
    """
    known: dict[str, Membership] = request.__dict__.setdefault("memberships", {})
    if slug not in known:
        known[slug] = get_membership(signed_in(request), slug)
    return known[slug]


def kitchen_of(request: HttpRequest, slug: str) -> Kitchen:
    """The kitchen a request is about, where its user is a member.

    Raises:
        DomainError: not_found.
    """
    return membership_of(request, slug).kitchen


def refuse_role(membership: Membership, least: Role) -> DomainError | None:
    """The refusal of what is above the role of ``membership``; None where they may."""
    if Role(membership.role).covers(least):
        return None
    said = f"That is for {least.value}s of this kitchen; you are a {membership.role} in it. Ask an owner."
    return DomainError("not_allowed", 403, "Not for you", said)
