"""One pack whole, with all that happened to it."""

from fractions import Fraction
from typing import Any, Final, cast

from django.utils import timezone

from dolmetsch.core.reference.keeping import KEEPING, VACUUM
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.larder import schemas
from dolmetsch.server.larder.models import Pack, Taken
from dolmetsch.server.larder.queries import list_choices, show_now
from dolmetsch.server.problems import not_found
from dolmetsch.server.quantities.printing import print_money, print_percent, print_weight, sign_of
from dolmetsch.server.quantities.spoken import say_amount

#: Columns of a pack's batch that are long, and of no use here.
UNREAD: Final = ("batch__summary",)
FATE_WORDS: Final = {
    "eaten": "eaten",
    "plated": "plated",
    "sold": "sold",
    "given": "given away",
    "used": "used in another batch",
    "spoiled": "spoiled",
    "discarded": "thrown away",
}


def get_pack(kitchen: Kitchen, code: str, mark: str) -> Pack:
    """The pack ``mark`` of batch ``code``, with what it is now.

    Raises:
        DomainError: not_found.
    """
    # a canceled pack is nothing now; by the batch, of which there is one of that code in the kitchen
    mine = Pack.objects.filter(batch__kitchen=kitchen, batch__code=code, mark=mark, now__isnull=False)
    try:
        pack = mine.select_related("now", "batch").defer(*UNREAD).get()
    except Pack.DoesNotExist as error:
        raise not_found(f"pack “{code} {mark}”") from error
    pack.batch.kitchen = kitchen
    return pack


def read_pack(kitchen: Kitchen, code: str, mark: str) -> schemas.PackPage:
    """One pack whole.

    Raises:
        DomainError: not_found.
    """
    pack = get_pack(kitchen, code, mark)
    now = pack.now
    now.pack = pack
    row = KEEPING.get(cast(Any, now.keeps)) if now.keeps else None
    return schemas.PackPage(
        pack=show_now(now, timezone.localdate()),
        news=_list_news(pack),
        keeps_like="" if row is None else row.label,
        keep_source="" if row is None else row.source,
        vacuum=VACUUM,
        stores=list_choices(kitchen),
        batches=list(
            Batch.objects.filter(kitchen=kitchen, is_finished=False)
            .exclude(pk=pack.batch_id)
            .order_by("-last_entry_at")
            .values_list("code", flat=True)[:40]
        ),
    )


def _list_news(pack: Pack) -> list[schemas.NewsOut]:
    unit, sign = pack.batch.kitchen.weight_unit, sign_of(pack.batch.kitchen.currency)
    packing = pack.packing
    where = f", into {pack.store}" if pack.store else ""
    made = print_weight(Fraction(pack.grams)).say(unit)
    news = [
        schemas.NewsOut(
            at=pack.packed_at,
            by=packing.recorded_by.called,
            words=f"Packed, {made}{where}",
            is_canceled=False,
            taken=None,
        )
    ]
    for move in pack.moves.select_related("recorded_by").order_by("at", "id"):
        words = "Opened" if move.sort == "opened" else f"Put into {move.store}"
        news.append(
            schemas.NewsOut(
                at=move.at, by=move.recorded_by.called, words=words, is_canceled=False, taken=None
            )
        )
    for weighing in pack.weighings.select_related("recorded_by").order_by("at", "id"):
        missing = max(Fraction(0), 1 - Fraction(weighing.grams) / Fraction(weighing.book_grams))
        weight = print_weight(Fraction(weighing.grams)).say(unit)
        words = f"Weighed {weight}: {print_percent(missing)} % ran out in the bag or dried away"
        news.append(
            schemas.NewsOut(
                at=weighing.at, by=weighing.recorded_by.called, words=words, is_canceled=False, taken=None
            )
        )
    taken = Taken.objects.filter(pack=pack).select_related("recorded_by", "canceled", "now", "into")
    for row in taken.order_by("id"):
        canceled = getattr(row, "canceled", None)
        words = describe_taken(row, unit, sign)
        news.append(
            schemas.NewsOut(
                at=row.at,
                by=row.recorded_by.called,
                words=words if canceled is None else f"{words}; canceled: {canceled.reason}",
                is_canceled=canceled is not None,
                taken=row.pk if canceled is None else None,
            )
        )
    return sorted(news, key=lambda one: one.at)


def describe_taken(row: Taken, unit: str, sign: str) -> str:
    """ "3 slices sold for $4.50" """
    now = getattr(row, "now", None)
    if row.slices is not None:
        amount = f"{row.slices} slice{'' if row.slices == 1 else 's'}"
    elif now is not None:
        amount = print_weight(Fraction(now.grams)).say(unit)
    else:
        amount = "the rest" if row.grams is None else print_weight(Fraction(row.grams)).say(unit)
    words = f"{amount} {FATE_WORDS[row.fate]}"
    if row.into is not None:
        words = f"{amount} used in {row.into.code}"
    if row.dish:
        words += f" as {row.dish}"
    if row.income is not None:
        words += f" for {say_amount(sign + print_money(Fraction(row.income)))}"
    return f"{words}: {row.why}" if row.why else words
