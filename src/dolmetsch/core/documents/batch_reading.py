"""A ``dolmetsch-batch/1`` document as a batch's records."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from fractions import Fraction
from typing import Final, Literal, cast

from dolmetsch.core.costing.lineage import Taken, take_piece
from dolmetsch.core.costing.sheet import Sheet, compute_sheet
from dolmetsch.core.documents.node import Node
from dolmetsch.core.documents.strict import printable
from dolmetsch.core.ledger.batch import (
    AS_MAIN,
    WORTH_NOTHING,
    Action,
    Batch,
    ByProduct,
    Discard,
    Extra,
    Lot,
    Main,
    Merge,
    Origin,
    Policy,
    Portion,
    ShopPack,
    Split,
    Step,
    Used,
    Weigh,
    Worth,
)
from dolmetsch.core.ledger.course import COURSES, Course
from dolmetsch.core.ledger.refusals import OVERWEIGHT_PERCENT
from dolmetsch.core.ledger.strands import HEATED_KINDS, Heat, Heated, is_heated_kind
from dolmetsch.core.numbers.quantity import Price
from dolmetsch.core.numbers.temperature import TemperatureUnit
from dolmetsch.core.slicing.packs import FATES, Fate, Pack, Taking, follow_packs

FORMAT: Final = "dolmetsch-batch/1"
STEP_KEYS: Final = ("split", "weigh", "merge", "pieces")


@dataclass(frozen=True, slots=True, kw_only=True)
class BatchDocument:
    """What a document tells: its head, and the records to be run.

    ``course``: what the meat is to become, where it says; ``courses`` of mains that go another way, by id.
    """

    name: str | None
    currency: str | None
    batch: Batch
    packs: tuple[Pack, ...] = ()
    gone: tuple[Taking, ...] = ()
    course: Course | None = None
    courses: Mapping[str, Course] = field(default_factory=dict)


@dataclass(slots=True)
class Sources:
    """The linked batches read so far, by id, and what lots have taken of their pieces, as parts of each."""

    sheets: dict[str, Sheet] = field(default_factory=dict)
    parts: dict[tuple[str, str], Fraction] = field(default_factory=dict)

    def take(self, batch: str, piece: str, taken: Taken) -> bool:
        """Whether there was so much left of the piece; it is then taken."""
        part = self.parts.get((batch, piece), Fraction(0)) + taken.part
        self.parts[batch, piece] = part
        return part * 100 <= OVERWEIGHT_PERCENT


def read_batch(document: object) -> BatchDocument:
    """The records of a parsed document, the batches it is linked to already taken into its lots.

    Raises:
        DocumentError: a value that cannot be read.
        LedgerError: a linked batch whose entries cannot have happened.
    """
    head = Node(document)
    if not isinstance(document, dict):
        Node(document, "document").refuse(f"{head.found} is not an object; a batch document is one")
    _read_format(head)
    sources = Sources()
    linked = head.find("batches")
    for node in linked.items(empty=True) if linked else []:
        mark = node.get("id")
        if mark.mark() in sources.sheets:
            mark.refuse(f"{mark.found} is there already", reason="same_mark")
        batch = _read_one(node, sources)
        read_courses(node, batch)
        sheet = compute_sheet(batch)
        follow_packs(sheet.ledger.mains, _read_packs(node), _read_gone(node))
        sources.sheets[mark.mark()] = sheet
    name, currency = head.find("name"), head.find("currency")
    batch = _read_one(head, sources)
    course, courses = read_courses(head, batch)
    return BatchDocument(
        name=name.text() if name else None,
        currency=currency.text(most=10) if currency else None,
        batch=batch,
        packs=_read_packs(head),
        gone=_read_gone(head),
        course=course,
        courses=courses,
    )


def _read_format(head: Node) -> None:
    found = head.get("format")
    if found.value != FORMAT:
        found.refuse(f"{found.found} is not “{FORMAT}”", reason="format")


def _read_one(head: Node, sources: Sources) -> Batch:
    steps, store, portion = head.find("steps"), head.find("store"), head.find("portion")
    scale, fry, name = head.find("scale"), head.find("fry_yield"), head.find("name")
    if name is not None:
        name.text()
    resolution = scale.weight() if scale else None
    lots = head.get("lots").items(empty=True)
    if not lots:
        head.get("lots").refuse("a batch begins with something bought", reason="no_lots")
    return Batch(
        lots=tuple(_read_lot(node, sources, resolution) for node in lots),
        steps=tuple(
            _read_step(Node(node.value, "", number), resolution)
            for number, node in enumerate(steps.items(empty=True) if steps else [], start=1)
        ),
        policy=_read_policy(head.find("policy")),
        portion=_read_portion(portion) if portion else None,
        fry_yield=fry.ratio(zero=False) if fry else None,
        shop=tuple(_read_shop_pack(node) for node in (store.items(empty=True) if store else [])),
    )


def _read_policy(node: Node | None) -> Policy:
    if node is None:
        return Policy()
    rate, credit = node.find("labour_rate"), node.find("by_products")
    counted = {}
    for name in ("fuel", "packaging", "overhead"):
        switch = node.find(name)
        counted[name] = switch.truth() if switch else True
    return Policy(
        labour_rate=rate.money() if rate else None,
        credit_by_products=credit.one_of("credit", "none") == "credit" if credit else True,
        **counted,
    )


def _read_lot(node: Node, sources: Sources, resolution: Fraction | None) -> Lot:
    weight, label, solution = node.find("weight"), node.find("label_weight"), node.find("solution")
    cut, scale, source, paid = node.find("cut"), node.find("scale"), node.find("from"), node.find("paid")
    extras = node.find("extras")
    label_grams = label.weight() if label else None
    grams = weight.weight() if weight else label_grams
    origin: Origin | None = None
    carried: tuple[tuple[str, Fraction], ...] = ()
    if source is not None:
        origin, carried, taken = _read_source(source, sources)
        grams = grams or taken
    if grams is None:
        node.get("weight")
    assert grams is not None
    return Lot(
        id=node.get("id").mark(),
        cut=cut.text() if cut else "",
        grams=grams,
        label_grams=label_grams,
        paid=paid.money() if paid else Fraction(0) if origin else node.get("paid").money(),
        extras=tuple(_read_extra(extra) for extra in (extras.items(empty=True) if extras else [])),
        solution=solution.ratio() if solution else Fraction(0),
        resolution_grams=(scale.weight() if scale else resolution) if weight else None,
        origin=origin,
        carried=carried,
    )


def _read_source(source: Node, sources: Sources) -> tuple[Origin, tuple[tuple[str, Fraction], ...], Fraction]:
    batch, piece, weight = source.get("batch"), source.get("piece"), source.find("weight")
    pack = source.find("pack")
    if pack is not None:
        pack.mark()
    if batch.mark() not in sources.sheets:
        batch.refuse(f"no batch {batch.found} comes before this one in “batches”", reason="unknown_batch")
    taken = take_piece(sources.sheets[batch.mark()], piece.mark(), weight.weight() if weight else None)
    if taken is None:
        piece.refuse(f"{batch.found} has no piece {piece.found} left to take", reason="unknown_piece")
    if taken.too_much:
        (weight or piece).refuse("is more than that piece weighs", reason="overweight")
    if not sources.take(batch.mark(), piece.mark(), taken):
        said = "is more than is left of that piece: it is taken by another lot already"
        (weight or piece).refuse(said, reason="taken_twice")
    return Origin(batch=batch.mark(), piece=piece.mark()), taken.carried, taken.grams


def _read_extra(node: Node) -> Extra:
    what = node.find("what")
    return Extra(what=what.text() if what else "", cost=node.get("cost").money())


def _read_step(node: Node, resolution: Fraction | None) -> Step:
    kind, minutes, overhead = node.find("kind"), node.find("minutes"), node.find("overhead")
    used, scale = node.find("used"), node.find("scale")
    word, action = kind.text().strip() if kind else "", _read_action(node)
    return Step(
        kind=word,
        action=action,
        minutes=minutes.number("minutes") if minutes else Fraction(0),
        used=tuple(_read_used(line) for line in (used.items(empty=True) if used else [])),
        overhead=overhead.money() if overhead else Fraction(0),
        resolution_grams=scale.weight() if scale else resolution,
        heated=_read_heated(node, word, action),
    )


def _read_heated(node: Node, kind: str, action: Action) -> Heated | None:
    """How a step heated, where it is one that does; of others it is refused."""
    heat, inside = node.find("heat"), node.find("inside")
    if isinstance(action, Weigh | Split) and is_heated_kind(kind):
        temp = None if inside is None else inside.get("temp")
        unit = None if inside is None else inside.get("unit").one_of("F", "C")
        return Heated(
            kind=kind,
            heat=None if heat is None else cast(Heat, heat.one_of("hot", "cold")),
            inside_fahrenheit=None if temp is None else temp.temperature(cast(TemperatureUnit, unit)),
        )
    for found in (heat, inside):
        if found is not None:
            kinds = ", ".join(sorted(HEATED_KINDS))
            found.refuse(f"goes only with a split or a weighing of kind {kinds}", reason="no_heat")
    return None


def read_courses(head: Node, batch: Batch) -> tuple[Course | None, dict[str, Course]]:
    """The course of a batch that was read, and those of its mains that go another way.

    Raises:
        DocumentError: a word that is no course, an id that is never a main.
    """
    course, courses = head.find("course"), head.find("courses")
    mains = {lot.id for lot in batch.lots}
    for step in batch.steps:
        if isinstance(step.action, Split):
            mains |= {out.id for out in step.action.into if isinstance(out, Main)}
        elif isinstance(step.action, Merge):
            mains.add(step.action.into.id)
    found: dict[str, Course] = {}
    for mark, node in courses.children() if courses else []:
        if mark not in mains:
            node.refuse(f"“{printable(mark)}” is never a piece that goes on", reason="unknown_piece")
        found[mark] = cast(Course, node.one_of(*COURSES))
    return None if course is None else cast(Course, course.one_of(*COURSES)), found


def _read_action(node: Node) -> Action:
    keys = [key for key in STEP_KEYS if node.find(key) is not None]
    if len(keys) != 1:
        text = f"{' and '.join(keys)} at once" if keys else "none of split, weigh, merge or pieces"
        node.refuse(f"{text}; a step is one of them", reason="one_action")
    match keys[0]:
        case "split":
            outputs = node.get("into").items(empty=False)
            return Split(piece=node.get("split").mark(), into=tuple(_read_output(out) for out in outputs))
        case "weigh":
            return _read_weigh(node.get("weigh"))
        case "merge":
            into = node.get("into")
            role = into.find("role")
            if role is not None and role.value != "main":
                role.refuse("a merge makes a main")
            return Merge(pieces=_read_marks(node.get("merge")), into=_read_main(into))
    charge, why = node.get("charge").one_of("batch", "loss"), node.find("why")
    return Discard(
        pieces=_read_marks(node.get("pieces")),
        charge=cast(Literal["batch", "loss"], charge),
        why=why.text(most=2000) if why else "",
    )


def _read_weigh(node: Node) -> Weigh:
    weights = node.children()
    if not weights:
        node.refuse("no piece is named", reason="empty")
    return Weigh(grams={mark: weight.weight() for mark, weight in weights})


def _read_marks(node: Node) -> tuple[str, ...]:
    return tuple(item.mark() for item in node.items(empty=False))


def _read_main(node: Node) -> Main:
    slices, worth = node.find("slices"), node.find("worth")
    if worth is not None:
        worth.refuse("only a by-product has a worth; this one is a main", reason="worth_on_main")
    return Main(
        id=node.get("id").mark(),
        grams=node.get("weight").weight(),
        slices=slices.whole("slices") if slices else None,
    )


def _read_output(node: Node) -> Main | ByProduct:
    role = node.find("role")
    if role is None or role.one_of("main", "by_product") == "main":
        return _read_main(node)
    worth, name, material = node.find("worth"), node.find("name"), node.find("material")
    return ByProduct(
        id=node.get("id").mark(),
        grams=node.get("weight").weight(),
        worth=_read_worth(worth) if worth else WORTH_NOTHING,
        name=name.text() if name else "",
        material=material.text(most=20) if material else "other",
    )


def _read_worth(node: Node) -> Price | Literal[Worth.AS_MAIN]:
    if node.value == AS_MAIN.value:
        return AS_MAIN
    if isinstance(node.value, str) and node.value.strip() and not node.value.strip().strip("0.").strip():
        node.plain("worth is a price by weight, “0” or “as_main”")
        return WORTH_NOTHING
    price = node.price()
    if price.grams is None:
        node.refuse(f"{node.found} is a price each; a by-product is worth so much by weight")
    return price


def _read_used(node: Node) -> Used:
    what, group, pieces = node.find("what"), node.find("group"), node.find("pieces")
    amount, count = node.find("amount"), node.find("count")
    price_node = node.get("price")
    price = price_node.price()
    if (amount is None) == (count is None):
        node.refuse("either an amount (a weight) or a count is needed, and not both", reason="one_amount")
    if (amount is None) != (price.grams is None):
        text = "a weight needs a price by weight" if amount else "a count needs a price each"
        price_node.refuse(f"{price_node.found} does not fit: {text}")
    word = group.text() if group else "other"
    if not word.strip():
        assert group is not None
        group.refuse("a group has a name")
    return Used(
        what=what.text() if what else "",
        amount=amount.weight() if amount else cast(Node, count).number("a count"),
        price=price,
        group=word,
        pieces=_read_marks(pieces) if pieces else (),
    )


def _read_portion(node: Node) -> Portion:
    known = {"slices", "weight", "cooked_weight"} & node.members().keys()
    if len(known) != 1:
        node.refuse("needs just one of slices, weight and cooked_weight", reason="one_portion")
    slices, weight, cooked = node.find("slices"), node.find("weight"), node.find("cooked_weight")
    count = slices.number("slices") if slices else None
    if slices is not None and not count:
        slices.refuse("a portion is at least part of a slice", reason="zero")
    return Portion(
        slices=count,
        grams=weight.weight() if weight else None,
        cooked_grams=cooked.weight() if cooked else None,
    )


def _read_shop_pack(node: Node) -> ShopPack:
    name, slices, fry = node.find("name"), node.find("slices"), node.find("fry_yield")
    return ShopPack(
        name=name.text().strip() if name else "",
        paid=node.get("paid").money(),
        grams=node.get("weight").weight(),
        slices=slices.whole("slices") if slices else None,
        fry_yield=fry.ratio(zero=False) if fry else None,
    )


def read_packs(document: object) -> tuple[tuple[Pack, ...], tuple[Taking, ...]]:
    """The packs of a parsed batch, and what left them.

    Raises:
        DocumentError: a value that cannot be read.
    """
    return _read_packs(Node(document)), _read_gone(Node(document))


def _read_packs(batch: Node) -> tuple[Pack, ...]:
    packs = batch.find("packs")
    return tuple(_read_pack(node) for node in (packs.items(empty=True) if packs else []))


def _read_pack(node: Node) -> Pack:
    slices = node.find("slices")
    return Pack(
        id=node.get("id").mark(),
        piece=node.get("piece").mark(),
        grams=node.get("weight").weight(),
        slices=slices.whole("slices") if slices else None,
    )


def _read_gone(batch: Node) -> tuple[Taking, ...]:
    gone = batch.find("gone")
    return tuple(_read_taking(node) for node in (gone.items(empty=True) if gone else []))


def _read_taking(node: Node) -> Taking:
    weight, slices, every, income = (node.find(name) for name in ("weight", "slices", "all", "income"))
    is_all = every is not None and every.truth()
    if [weight is not None, slices is not None, is_all].count(True) != 1:
        node.refuse("needs just one of weight, slices and all", reason="one_amount")
    return Taking(
        pack=node.get("pack").mark(),
        fate=cast(Fate, node.get("as").one_of(*FATES)),
        grams=weight.weight() if weight else None,
        slices=slices.whole("slices") if slices else None,
        income=income.money() if income else None,
    )
