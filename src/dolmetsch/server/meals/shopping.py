"""What to fetch for a plan: the meat, what methods use and dishes ask for, less what the cupboard has."""

from collections.abc import Iterable
from dataclasses import dataclass, replace
from fractions import Fraction

from dolmetsch.core.numbers.spelling import same_name
from dolmetsch.server.dishes.cupboard import Amount, list_left
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.meals import schemas
from dolmetsch.server.meals.working import Batch, Worked
from dolmetsch.server.prices.queries import find_used
from dolmetsch.server.prices.sellers import Sellers
from dolmetsch.server.quantities.printing import print_money


@dataclass(frozen=True, slots=True, kw_only=True)
class Line:
    """Something that is needed: grams (``is_weight``) or a count, ``each`` of which costs so much; None where
    it has no price. ``left``: so much is here; None: nobody counts it. ``source``: where it was priced last.
    """

    what: str
    size: Fraction
    is_weight: bool
    each: Fraction | None
    left: Fraction | None = None
    source: str = ""
    is_meat: bool = False

    @property
    def short(self) -> Fraction:
        """What is to be fetched of it."""
        return max(Fraction(0), self.size - max(self.left or Fraction(0), Fraction(0)))

    @property
    def cost(self) -> Fraction:
        """What that costs; what has no price costs nothing yet."""
        return self.short * (self.each or 0)

    def say(self, size: Fraction, kitchen: Kitchen) -> str:
        """So much of it in words."""
        return (Amount(grams=size) if self.is_weight else Amount(count=size)).say(kitchen.weight_unit)

    def show(self, kitchen: Kitchen) -> schemas.ShoppingOut:
        """As it is shown, amounts in the kitchen's unit."""
        here = "not counted" if self.left is None else self.say(max(self.left, Fraction(0)), kitchen)
        return schemas.ShoppingOut(
            source=self.source,
            what=self.what,
            needed="" if self.is_meat else self.say(self.size, kitchen),
            here="" if self.is_meat else here,
            buy=self.say(self.short, kitchen) if self.short else "",
            cost=None if self.each is None or not self.short else print_money(self.cost),
        )


def list_shopping(worked: Worked) -> list[schemas.ShoppingOut]:
    """Things to fetch for a plan, the dearest first; each with the source its latest price was seen at."""
    kitchen = worked.read.known.kitchen
    lines = _add_up([*_list_used(worked.batches), *_list_all_parts(worked)])
    names = {line.what for line in lines}
    here = list_left(kitchen, names) if names else {}
    sources = {name: one.latest.source for name, one in find_used(kitchen, names).items()}
    found = list(_list_meats(worked.batches))
    called = Sellers(kitchen).call([*sources.values(), *(line.source for line in found if line.source)])
    found = [replace(line, source=called.get(line.source, "")) for line in found]
    for line in lines:
        key = same_name(line.what)
        have = here.get(key)
        left = have.size if have is not None and (have.grams is not None) == line.is_weight else None
        found.append(replace(line, left=left, source=called.get(sources.get(key, ""), "")))
    found.sort(key=lambda line: (-line.cost, line.what.casefold()))
    return [line.show(kitchen) for line in found]


def _add_up(lines: Iterable[Line]) -> list[Line]:
    """The same thing of several steps, batches and dishes as one line."""
    found: dict[tuple[str, bool], Line] = {}
    for line in lines:
        key = (same_name(line.what), line.is_weight)
        before = found.get(key)
        found[key] = line if before is None else replace(before, size=before.size + line.size)
    return list(found.values())


def _list_meats(batches: Iterable[Batch]) -> Iterable[Line]:
    """The raw meat of each batch."""
    for batch in batches:
        meat = batch.read.meat
        yield Line(
            what=batch.read.cut_words if meat is None else meat.item.name,
            size=Fraction(batch.grams),
            is_weight=True,
            each=batch.read.price,
            source="" if meat is None else meat.latest.source,
            is_meat=True,
        )


def _list_used(batches: Iterable[Batch]) -> Iterable[Line]:
    """What the steps use, each by what enters it."""
    for batch in batches:
        entering = [batch.grams, *(one.grams.middle for one in batch.outlook.milestones)]
        for step, weight in zip(batch.steps, entering, strict=False):
            for use in step.used:
                size = use.amount if use.per == "batch" else use.amount * Fraction(weight) / 1000
                is_weight = use.price.grams is not None
                yield Line(what=use.what, size=size, is_weight=is_weight, each=use.price.cost_of(Fraction(1)))


def _list_all_parts(worked: Worked) -> Iterable[Line]:
    for name, plates in worked.read.plates.items():
        yield from _list_parts(worked, name, plates)


def _list_parts(worked: Worked, name: str, plates: Fraction) -> Iterable[Line]:
    """Lines of the price list so many plates ask for, those of the dishes in them too."""
    dish = worked.read.known.dishes.get(same_name(name))
    if dish is None:
        return
    share = plates / dish.plates
    for data, part in zip(dish.data.parts, dish.parts, strict=False):
        size = part.part.amount / part.part.yield_ratio * share
        if data.sort == "dish":
            yield from _list_parts(worked, data.name, size)
        elif data.sort == "price":
            price = worked.read.known.prices.lines.get(same_name(data.name))
            is_weight = price is None or price.grams is not None
            yield Line(what=data.name, size=size, is_weight=is_weight, each=part.part.unit_cost)
