"""Sellers' names: one seller in two spellings, or under two names that a cook joined, is one seller."""

from collections.abc import Iterable

from dolmetsch.core.numbers.spelling import same_name
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.prices.models import SellerName
from dolmetsch.server.prices.schemas import SellerIn
from dolmetsch.server.problems import refuse_fields
from dolmetsch.server.quantities.reader import Reader
from dolmetsch.server.writing.once import Write, keep_once


class Sellers:
    """Who is who among the sellers of a kitchen."""

    def __init__(self, kitchen: Kitchen) -> None:
        rows = SellerName.objects.filter(kitchen=kitchen).order_by("id")
        self._same_as = {same_name(row.name): row.same_as for row in rows}

    def key(self, name: str) -> str:
        """What all names of one seller have in common."""
        key = same_name(name)
        while called := self._same_as.get(key):
            key = same_name(called)
        return key

    def call(self, names: Iterable[str]) -> dict[str, str]:
        """What each of ``names``, oldest first, is called: as it was written last, or was joined to."""
        given = list(names)
        last = {self.key(name): name for name in given if not self._same_as.get(same_name(name))}
        joined = {same_name(called): called for called in self._same_as.values() if called}
        return {name: last.get(self.key(name)) or joined[self.key(name)] for name in given}


def join_seller(write: Write, data: SellerIn) -> SellerName:
    """Say that one name stands for another seller's, or for itself again.

    Raises:
        DomainError: bad_fields, key_reused.
    """

    def save() -> SellerName:
        reader = Reader.of(write.kitchen)
        reader.need("name", data.name, "Say whose name it is.")
        if data.same_as and Sellers(write.kitchen).key(data.same_as) == same_name(data.name):
            said = f"“{data.same_as}” is “{data.name}” already; separate them first."
            reader.refuse("same_as", "circle", said)
        if reader.problems:
            raise refuse_fields(reader.problems)
        return SellerName.objects.create(name=data.name, same_as=data.same_as, **write.stamp)

    return keep_once(write, SellerName, save)
