"""What cooks send, as the benchmarks send it."""

from typing import Any, Final

_TAGS: Final = [("jowl", "2.85"), ("belly", "3.79"), ("loin", "3.19"), ("shoulder, bone in", "1.99")] * 3
#: A shop's case of twelve offers, checked.
CASE: Final = {
    "way": "Dry cure, cherry smoke",
    "offers": [{"id": str(at), "cut": cut, "price": price} for at, (cut, price) in enumerate(_TAGS)],
}
#: A what-if of a verdict.
TRIAL: Final = {"tag": "3.10", "yields": {"smoke": "90"}}


def weigh(weights: list[dict[str, str]], seen: int) -> dict[str, Any]:
    """A weighing of a batch of which ``seen`` entries were seen."""
    return {"content": {"act": "weigh", "kind": "pack", "weights": weights}, "seen": seen}


def weigh_again(batch: Any) -> list[dict[str, str]]:
    """What the batch's pieces weighed last, as it is sent: packs were made of them, so they weigh no less."""
    from dolmetsch.server.batches.models import Weighing

    lines = Weighing.objects.filter(entry__batch=batch)
    last = lines.order_by("-entry__sequence").values_list("entry", flat=True)[0]
    weights = lines.filter(entry=last).values_list("mark", "typed")
    return [{"mark": mark, "weight": typed} for mark, typed in weights]
