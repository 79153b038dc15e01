"""The people of a kitchen: only maps requests to reads and writes."""

from typing import Annotated

from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Path, Query, Router, Status

from dolmetsch.server.access.api import show_session
from dolmetsch.server.access.demo_sign_in import DEMO_USERNAME
from dolmetsch.server.access.guard import origin_of
from dolmetsch.server.access.own_api import show_own_page
from dolmetsch.server.access.own_data import collect_own_data
from dolmetsch.server.access.passwords import make_password_link
from dolmetsch.server.access.schemas import OwnName, OwnPage, Session
from dolmetsch.server.access.sessions import begin_session, make_tablet
from dolmetsch.server.access.throttle import slow_guesses
from dolmetsch.server.audit.models import ABOUT
from dolmetsch.server.audit.noting import note_done
from dolmetsch.server.kitchens.models import User
from dolmetsch.server.kitchens.queries import kitchen_of, signed_in
from dolmetsch.server.people import mail, members, schemas
from dolmetsch.server.people.audit_book import Form, read_audit, write_audit
from dolmetsch.server.people.links import show_link
from dolmetsch.server.people.naming import rename
from dolmetsch.server.people.queries import list_people
from dolmetsch.server.problems import DomainError
from dolmetsch.server.responses import answer_with
from dolmetsch.server.tables.writing import TABLE_TYPES

router = Router(tags=["people"])
#: What opens by an invitation's code, without being in a kitchen yet.
door = Router(tags=["people"])
Words = Annotated[str, Query(max_length=80)]


@router.get("/people", response=schemas.PeopleOut, operation_id="getPeople")
def get_people(request: HttpRequest, kitchen_slug: Path[str]) -> schemas.PeopleOut:
    """Who is in the kitchen, who was, and who is invited."""
    return list_people(kitchen_of(request, kitchen_slug), signed_in(request), timezone.now())


@router.post("/invitations", response={201: schemas.LinkOut}, operation_id="invite")
def post_invitation(
    request: HttpRequest, kitchen_slug: Path[str], body: schemas.InviteIn
) -> Status[schemas.LinkOut]:
    """Invite someone: a link and a code that work once, for two days; by mail too, to an address given."""
    kitchen, user, now = kitchen_of(request, kitchen_slug), signed_in(request), timezone.now()
    if body.mail:
        mail.refuse_bad_address(body.mail)
    made, code = members.invite(kitchen, body, user=user, origin=origin_of(request), now=now)
    shown = show_link(request, "join", code, made.ends_at)
    if body.mail:
        text = mail.INVITED.format(
            by=user.called,
            kitchen=kitchen.name,
            role=made.role,
            link=shown.link,
            address=shown.link.removesuffix(f"/{code}"),
            code=code,
        )
        shown.mailed = mail.send(body.mail, subject=f"Invitation to {kitchen.name}", text=text)
    return Status(201, shown)


@router.delete("/invitations/{invitation_id}", response=schemas.PeopleOut, operation_id="withdrawInvitation")
def delete_invitation(request: HttpRequest, kitchen_slug: Path[str], invitation_id: int) -> schemas.PeopleOut:
    """An invitation works no more."""
    kitchen, user, now = kitchen_of(request, kitchen_slug), signed_in(request), timezone.now()
    members.withdraw(kitchen, invitation_id, user=user, origin=origin_of(request), now=now)
    return list_people(kitchen, user, now)


@router.put("/people/{member_id}/role", response=schemas.PeopleOut, operation_id="changeRole")
def put_role(
    request: HttpRequest, kitchen_slug: Path[str], member_id: int, body: schemas.RoleIn
) -> schemas.PeopleOut:
    """Give someone another role."""
    kitchen, user, now = kitchen_of(request, kitchen_slug), signed_in(request), timezone.now()
    members.change_role(kitchen, member_id, body.role, user=user, origin=origin_of(request), now=now)
    return list_people(kitchen, user, now)


@router.delete("/people/{member_id}", response=schemas.PeopleOut, operation_id="removeMember")
def delete_member(request: HttpRequest, kitchen_slug: Path[str], member_id: int) -> schemas.PeopleOut:
    """Take someone out of the kitchen; what they recorded stays under their name."""
    kitchen, user, now = kitchen_of(request, kitchen_slug), signed_in(request), timezone.now()
    members.remove(kitchen, member_id, user=user, origin=origin_of(request), now=now)
    return list_people(kitchen, user, now)


@router.delete("/people/{member_id}/name", response=schemas.PeopleOut, operation_id="removeName")
def delete_name(request: HttpRequest, kitchen_slug: Path[str], member_id: int) -> schemas.PeopleOut:
    """Replace the name of someone who left by a number, in every record."""
    kitchen, user, now = kitchen_of(request, kitchen_slug), signed_in(request), timezone.now()
    members.remove_name(kitchen, member_id, user=user, origin=origin_of(request), now=now)
    return list_people(kitchen, user, now)


@router.get("/people/{member_id}/data", operation_id="exportPerson")
def get_person(request: HttpRequest, kitchen_slug: Path[str], member_id: int) -> HttpResponse:
    """What the kitchen keeps about a person, as JSON."""
    kitchen = kitchen_of(request, kitchen_slug)
    content = collect_own_data(members.find_member(kitchen, member_id).user, kitchen)
    headers = {"Content-Disposition": 'attachment; filename="person.json"'}
    return HttpResponse(content, content_type="application/json", headers=headers)


