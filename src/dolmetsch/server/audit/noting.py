"""Adding to the audit: always within the transaction of what it is about."""

import re
from dataclasses import dataclass
from datetime import datetime
from typing import Any, Final

from django.db import models

from dolmetsch.server.audit.models import PAGE_LENGTH, AuditRow
from dolmetsch.server.kitchens.models import Kitchen, Role, User
from dolmetsch.server.quantities.lengths import DEVICE_LENGTH, REASON_LENGTH


@dataclass(frozen=True, slots=True, kw_only=True)
class Origin:
    """Where a write comes from: the operation and its words, the path asked for, the device and its address.

    ``least``: the role that whoever asks has to have when it is written, not only when they asked.
    """

    operation: str
    words: str
    path: str = ""
    device: str = ""
    address: str = ""
    least: Role | None = None


#: Of a write that came through no request: the command line, the demo.
COMMAND: Final = Origin(operation="command", words="", device="command line")

#: Where the web client shows what an address of the API is about.
_PAGES: Final = (
    (r"/batches/([^/]+)/(?:cures|cure-desk).*", r"/bench/\1/cure"),
    (r"/batches/([^/]+)/(?:notes|photos).*", r"/bench/\1/diary"),
    (r"/batches/([^/]+)/pieces/([^/]+)/.*", r"/bench/\1/piece/\2"),
    (r"/batches/([^/]+)(?:/.*)?", r"/bench/\1"),
    (r"/batches|/imports|/case/taken", "/bench"),
    (r"/prices/(\d+)/.*", r"/buy/prices/\1"),
    (r"/prices|/price-lists.*", "/buy/prices"),
    (r"/ways", "/buy/ways"),
    (r"/packs/([^/]+)/([^/]+)/.*", r"/slice/pack/\1/\2"),
    (r"/larder.*|/takings.*", "/slice"),
    (r"/dishes/([^/]+)/.*", r"/slice/dishes/\1"),
    (r"/dish.*|/platings.*", "/slice/dishes"),
    (r"/cupboard", "/slice/cupboard"),
    (r"/fires/(\d+)/.*", r"/fire/\1"),
    (r"/hooks.*", "/fire/chamber"),
    (r"/practice.*", "/fire/practice"),
    (r"/fires|/programs", "/fire"),
    (r"/meals/([^/]+)/.*", r"/plans/of/\1"),
    (r"/meal.*", "/plans"),
    (r"/tasks.*", "/"),
    (r"/stores", "/bench/map"),
    (r"/recipes|/mixes|/cure-figures", "/bench/figures"),
    (r"/trials/(\d+).*", r"/books/trials/\1"),
    (r"/trials", "/books/trials"),
    (r"/tools.*", "/books/money"),
    (r"/history.*", "/books/history"),
    (r"/settings|/units", "/kitchen"),
    (r"/people.*|/invitations.*", "/kitchen/people"),
)


def note_done(
    origin: Origin,
    *,
    kitchen: Kitchen | None,
    user: User | None,
    now: datetime,
    made: object = None,
    words: str = "",
    about: User | None = None,
) -> None:
    """Something was done; ``made`` is the record it made, or what carries one as ``entry``.

    ``words`` name the person it was done to as ``{about}``.
    """
    record = made if isinstance(made, models.Model) else getattr(made, "entry", None)
    AuditRow.objects.create(
        kitchen=kitchen,
        user=user,
        about=about,
        at=now,
        operation=origin.operation,
        words=(words or origin.words or _say(record))[:REASON_LENGTH],
        page=_page_of(origin.path, record)[:PAGE_LENGTH],
        made=name_record(record),
        before=_name_before(record),
        device=origin.device[:DEVICE_LENGTH],
        address=origin.address,
    )


def note_refused(
    origin: Origin, *, kitchen: Kitchen | None, user: User | None, now: datetime, words: str
) -> None:
    """Something was refused, and why; the record of it stays although nothing was written."""
    AuditRow.objects.create(
        kitchen=kitchen,
        user=user,
        at=now,
        outcome=AuditRow.Outcome.REFUSED,
        operation=origin.operation,
        words=words[:REASON_LENGTH],
        page=_page_of(origin.path, None)[:PAGE_LENGTH],
        device=origin.device[:DEVICE_LENGTH],
        address=origin.address,
    )


def name_record(record: Any) -> str:
    """``entry 412``; empty where there is none."""
    return f"{record._meta.verbose_name} {record.pk}" if isinstance(record, models.Model) else ""


def _say(record: Any) -> str:
    """What is said of a write that came through no request."""
    return f"recorded a {record._meta.verbose_name}" if isinstance(record, models.Model) else "did something"


def _name_before(record: Any) -> str:
    """What ``record`` took the place of: the entry it corrects, or the version before it."""
    corrected = getattr(record, "corrects_id", None) or getattr(record, "replaces_id", None)
    if corrected:
        return f"{record._meta.verbose_name} {corrected}"
    version = getattr(record, "version", None)
    return f"version {version - 1}" if isinstance(version, int) and version > 1 else ""


def _page_of(path: str, record: Any) -> str:
    below = re.sub(r"^/api/kitchens/[^/]+", "", path)
    batch = getattr(record, "batch", None)
    if batch is not None and below in ("", "/batches", "/imports", "/case/taken"):
        return f"/bench/{batch.code}"
    for pattern, page in _PAGES:
        found = re.fullmatch(pattern, below)
        if found:
            return found.expand(page)
    return ""
