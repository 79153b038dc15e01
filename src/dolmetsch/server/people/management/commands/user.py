"""``user``: a new person, a link for a new password, locking someone out."""

from typing import Any

from django.core.management.base import BaseCommand, CommandError, CommandParser
from django.db import transaction
from django.utils import timezone

from dolmetsch.server.access.passwords import make_password_link
from dolmetsch.server.access.second_factor import end_second_factor
from dolmetsch.server.access.sessions import end_sessions
from dolmetsch.server.audit.models import ABOUT
from dolmetsch.server.audit.noting import COMMAND, note_done
from dolmetsch.server.house.starting import make_person
from dolmetsch.server.kitchens.models import Kitchen, Membership, Role, User
from dolmetsch.server.problems import DomainError
from dolmetsch.server.writing.once import lock_kitchen


class Command(BaseCommand):
    """People, for who keeps the machine."""

    help = "Make a person, a link for a new password, or lock someone out."

    def add_arguments(self, parser: CommandParser) -> None:
        """``new NAME --kitchen SLUG --role cook``, ``password NAME``, ``lock NAME``, ``unlock NAME``."""
        parser.add_argument("verb", choices=["new", "password", "lock", "unlock", "list"])
        parser.add_argument("name", nargs="?", default="", help="the name they sign in with")
        parser.add_argument("--kitchen", default="", help="the kitchen's name in addresses")
        parser.add_argument("--role", choices=Role.values, default="cook")
        parser.add_argument("--without-second-factor", action="store_true", help="with password: end it too")

    def handle(self, *args: Any, **options: Any) -> None:
        """Do it, or say what is wrong."""
        if not options["name"] and options["verb"] != "list":
            raise CommandError("Say who: the name they sign in with.")
        try:
            with transaction.atomic():
                getattr(self, f"_{options['verb']}")(options)
        except DomainError as error:
            said = " ".join(one.message for one in error.fields) or error.detail
            raise CommandError(said) from error

    def _list(self, _options: dict[str, Any]) -> None:
        for user in User.objects.order_by("username"):
            places = user.memberships.filter(left_at=None).select_related("kitchen")
            where = ", ".join(f"{one.role} of {one.kitchen.slug}" for one in places) or "in no kitchen"
            locked = "" if user.is_active else ", locked"
            self.stdout.write(f"{user.get_username()}: {user.called}, {where}{locked}")

    def _new(self, options: dict[str, Any]) -> None:
        kitchen = Kitchen.objects.filter(slug=options["kitchen"]).first()
        if kitchen is None:
            raise CommandError(f"There is no kitchen “{options['kitchen']}”; see ./dolmetsch kitchen list.")
        lock_kitchen(kitchen)
        user, is_new = make_person(options["name"])
        place, _made = Membership.objects.get_or_create(user=user, kitchen=kitchen)
        place.role, place.joined_at, place.left_at = options["role"], timezone.now(), None
        place.save()
        self._note(user, f"made {ABOUT} {options['role']}", kitchen)
        self.stdout.write(f"{user.get_username()} is {options['role']} of {kitchen.slug}.")
        if is_new:
            self._link(user)

    def _password(self, options: dict[str, Any]) -> None:
        user = self._find(options["name"])
        if options["without_second_factor"]:
            end_second_factor(user)
        self._note(user, f"made a link for a new password of {ABOUT}")
        self._link(user)

    def _lock(self, options: dict[str, Any]) -> None:
        self._set_active(options["name"], False)

    def _unlock(self, options: dict[str, Any]) -> None:
        self._set_active(options["name"], True)

    def _set_active(self, name: str, is_active: bool) -> None:
        user = self._find(name)
        user.is_active = is_active
        user.save(update_fields=["is_active"])
        ended = 0 if is_active else end_sessions(user)
        word = "unlocked" if is_active else "locked"
        self._note(user, f"{word} {ABOUT}")
        self.stdout.write(f"{user.get_username()} is {word}; signed out on {ended} devices.")

    def _link(self, user: User) -> None:
        code, _ends = make_password_link(user, None, timezone.now())
        self.stdout.write(f"{user.get_username()} sets a password within a day at /password/{code}")

    def _find(self, name: str) -> User:
        user = User.objects.filter(username=name).first()
        if user is None:
            raise CommandError(f"Nobody signs in as “{name}”; see ./dolmetsch user list.")
        return user

    def _note(self, user: User, words: str, kitchen: Kitchen | None = None) -> None:
        note_done(COMMAND, kitchen=kitchen, user=None, now=timezone.now(), made=user, words=words, about=user)
