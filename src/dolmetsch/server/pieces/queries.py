"""Reads: pieces with what is known of them, the map of stores, what was cut off before."""

from collections.abc import Iterable
from dataclasses import dataclass
from decimal import Decimal
from fractions import Fraction

from dolmetsch.core.costing.strip import label_piece
from dolmetsch.core.curing.cure import PRODUCTS, Product
from dolmetsch.core.ledger.course import COURSE_FACTS, Course
from dolmetsch.core.ledger.pieces import Piece
from dolmetsch.core.meat.cuts import read_cut, usual_product
from dolmetsch.core.numbers.exact import fixed
from dolmetsch.core.numbers.length import MM_PER
from dolmetsch.core.numbers.spelling import same_name
from dolmetsch.server.batches.entries.course import courses_of
from dolmetsch.server.batches.entries.raw import list_raw
from dolmetsch.server.batches.entries.taken import list_pieces_here
from dolmetsch.server.batches.models import Batch, Entry, Weighing
from dolmetsch.server.batches.show.queries import cost_batch
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.pieces import schemas
from dolmetsch.server.pieces.models import LookOver, PieceFact, Store
from dolmetsch.server.quantities.printing import print_weight
from dolmetsch.server.writing.kept import latest_by_name

#: So many of the latest things cut off are looked at for what they were worth.
OFFCUTS_READ = 400
#: What stands for a piece taken out of every store.
NOWHERE = "-"
#: The words of a level in each sort of store.
LEVEL_WORDS = {"fridge": "shelf", "smoker": "rack", "chamber": "rod", "freezer": "drawer"}


@dataclass(slots=True)
class Facts:
    """What is known of a piece, the latest of each; None and empty: nobody said."""

    length_mm: Decimal | None = None
    width_mm: Decimal | None = None
    thickness_mm: Decimal | None = None
    skin: str = ""
    product: str = ""
    owner: str = ""
    place: tuple[str, int, int] | None = None


def gather_facts(batches: Iterable[Batch | int]) -> dict[tuple[int, str], Facts]:
    """What is known of the pieces of ``batches`` (or of their keys), by batch and mark."""
    known: dict[tuple[int, str], Facts] = {}
    for row in PieceFact.objects.filter(batch__in=list(batches)).order_by("id"):
        facts = known.setdefault((row.batch_id, row.mark), Facts())
        facts.length_mm = row.length_mm or facts.length_mm
        facts.width_mm = row.width_mm or facts.width_mm
        facts.thickness_mm = row.thickness_mm or facts.thickness_mm
        facts.skin = row.skin or facts.skin
        facts.product = row.product or facts.product
        facts.owner = row.owner or facts.owner
        if row.store:
            facts.place = None if row.store == NOWHERE else (row.store, row.level or 1, row.slot or 1)
    return known


def list_stores(kitchen: Kitchen) -> list[Store]:
    """The latest row of each store, unarchived only, in the order they were first saved."""
    return latest_by_name(Store.objects.filter(kitchen=kitchen).order_by("id"))


def print_length(millimetres: Decimal | Fraction | None) -> schemas.Length | None:
    """Inches to two places, centimetres to one."""
    if millimetres is None:
        return None
    length = Fraction(millimetres)
    return schemas.Length(inch=fixed(length / MM_PER["in"], 2), cm=fixed(length / MM_PER["cm"], 1))


def show_place(facts: Facts, sorts: dict[str, str]) -> schemas.PlaceOut | None:
    """Where it lies, in words too; ``sorts``: sort of each store by its name."""
    if facts.place is None:
        return None
    store, level, slot = facts.place
    word = LEVEL_WORDS.get(sorts.get(same_name(store), ""), "shelf")
    text = f"{store}, {word} {level}, place {slot}"
    return schemas.PlaceOut(store=store, level=level, slot=slot, text=text, level_text=f"{word} {level}")


def sorts_of(kitchen: Kitchen) -> dict[str, str]:
    """The sort of each store by its name."""
    return {same_name(store.name): store.sort for store in list_stores(kitchen)}


