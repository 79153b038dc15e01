"""All that is kept about a person, for themselves or for who answers for the kitchen."""

import json
from typing import Any

from dolmetsch.server.access.models import SignedInDevice
from dolmetsch.server.audit.models import AuditRow
from dolmetsch.server.kitchens.models import Kitchen, Membership, User


def collect_own_data(user: User, kitchen: Kitchen | None = None) -> str:
    """JSON of who ``user`` is, their places, devices, and every row of the audit about them.

    ``kitchen``: only what is of that kitchen, as its owner may see it; without it all.
    """
    places = Membership.objects.select_related("kitchen").filter(user=user)
    rows = AuditRow.objects.select_related("about").filter(user=user).order_by("pk")
    if kitchen is not None:
        places, rows = places.filter(kitchen=kitchen), rows.filter(kitchen=kitchen)
    found: dict[str, Any] = {
        "name": user.called,
        "username": user.get_username(),
        "mail": user.email,
        "joined": user.date_joined.isoformat(),
        "kitchens": [
            {
                "name": place.kitchen.name,
                "role": place.role,
                "joined": None if place.joined_at is None else place.joined_at.isoformat(),
                "left": None if place.left_at is None else place.left_at.isoformat(),
            }
            for place in places
        ],
        "audit": [
            {
                "at": row.at.isoformat(),
                "outcome": row.outcome,
                "what": row.sentence,
                "record": row.made,
                "device": row.device,
                "address": row.address,
            }
            for row in rows.iterator(chunk_size=2_000)
        ],
    }
    if kitchen is None:
        found["devices"] = [
            {"name": one.name, "address": one.address, "since": one.since.isoformat()}
            for one in SignedInDevice.objects.filter(user=user)
        ]
    return json.dumps(found, ensure_ascii=False, indent=1)
