"""``kitchen``: start a kitchen, list those there are, put the demo away or bring it back."""

from typing import Any

from django.core.management.base import BaseCommand, CommandError, CommandParser
from django.db.models import Count, Q
from django.utils import timezone

from dolmetsch.server.access.passwords import make_password_link
from dolmetsch.server.audit.noting import COMMAND
from dolmetsch.server.house.demo import put_demo_away
from dolmetsch.server.house.schemas import StartKitchenIn
from dolmetsch.server.house.starting import make_person, start_kitchen
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.problems import DomainError


class Command(BaseCommand):
    """Kitchens, for who keeps the machine."""

    help = "Start a kitchen, list those there are, or put the demo away."

    def add_arguments(self, parser: CommandParser) -> None:
        """``new NAME --owner NAME``, ``list``, ``demo away|back``."""
        parser.add_argument("verb", choices=["new", "list", "demo"])
        parser.add_argument("name", nargs="?", default="")
        parser.add_argument("--owner", default="", help="who owns it: a name to sign in with, new or known")
        parser.add_argument("--currency", default="USD")
        parser.add_argument("--unit", choices=["lb", "kg"], default="lb")
        parser.add_argument("--time-zone", default="")

    def handle(self, *args: Any, **options: Any) -> None:
        """Do it, or say what is wrong."""
        try:
            getattr(self, f"_{options['verb']}")(options)
        except DomainError as error:
            said = " ".join(one.message for one in error.fields) or error.detail
            raise CommandError(said) from error

    def _list(self, _options: dict[str, Any]) -> None:
        inside = Count("memberships", filter=Q(memberships__left_at=None))
        for kitchen in Kitchen.objects.annotate(people=inside).order_by("slug"):
            away = ", put away" if kitchen.put_away_at else ""
            people = "1 person" if kitchen.people == 1 else f"{kitchen.people} people"
            self.stdout.write(f"{kitchen.slug}: {kitchen.name}, {people}, {kitchen.currency}{away}")

    def _new(self, options: dict[str, Any]) -> None:
        if not options["name"] or not options["owner"]:
            raise CommandError("Say its name and its owner: kitchen new “Smoke House” --owner ibba")
        is_metric = options["unit"] == "kg"
        data = StartKitchenIn(
            name=options["name"],
            currency=options["currency"],
            weight_unit=options["unit"],
            temperature_unit="C" if is_metric else "F",
            time_zone=options["time_zone"],
        )
        now = timezone.now()
        owner, is_new = make_person(options["owner"])
        made = start_kitchen(data, user=owner, origin=COMMAND, now=now)
        self.stdout.write(f"{made.kitchen.slug}: started, owned by {owner.get_username()}.")
        if is_new:
            code, _ends = make_password_link(owner, None, now)
            self.stdout.write(f"{owner.get_username()} sets a password within a day at /password/{code}")

    def _demo(self, options: dict[str, Any]) -> None:
        if options["name"] not in ("away", "back"):
            raise CommandError("Say: kitchen demo away, or kitchen demo back.")
        put_demo_away(options["name"] == "away")
        self.stdout.write("The demo is put away." if options["name"] == "away" else "The demo is back.")