@router.post(
    "/people/{member_id}/password-link",
    response={201: schemas.LinkOut},
    operation_id="linkForPassword",
)
def post_password_link(
    request: HttpRequest, kitchen_slug: Path[str], member_id: int
) -> Status[schemas.LinkOut]:
    """A link by which someone in the kitchen sets a new password, once, within a day."""
    kitchen, user, now = kitchen_of(request, kitchen_slug), signed_in(request), timezone.now()
    place = members.find_member(kitchen, member_id)
    members.refuse_other_kitchens(place)
    code, ends_at = make_password_link(place.user, user, now)
    words = f"made a link for a new password of {ABOUT}"
    note_done(origin_of(request), kitchen=kitchen, user=user, now=now, words=words, about=place.user)
    return Status(201, show_link(request, "password", code, ends_at))


@router.delete("/people", response=Session, operation_id="leaveKitchen")
def delete_me(request: HttpRequest, kitchen_slug: Path[str]) -> Session:
    """Leave the kitchen; what one recorded stays."""
    kitchen, user, now = kitchen_of(request, kitchen_slug), signed_in(request), timezone.now()
    members.leave(kitchen, user=user, origin=origin_of(request), now=now)
    return show_session(request)


@router.put("/tablet-code", response=schemas.TabletCodeIn, operation_id="setTabletCode")
def put_tablet_code(
    request: HttpRequest, kitchen_slug: Path[str], body: schemas.TabletCodeIn
) -> schemas.TabletCodeIn:
    """Set one's own code for the kitchen's tablet."""
    kitchen, user, now = kitchen_of(request, kitchen_slug), signed_in(request), timezone.now()
    members.set_tablet_code(kitchen, body.code, user=user, origin=origin_of(request), now=now)
    return schemas.TabletCodeIn(code="")


@router.post("/tablet", response=Session, operation_id="makeTablet")
def post_tablet(request: HttpRequest, kitchen_slug: Path[str]) -> Session:
    """Make this device the kitchen's tablet: whoever works there says who they are by a short code."""
    kitchen, user = kitchen_of(request, kitchen_slug), signed_in(request)
    note_done(origin_of(request), kitchen=kitchen, user=user, now=timezone.now())
    make_tablet(request, user, kitchen)
    return show_session(request)


@router.get("/audit", response=schemas.AuditPage, operation_id="getAudit")
def get_audit(
    request: HttpRequest,
    kitchen_slug: Path[str],
    words: Words = "",
    page: Annotated[int, Query(ge=1, le=10_000)] = 1,
) -> schemas.AuditPage:
    """Who did what, the latest first; by words."""
    return read_audit(kitchen_of(request, kitchen_slug), words, page)


@router.get(
    "/audit.{form}",
    operation_id="exportAudit",
    openapi_extra=answer_with(TABLE_TYPES["csv"], TABLE_TYPES["xlsx"]),
)
def get_audit_file(
    request: HttpRequest, kitchen_slug: Path[str], form: Form, words: Words = ""
) -> HttpResponse:
    """Who did what, as CSV or XLSX."""
    content = write_audit(kitchen_of(request, kitchen_slug), words, form)
    headers = {"Content-Disposition": f'attachment; filename="audit.{form}"'}
    return HttpResponse(content, content_type=TABLE_TYPES[form], headers=headers)


@door.put("/own/name", response=OwnPage, operation_id="changeOwnName")
def put_name(request: HttpRequest, body: OwnName) -> OwnPage:
    """Change what the others call one; records of before show the new name too."""
    user = signed_in(request)
    rename(user, body.name.strip() or user.called)
    note_done(origin_of(request), kitchen=None, user=user, now=timezone.now(), words="changed their name")
    return show_own_page(request)


@door.get("/invitations/{code}", response=schemas.InvitedOut, auth=None, operation_id="showInvitation")
def get_invitation(request: HttpRequest, code: str) -> schemas.InvitedOut:
    """What an invitation is into."""
    with slow_guesses(request, "an invitation", wrong="no_invitation"):
        found = members.find_invitation(code, timezone.now())
    return schemas.InvitedOut(
        kitchen=found.kitchen.name,
        role=found.role,  # type: ignore[arg-type]
        called=found.called,
        made_by=found.made_by.called,
        ends_at=found.ends_at,
    )


@door.post("/invitations/{code}", response={201: schemas.JoinedOut}, auth=None, operation_id="joinKitchen")
def post_join(request: HttpRequest, code: str, body: schemas.JoinIn) -> Status[schemas.JoinedOut]:
    """Use an invitation: as who is signed in, or as a new person, who is signed in then."""
    user = request.user if isinstance(request.user, User) and not body.username else None
    if user is not None and user.get_username() == DEMO_USERNAME:
        said = "You are looking around in the demo. Sign out, or choose a name and a password of your own."
        raise DomainError("is_demo", 409, "Not joined", said)
    with slow_guesses(request, "an invitation", wrong="no_invitation"):
        place = members.join(code, body, user=user, origin=origin_of(request), now=timezone.now())
    if user is None:
        begin_session(request, place.user)
    return Status(201, schemas.JoinedOut(slug=place.kitchen.slug, session=show_session(request)))
