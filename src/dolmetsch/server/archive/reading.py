"""An empty kitchen filled from an archive: all of it in one transaction, or nothing."""

import hashlib
import json
import secrets
import zipfile
from collections.abc import Iterator
from dataclasses import dataclass
from typing import IO, Any, Final

from django.core.exceptions import ValidationError
from django.db import DatabaseError, IntegrityError, models
from django.utils import timezone

from dolmetsch.core.errors import DolmetschError
from dolmetsch.server.archive import schemas
from dolmetsch.server.archive.tables import (
    MADE_ANEW,
    AnyModel,
    Row,
    columns_of,
    list_tables,
    read_value,
    rows_of,
)
from dolmetsch.server.archive.writing import FORMAT, SETTINGS
from dolmetsch.server.audit.noting import COMMAND, Origin, note_done
from dolmetsch.server.batches.forecast.derived import renew_kitchen
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.diary.models import Photo
from dolmetsch.server.diary.pictures import SIZES, put_file
from dolmetsch.server.kitchens.models import Kitchen, Membership, User
from dolmetsch.server.problems import DomainError
from dolmetsch.server.writing.once import locked_for

#: A file that unfolds to more than this is none of ours.
MAX_UNPACKED: Final = 4_000_000_000
MAX_FILES: Final = 500_000
#: One file of it is read into memory.
MAX_FILE: Final = 500_000_000
MAX_PEOPLE: Final = 500
#: Settings that archives did not have from the first.
_LATER: Final = frozenset({"temperature_unit", "time_zone", "decimal_sign", "helpers_see_money", "country"})
#: So many rows are written at once.
CHUNK: Final = 1_000


@dataclass(frozen=True, slots=True, kw_only=True)
class _Archive:
    """An archive whose files were held against its manifest."""

    zip: zipfile.ZipFile
    digests: dict[str, str]

    def read(self, path: str) -> bytes:
        """A file of it.

        Raises:
            DomainError: bad_archive, where it is missing or is not what the manifest says.
        """
        if path not in self.digests:
            raise _bad(f"“{path}” is missing")
        try:
            content = self.zip.read(path)
        except (KeyError, zipfile.BadZipFile, EOFError, OSError, RuntimeError, NotImplementedError) as error:
            raise _bad(f"“{path}” cannot be read") from error
        if hashlib.sha256(content).hexdigest() != self.digests[path]:
            raise _bad(f"“{path}” is not what the manifest says: the file is damaged or was changed")
        return content

    def read_json(self, path: str) -> Any:
        """A JSON file of it.

        Raises:
            DomainError: (bad_archive) it is not JSON.
        """
        try:
            return json.loads(self.read(path))
        except ValueError as error:
            raise _bad(f"“{path}” is not JSON") from error


def _bad(said: str) -> DomainError:
    return DomainError(
        "bad_archive", 422, "Not imported", f"{said[:1].upper()}{said[1:]}. Nothing was written."
    )


def is_empty(kitchen: Kitchen) -> bool:
    """Whether nothing was ever recorded in ``kitchen``."""
    return not any(rows_of(model, kitchen).exists() for model in list_tables())


def fill_kitchen(
    kitchen: Kitchen, cook: User, file: IO[bytes], origin: Origin = COMMAND
) -> schemas.FilledOut:
    """Fill an empty ``kitchen`` from an archive; ``cook`` is who does it.

    Raises:
        DomainError: bad_archive, not_empty; then nothing is written.
    """
    archive = _open(file)
    with locked_for(kitchen, cook, origin):
        if not is_empty(kitchen):
            said = (
                "This kitchen has records of its own. Everything can be brought into an empty kitchen only."
            )
            raise DomainError("not_empty", 409, "Not imported", said)
        _set(kitchen, archive.read_json("kitchen.json"))
        people = _find_people(kitchen, cook, archive.read_json("people.json"))
        made: dict[AnyModel, list[int]] = {}
        try:
            for model in list_tables():
                made[model] = _read_table(archive, model, kitchen, made, people)
            renew_kitchen(kitchen)
            _put_photos(archive, kitchen)
            note_done(origin, kitchen=kitchen, user=cook, now=timezone.now())
        except (ValidationError, TypeError, ValueError, KeyError, IndexError, AttributeError) as error:
            raise _bad(f"the records cannot be read: {error}") from error
        except (DolmetschError, IntegrityError, DatabaseError) as error:
            raise _bad(f"the records contradict each other: {error}") from error
    return schemas.FilledOut(
        batches=len(made[Batch]), records=sum(map(len, made.values())), people=len(people)
    )