def read_pieces(batch: Batch) -> schemas.PiecesOut:
    """The living pieces of ``batch`` with all that is known of them."""
    costed = cost_batch(batch)
    known = gather_facts([batch])
    sorts = sorts_of(batch.kitchen)
    looked = LookOver.objects.filter(batch=batch).order_by("-id").first()
    cut = costed.chain.batch.lots[0].cut
    raw, courses = list_raw(batch, costed), courses_of(batch, costed.sheet.ledger.mains, costed.chain.current)
    return schemas.PiecesOut(
        code=batch.code,
        name=batch.name,
        cut=cut,
        pieces=[
            _show(
                piece,
                known.get((batch.pk, piece.id), Facts()),
                sorts,
                cut=cut,
                course=courses[piece.id],
                is_raw=piece.id in raw,
            )
            for piece in list_pieces_here(batch, costed)
        ],
        looked_over_at=None if looked is None else looked.recorded_at,
    )


def _show(
    piece: Piece, facts: Facts, sorts: dict[str, str], *, cut: str, course: Course | None, is_raw: bool
) -> schemas.PieceFactsOut:
    return schemas.PieceFactsOut.model_validate(
        {
            "mark": piece.id,
            "label": label_piece(piece),
            "weight": print_weight(piece.grams),
            "course": course,
            "course_label": COURSE_FACTS[course].label if course else "",
            "is_raw": is_raw,
            "smoke": "cold" if course and COURSE_FACTS[course].is_smoked_cold else "hot",
            "kinds": list(piece.kinds),
            "product": product_of(piece, facts, cut=cut),
            "is_product_set": bool(facts.product),
            "length": print_length(facts.length_mm),
            "width": print_length(facts.width_mm),
            "thickness": print_length(facts.thickness_mm),
            "skin": facts.skin,
            "place": show_place(facts, sorts),
        }
    )


def product_of(piece: Piece, facts: Facts, *, cut: str) -> Product:
    """What ``piece`` is cured as: as the cook set it, else as its cut and its steps say."""
    return next((one for one in PRODUCTS if one == facts.product), usual_product(read_cut(cut), piece.kinds))


def read_map(kitchen: Kitchen) -> schemas.MapOut:
    """Every store with the pieces under way that lie in it, and those that lie nowhere."""
    under_way = (
        Batch.objects.filter(kitchen=kitchen, is_finished=False)
        .order_by("code")
        .values_list("pk", "code", "name", "summary")
    )
    known = gather_facts(pk for pk, *_ in under_way)
    stores = list_stores(kitchen)
    lying: dict[str, list[schemas.LyingOut]] = {same_name(store.name): [] for store in stores}
    nowhere: list[schemas.LyingOut] = []
    for pk, code, name, summary in under_way:
        for piece in summary["mains"]:
            place = known.get((pk, piece["mark"]), Facts()).place
            level, slot = place[1:] if place else (0, 0)
            shown = schemas.LyingOut(code=code, name=name, level=level, slot=slot, **piece)
            (lying.get(same_name(place[0]), nowhere) if place else nowhere).append(shown)
    return schemas.MapOut(
        stores=[
            schemas.StoreOut.model_validate(
                {
                    "name": store.name,
                    "sort": store.sort,
                    "levels": store.levels,
                    "slots": store.slots,
                    "lying": lying[same_name(store.name)],
                }
            )
            for store in stores
        ],
        nowhere=nowhere,
    )


def list_offcuts(kitchen: Kitchen) -> list[schemas.OffcutOut]:
    """What was cut off before, by name, worth what it was worth the last time."""
    counting = Entry.current.filter(kitchen=kitchen, act=Entry.Act.SPLIT)
    rows = (
        Weighing.objects.filter(entry__in=counting, role=Weighing.Role.BY_PRODUCT)
        .exclude(name="")
        .order_by("-entry_id", "position")
    )
    latest: dict[str, Weighing] = {}
    for row in rows[:OFFCUTS_READ]:
        latest.setdefault(same_name(row.name), row)
    return [
        schemas.OffcutOut.model_validate(
            {"name": row.name, "material": row.material, "worth": row.worth, "price": row.worth_typed}
        )
        for row in sorted(latest.values(), key=lambda row: row.name.casefold())
    ]
