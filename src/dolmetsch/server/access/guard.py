"""The guard before every operation of the API: signed in, a member, and with the role its rule asks for."""

from collections.abc import Callable
from typing import Any
from zoneinfo import ZoneInfo

from django.http import HttpRequest
from django.utils import timezone
from ninja import NinjaAPI
from ninja.errors import HttpError
from ninja.operation import Operation
from ninja.security import SessionAuth
from ninja.utils import check_csrf
from pydantic import BaseModel

from dolmetsch.server.access.devices import TABLET, device_of, is_tablet
from dolmetsch.server.access.money import HIDES, Shape, shape_of
from dolmetsch.server.access.rules import RULES, Rule
from dolmetsch.server.access.throttle import address_of
from dolmetsch.server.again import tried_again
from dolmetsch.server.audit.noting import Origin, note_refused
from dolmetsch.server.kitchens.clock import told_zone
from dolmetsch.server.kitchens.models import Kitchen, Membership, Role
from dolmetsch.server.kitchens.queries import membership_of, refuse_role
from dolmetsch.server.problems import DomainError
from dolmetsch.server.quantities.calendar import write_as_in


class Guard(SessionAuth):
    """Lets an operation's callers through by its rule."""

    def __init__(self, operation: str, rule: Rule, answer: Shape) -> None:
        super().__init__()
        self.operation, self.rule, self.answer = operation, rule, answer

    def authenticate(self, request: HttpRequest, key: str | None) -> Any:
        """The user, where the rule lets them; None where nobody is signed in.

        Raises:
            DomainError: not_found (no kitchen of theirs), not_allowed, money_hidden, on_tablet.
        """
        user = super().authenticate(request, key)
        if user is None:
            return None
        remember_origin(request, self.operation, self.rule)
        if is_tablet(request) and (self.rule.is_own or self.rule.least == Role.OWNER):
            said = "This is the kitchen's tablet. Sign in on a device of your own for that."
            raise DomainError("on_tablet", 403, "Not on the tablet", said)
        if self.rule.least is None:
            return user
        match = request.resolver_match
        membership = membership_of(request, str(match.kwargs["kitchen_slug"] if match else ""))
        if is_tablet(request) and membership.kitchen_id != request.session[TABLET]:
            raise DomainError("on_tablet", 403, "Not on the tablet", "This is another kitchen’s tablet.")
        if (error := refuse_role(membership, self.rule.least)) is not None:
            self._refuse(request, membership, error)
        if zone := _zone_of(request, membership.kitchen):
            # until the request is answered (config.clock): days go by the kitchen's clock, not the device's
            timezone.activate(ZoneInfo(zone))
        write_as_in(membership.kitchen.in_country)
        if not membership.sees_money:
            if self.rule.is_money:
                said = "The owner of this kitchen keeps prices from helpers."
                self._refuse(request, membership, DomainError("money_hidden", 403, "Not for you", said))
            request.__dict__[HIDES] = self.answer
        return user

    def _refuse(self, request: HttpRequest, membership: Membership, error: DomainError) -> None:
        note_refused(
            origin_of(request),
            kitchen=membership.kitchen,
            user=membership.user,
            now=timezone.now(),
            words=f"was refused ({error.code.replace('_', ' ')}): {self.rule.words or self.operation}",
        )
        raise error


def _zone_of(request: HttpRequest, kitchen: Kitchen) -> str:
    """The kitchen's time zone; one that has none takes that of the first device that tells one, so that all
    rooms go by one clock. Empty: none is told.
    """
    told = told_zone(request)
    if not kitchen.time_zone and told:
        Kitchen.objects.filter(pk=kitchen.pk, time_zone="").update(time_zone=told)
        kitchen.time_zone = told
    return kitchen.time_zone


def guard_operations(api: NinjaAPI) -> None:
    """Put a guard before each operation of ``api``, also before those that are open to all; what the record
    store could not do just then is tried again (``again``).

    Raises:
        LookupError: an operation has no rule.
    """
    for bound in api._get_bound_routers():
        for view in bound.path_operations.values():
            for operation in view.operations:
                name = str(operation.operation_id)
                rule = RULES.get(name)
                if rule is None:
                    raise LookupError(f"{name} has no rule: say in access/rules.py who may do it")
                operation.view_func = tried_again(operation.view_func)
                guard = Guard(name, rule, _shape_of_answers(operation))
                operation.auth_callbacks = [_opening(name, rule) if rule.is_open else guard]


def _shape_of_answers(operation: Operation) -> Shape:
    """What an operation may answer, whatever its status."""
    found = Shape()
    for model in operation.response_models.values():
        if isinstance(model, type) and issubclass(model, BaseModel):
            # Ninja wraps what was declared in a record of one field
            found = found.or_else(shape_of(model.model_fields["response"].annotation))
    return found


def _opening(name: str, rule: Rule) -> Callable[[HttpRequest], bool]:
    def remember(request: HttpRequest) -> bool:
        # what is read needs none, and is let through by the check itself
        if not rule.without_token and check_csrf(request) is not None:
            raise HttpError(403, "CSRF check failed")
        remember_origin(request, name, rule)
        return True

    return remember


def remember_origin(request: HttpRequest, operation: str, rule: Rule) -> None:
    """Note on the request where what it may write comes from."""
    request.__dict__["origin"] = Origin(
        operation=operation,
        words=rule.words,
        path=request.path,
        device=device_of(request),
        address=address_of(request),
        least=rule.least,
    )


def origin_of(request: HttpRequest) -> Origin:
    """Where what a request writes comes from.

    Raises:
        TypeError: the request has passed no guard.
    """
    found = request.__dict__.get("origin")
    if not isinstance(found, Origin):
        raise TypeError("called for a request that has passed no guard")
    return found