def _open(file: IO[bytes]) -> _Archive:
    try:
        packed = zipfile.ZipFile(file)
        infos = packed.infolist()
        sizes = [info.file_size for info in infos]
        if len(sizes) > MAX_FILES or sum(sizes) > MAX_UNPACKED or max(sizes, default=0) > MAX_FILE:
            raise _bad("it unpacks to more than can be read")
        manifest = json.loads(packed.read("manifest.json"))
        form, digests = manifest["format"], manifest["files"]
    except (zipfile.BadZipFile, KeyError, ValueError, TypeError, EOFError, OSError, RuntimeError) as error:
        raise _bad("this is no ZIP of a kitchen, as “Export everything” writes it") from error
    if form != FORMAT or not isinstance(digests, dict):
        raise _bad(f"this is “{form}”; a file in {FORMAT} is read")
    return _Archive(zip=packed, digests=digests)


def _set(kitchen: Kitchen, settings: Row) -> None:
    try:
        # an archive of before has fewer settings
        for name in (one for one in SETTINGS if one in settings or one not in _LATER):
            field = Kitchen._meta.get_field(name)
            assert isinstance(field, models.Field)
            setattr(kitchen, name, read_value(field, settings[name]))
    except (ValidationError, TypeError, ValueError, KeyError) as error:
        raise _bad(f"“kitchen.json” cannot be read: {error}") from error
    kitchen.save(update_fields=SETTINGS)


def _find_people(kitchen: Kitchen, cook: User, names: Any) -> list[User]:
    """Who recorded, in their order: cooks of this kitchen of that name, else people who cannot sign in."""
    if not isinstance(names, list) or len(names) > MAX_PEOPLE:
        raise _bad("“people.json” cannot be read")
    here = {user.called: user for user in User.objects.filter(memberships__kitchen=kitchen)}
    found = []
    for number, name in enumerate(names, start=1):
        if not isinstance(name, str) or not 0 < len(name) <= 150 or not name.isprintable():
            raise _bad(f"person {number} of “people.json” has no name")
        user = here.pop(name, None)
        if user is None:
            user = User(username=f"{kitchen.slug}-{number}-{secrets.token_hex(4)}", first_name=name)
            user.is_active = False
            user.set_unusable_password()
            user.save()
            Membership.objects.create(user=user, kitchen=kitchen)
        found.append(user)
    return found


def _read_table(
    archive: _Archive, model: AnyModel, kitchen: Kitchen, made: dict[AnyModel, list[int]], people: list[User]
) -> list[int]:
    """The keys of a table's rows, written; those of one chunk refer to earlier chunks only."""
    rows: list[int] = []
    waiting: list[Any] = []

    def write() -> None:
        model._default_manager.bulk_create(waiting)
        rows.extend(one.pk for one in waiting)
        waiting.clear()

    path = f"records/{model._meta.db_table}.jsonl"
    for number, line in enumerate(archive.read(path).splitlines(), start=1):
        content = json.loads(line)
        if content.pop("row") != number:
            raise ValueError(f"{path}, line {number}: rows are not numbered in order")
        if any(refers >= len(rows) + 1 for refers in _own_references(model, content)):
            write()
        waiting.append(
            _read_row(model, kitchen, content, {**made, model: rows}, people, f"{path}, line {number}")
        )
        if len(waiting) >= CHUNK:
            write()
    write()
    return rows


def _own_references(model: AnyModel, content: Row) -> Iterator[int]:
    for field in columns_of(model):
        if isinstance(field, models.ForeignKey) and field.related_model is model and content.get(field.name):
            yield content[field.name]


def _read_row(
    model: AnyModel,
    kitchen: Kitchen,
    content: Row,
    made: dict[AnyModel, list[int]],
    people: list[User],
    place: str,
) -> Any:
    row = model()
    columns = columns_of(model)
    if set(content) != {field.name for field in columns}:
        odd = ", ".join(sorted(set(content) ^ {field.name for field in columns}))
        raise ValueError(f"{place}: columns differ ({odd})")
    for field in columns:
        value = content[field.name]
        try:
            if value is not None and isinstance(field, models.ForeignKey):
                is_person = field.related_model is User
                known = [user.pk for user in people] if is_person else made[field.related_model]
                if not isinstance(value, int) or not 1 <= value <= len(known):
                    raise ValueError(f"there is no row {value}")
                setattr(row, field.attname, known[value - 1])
            else:
                setattr(row, field.attname, read_value(field, value))
        except (ValidationError, TypeError, ValueError) as error:
            said = "; ".join(error.messages) if isinstance(error, ValidationError) else str(error)
            raise ValueError(f"{place}, {field.name}: {said}") from error
    if any(field.name == "kitchen" for field in model._meta.concrete_fields):
        setattr(row, "kitchen", kitchen)  # noqa: B010 (which models have one is known here only)
    if model in MADE_ANEW:
        column, make = MADE_ANEW[model]
        setattr(row, column, make())
    return row


def _put_photos(archive: _Archive, kitchen: Kitchen) -> None:
    for digest in set(Photo.objects.filter(kitchen=kitchen).values_list("digest", flat=True)):
        for size in SIZES:
            path = f"photos/{digest}.{size}.jpg"
            if path in archive.digests:
                put_file(digest, size, archive.read(path))
