"""A way: how the kitchen makes something, step by step, with what each step uses and how long it takes."""

from collections.abc import Collection, Mapping
from dataclasses import dataclass
from fractions import Fraction
from typing import Literal

from dolmetsch.core.ledger.batch import Policy, Portion
from dolmetsch.core.ledger.course import COURSE_FACTS, Course
from dolmetsch.core.ledger.kinds import method_kind, method_kinds
from dolmetsch.core.ledger.strands import Heated
from dolmetsch.core.numbers.exact import GRAMS_PER_LB
from dolmetsch.core.numbers.quantity import Price
from dolmetsch.core.reference.work import WORK_STARTS
from dolmetsch.core.reference.yields import LONG_COOK_FROM, METHODS

ZERO = Fraction(0)


@dataclass(frozen=True, slots=True, kw_only=True)
class WayUse:
    """Something a step uses: ``amount`` (grams or a count, as its ``price``) a kilogram of meat, or
    a batch.
    """

    what: str
    group: str
    amount: Fraction
    per: Literal["kg", "batch"]
    price: Price

    @property
    def cost(self) -> Fraction:
        """Money a kilogram of meat entering the step, or a batch."""
        return self.price.cost_of(self.amount)


@dataclass(frozen=True, slots=True, kw_only=True)
class WayStep:
    """One step: its method (of ``METHODS``), hands-on minutes a batch and a kilogram, and days it takes.

    ``worth``: price by weight of what comes off, on the average; None where it is worth nothing.
    """

    method: str
    batch_minutes: Fraction = ZERO
    kilo_minutes: Fraction = ZERO
    days: int = 0
    used: tuple[WayUse, ...] = ()
    worth: Price | None = None

    @property
    def kind(self) -> str:
        """The kind of step the method belongs to."""
        return METHODS[self.method].kind


@dataclass(frozen=True, slots=True, kw_only=True)
class Way:
    """Steps in order, and what is served of the result. ``slice_grams``: what one slice weighs, if known."""

    name: str
    steps: tuple[WayStep, ...]
    portion: Portion | None = None
    slice_grams: Fraction | None = None

    @property
    def days(self) -> int:
        """Days from buying to the last step."""
        return sum(step.days for step in self.steps)


def plain_way(kinds: tuple[str, ...], *, pieces: int = 1, is_smoked_cold: bool = False) -> Way:
    """Kinds of step done the standard way: what a batch without a method of its own is forecast by.

    It takes the minutes of the start values for so many ``pieces`` and uses nothing, for nobody said what.
    """
    steps = []
    for kind in kinds:
        method = plain_method(kind)
        if method is None:
            continue
        if kind == "smoke" and is_smoked_cold:
            method = "cold_smoke"
        start = WORK_STARTS.get(kind)
        if start is None:
            steps.append(WayStep(method=method))
            continue
        steps.append(
            WayStep(
                method=method,
                batch_minutes=start.fixed_minutes + start.piece_minutes * pieces,
                kilo_minutes=start.pound_minutes * 1000 / GRAMS_PER_LB,
            )
        )
    return Way(name="", steps=tuple(steps))


def plain_method(kind: str, *, has_gained: bool = False) -> str | None:
    """The method a kind of step is taken for where nobody said; a cure that gained weight was a brine."""
    kind = method_kind(kind)
    if kind == "cure":
        return "immersion" if has_gained else "dry_cure"
    return {"smoke": "hot_smoke"}.get(kind) or next(
        (key for key, method in METHODS.items() if method.kind == kind), None
    )


def find_method(
    kind: str,
    *,
    methods: Mapping[str, str],
    kinds: Collection[str] = (),
    course: Course | None = None,
    heated: Heated | None = None,
    has_gained: bool = False,
) -> str | None:
    """The method a step of ``kind`` was done by, in a batch that went through ``kinds``; None: no known.

    For a smoke or a cook the temperature inside counts first, then what was said of it, then the batch's own
    ``methods`` (by kind of step), then what the meat becomes. This keeps apart steps that share a name: a
    shoulder smoked to 200 °F is a long cook.
    """
    plain = method_kind(kind)
    chosen = methods.get(plain)
    if plain not in ("smoke", "cook"):
        return chosen or plain_method(kind, has_gained=has_gained)
    heat, inside = (None, None) if heated is None else (heated.heat, heated.inside_fahrenheit)
    if heat == "cold":
        return "cold_smoke"
    if inside is not None and inside >= LONG_COOK_FROM:
        return "pulled"
    if chosen is not None and not (chosen == "cold_smoke" and heat == "hot"):
        return "hot_smoke" if inside is not None and chosen == "pulled" else chosen
    if inside is not None:
        return "hot_smoke"
    if plain == "smoke" and heat is None and course is not None and COURSE_FACTS[course].is_smoked_cold:
        return "cold_smoke"
    if plain == "smoke" and course in ("pulled", "steamed") and "cook" not in method_kinds(kinds):
        return "pulled"
    return plain_method(kind)


@dataclass(frozen=True, slots=True, kw_only=True)
class Costs:
    """A step's costs in plain numbers, as the policy counts them: money a batch and a gram entering.

    ``minutes`` and ``gram_minutes`` of work; ``wage`` a minute; ``worth`` a gram of what comes off.
    """

    batch: float
    gram: float
    minutes: float
    gram_minutes: float
    wage: float
    worth: float


def cost_step(step: WayStep, policy: Policy, *, is_begun: bool = False) -> Costs:
    """What a step costs under ``policy``. Of one that ``is_begun`` on other pieces, what is paid once a batch
    has been paid.
    """
    counted = [use for use in step.used if policy.counts(use.group)]
    worth = step.worth if policy.credit_by_products else None
    return Costs(
        batch=float(sum([use.cost for use in counted if use.per == "batch" and not is_begun], ZERO)),
        gram=float(sum([use.cost for use in counted if use.per == "kg"], ZERO) / 1000),
        minutes=0.0 if is_begun else float(step.batch_minutes),
        gram_minutes=float(step.kilo_minutes / 1000),
        wage=float((policy.labour_rate or ZERO) / 60),
        worth=0.0 if worth is None else float(worth.paid / worth.size),
    )
