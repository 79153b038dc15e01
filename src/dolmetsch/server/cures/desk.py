"""The desk: pieces of a batch and a recipe for each, answered by the core and priced by the price list."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from fractions import Fraction
from math import exp, sqrt
from typing import Final

from dolmetsch.core.curing.cure import Product
from dolmetsch.core.curing.curing_cautions import ask
from dolmetsch.core.curing.curing_time import CuringTime, plan_time
from dolmetsch.core.curing.desk import weigh_out
from dolmetsch.core.curing.desk_answer import Desk
from dolmetsch.core.curing.recipe import CuredPiece, Recipe
from dolmetsch.core.curing.recipe_words import describe_cure
from dolmetsch.core.curing.schools import SCHOOLS
from dolmetsch.core.errors import CureError
from dolmetsch.core.findings import Finding, question
from dolmetsch.core.forecast.outlook import Estimate
from dolmetsch.core.forecast.way import Way
from dolmetsch.core.forecast.yields import Belief, believe
from dolmetsch.core.ledger.course import Course
from dolmetsch.core.ledger.pieces import Piece
from dolmetsch.core.meat.cuts import read_cut
from dolmetsch.core.numbers.exact import GRAMS_PER_LB
from dolmetsch.core.numbers.spelling import same_name
from dolmetsch.core.reference.nitrite import Limits
from dolmetsch.core.reference.spoons import Spoonful
from dolmetsch.server.batches.entries.chain import CostedBatch
from dolmetsch.server.batches.entries.chosen_way import way_of
from dolmetsch.server.batches.entries.course import courses_of
from dolmetsch.server.batches.forecast.history import read_history
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.batches.show.queries import cost_batch, get_piece
from dolmetsch.server.cures import typed
from dolmetsch.server.cures.earlier import NOT_CURED, Earlier, find_earlier
from dolmetsch.server.cures.figures import limits_of, spoons_of
from dolmetsch.server.cures.mixes import MixStock, find_mixes, is_mixable
from dolmetsch.server.cures.reading import read_recipe
from dolmetsch.server.pieces.queries import Facts, gather_facts, product_of
from dolmetsch.server.prices.queries import Priced, find_used
from dolmetsch.server.quantities.printing import as_sentence
from dolmetsch.server.quantities.reader import Reader

#: Steps after the cure that only take water away, and so make the meat saltier.
_SHRINKING: Final = frozenset({"rest", "smoke", "chill", "dry"})
#: Methods of those steps, of a course that goes another way than most.
_SHRINKING_METHODS: Final[Mapping[Course | None, Sequence[str]]] = {
    "air_dried": ["air_dry"],
    "fermented_dried": ["air_dry"],
    "cold_smoked_raw": ["rest", "cold_smoke", "chill"],
    "cured_raw": ["rest", "chill"],
    "pulled": ["rest", "pulled"],
    "steamed": ["rest", "pulled"],
}
#: Fields of the core's cure by the names they have on the desk.
_FIELDS: Final = {
    "agent.nitrite": "agent_nitrite",
    "target_ppm": "target",
    "agent": "agent",
    "hot": "hot_water",
    "cold": "cold_water",
}


@dataclass(slots=True, kw_only=True)
class DeskPiece:
    """A piece on the desk: what was typed and is known of it, and what the core answers. None: not yet.

    ``tub_grams``: weight of all the pieces that share its brine, itself included; ``recipe`` is that of the
    mix it is cured with, where there is one.
    """

    input: typed.CuredPieceIn
    piece: Piece
    facts: Facts
    skin: str
    product: Product
    #: The meats a sausage was mixed of, as they came in, in grams.
    meats: tuple[tuple[str, Fraction], ...] = ()
    tub_grams: Fraction
    recipe: Recipe | None = None
    cured: CuredPiece | None = None
    desk: Desk | None = None
    time: CuringTime | None = None
    mix: MixStock | None = None
    salt: tuple[float, float] | None = None
    course: Course | None = None
    questions: list[Finding] = field(default_factory=list)

    @property
    def dry_grams(self) -> Fraction:
        """What of the first stage is weighed out: so much of a mix goes on this piece."""
        lines = () if self.desk is None else self.desk.lines
        return sum((line.grams for line in lines if line.stage == 1), Fraction(0))

    @property
    def own_share(self) -> Fraction:
        """The piece's share of what is weighed out for its tub: 1 where it lies alone."""
        return self.piece.grams / self.tub_grams

    @property
    def out_day(self) -> int:
        """The day the cook picked, else the planned one."""
        assert self.time is not None
        return self.input.out_day or self.time.planned


@dataclass(slots=True, kw_only=True)
class DeskState:
    """All pieces on the desk, what stands against them, and the prices of what they need."""

    batch: Batch
    pieces: list[DeskPiece]
    reader: Reader
    listed: Mapping[str, Priced]
    scale: Fraction | None
    spoons: Mapping[str, Spoonful]


def read_desk(batch: Batch, data: typed.DeskIn) -> DeskState:
    """Read and answer every piece of ``data``.

    Raises:
        DomainError: not_found (a piece that is no more).
    """
    costed = cost_batch(batch)
    kitchen = batch.kitchen
    reader = Reader.of(kitchen)
    typed_scale = reader.weight("scale", data.scale, bare=False) if data.scale else kitchen.scale_grams
    scale = None if typed_scale is None else Fraction(typed_scale)
    spoons, limits = spoons_of(kitchen), limits_of(kitchen)
    known = gather_facts([batch])
    mixes = find_mixes(kitchen, [one.mix for one in data.pieces if one.mix is not None])
    way, history = way_of(batch.chosen_way), read_history(kitchen)
    cut = read_cut(costed.chain.batch.lots[0].cut)
    earlier = find_earlier(batch, costed)
    pieces = [_lay(one, costed, known.get((batch.pk, one.mark), Facts())) for one in data.pieces]
    courses = courses_of(batch, [laid.piece for laid in pieces], costed.chain.current)
    for laid in pieces:
        laid.course = laid.input.course or courses[laid.piece.id]
    _share_tubs(reader, pieces)
    for index, laid in enumerate(pieces):
        path = f"pieces[{index}]."
        _refuse_twice(reader, data, index)
        laid.recipe = read_recipe(reader, laid.input.recipe, spoons, path=f"{path}recipe.")
        _find_mix(laid, mixes, reader, path)
        if laid.mix is not None and laid.recipe is not None:
            use_mix(laid, spoons)
        if laid.recipe is not None:
            _answer(laid, earlier, limits=limits, scale=scale, reader=reader, path=path)
            methods = _shrinking_methods(laid.course, way)
            laid.salt = _salt_in_slice(laid, [believe(method, cut, history) for method in methods])
    names = {line.name for one in pieces if one.desk for line in one.desk.lines if line.role != "water"}
    listed = find_used(kitchen, names) if names else {}
    return DeskState(batch=batch, pieces=pieces, reader=reader, listed=listed, scale=scale, spoons=spoons)


def _lay(data: typed.CuredPieceIn, costed: CostedBatch, facts: Facts) -> DeskPiece:
    piece = get_piece(costed, data.mark)
    skin = _skin(data, facts, costed)
    product = data.product or product_of(piece, facts, cut=costed.chain.batch.lots[0].cut)
    is_mixed = SCHOOLS[data.recipe.school].time == "mixed"
    if is_mixed:
        # mixed through, whatever it was cut from: the limits of comminuted meat
        product = "comminuted"
    laid = DeskPiece(input=data, piece=piece, facts=facts, skin=skin, product=product, tub_grams=piece.grams)
    if is_mixed:
        laid.meats = tuple((lot.cut, lot.grams) for lot in costed.chain.batch.lots)
    return laid


def _share_tubs(reader: Reader, pieces: Sequence[DeskPiece]) -> None:
    """Pieces that lie in one tub are under one brine: it is mixed for all of them, by one recipe."""
    tubs: dict[str, list[tuple[int, DeskPiece]]] = {}
    for place, laid in enumerate(pieces):
        is_covered = SCHOOLS[laid.input.recipe.school].method in ("brine", "pump_and_brine")
        if is_covered and laid.input.tub:
            tubs.setdefault(same_name(laid.input.tub), []).append((place, laid))
    for lying in tubs.values():
        together = sum((laid.piece.grams for _, laid in lying), Fraction(0))
        for place, laid in lying:
            laid.tub_grams = together
            if laid.input.recipe != lying[0][1].input.recipe:
                said = (
                    f"Tub {laid.input.tub} holds one brine: give its pieces the same recipe, or another tub."
                )
                reader.refuse(f"pieces[{place}].tub", "two_brines", said)


def use_mix(laid: DeskPiece, spoons: Mapping[str, Spoonful]) -> None:
    """Take the recipe of the mix in place of the one on the desk, and ask where they differ.

    What a mix brings is what was weighed into it; of the desk's recipe only the second stage goes on later.
    """
    assert laid.mix is not None
    assert laid.recipe is not None
    kept = laid.mix.mix.recipe
    mixed = read_recipe(Reader(unit="g"), typed.RecipeIn.model_validate(kept.input), spoons)
    if mixed is None:
        return
    wanted = laid.recipe
    later = tuple(extra for extra in wanted.extras if extra.stage == 2)
    first = tuple(extra for extra in mixed.extras if extra.stage == 1)
    is_plain = "plain" in (mixed.school, wanted.school)
    laid.recipe = replace(mixed, school=mixed.school if is_plain else wanted.school, extras=(*first, *later))
    is_other = describe_cure(mixed) != describe_cure(wanted)
    if is_other or mixed.agent_share != wanted.agent_share or mixed.target_ppm != wanted.target_ppm:
        text = (
            f"The mix “{kept.name}” was made with {describe_cure(mixed)}; the recipe here has "
            f"{describe_cure(wanted)}. What is in the mix counts. Use it?"
        )
        laid.questions.append(question("mix", text))


def _refuse_twice(reader: Reader, data: typed.DeskIn, index: int) -> None:
    mark = data.pieces[index].mark
    if mark in [one.mark for one in data.pieces[:index]]:
        reader.refuse(f"pieces[{index}].mark", "twice", f"“{mark}” is on the desk twice.")


def _skin(data: typed.CuredPieceIn, facts: Facts, costed: CostedBatch) -> str:
    """Skin on or off: as entered here, else as known of the piece, else as the lot was bought."""
    if data.skin or facts.skin:
        return data.skin or facts.skin
    is_trimmed = any(out.material == "skin" for out in costed.sheet.ledger.by_products)
    return "off" if is_trimmed else read_cut(costed.chain.batch.lots[0].cut).skin


def _find_mix(laid: DeskPiece, mixes: dict[int, MixStock], reader: Reader, path: str) -> None:
    if laid.input.mix is None:
        return
    laid.mix = mixes.get(laid.input.mix)
    if laid.mix is None:
        reader.refuse(f"{path}mix", "unknown", "That mix is not in this kitchen.")
    elif not is_mixable(laid.input.recipe.school):
        reader.refuse(f"{path}mix", "no_mix", "A dry mix is for measured cures.")


def _answer(
    laid: DeskPiece,
    earlier: Mapping[str, Earlier],
    *,
    limits: Limits,
    scale: Fraction | None,
    reader: Reader,
    path: str,
) -> None:
    data, recipe = laid.input, laid.recipe
    assert recipe is not None
    thickness = (
        reader.length(f"{path}thickness", data.thickness) if data.thickness else laid.facts.thickness_mm
    )
    if data.thickness and thickness is None:
        return
    before = earlier.get(laid.piece.id, NOT_CURED)
    laid.cured = CuredPiece(
        grams=laid.tub_grams,
        product=laid.product,
        course=laid.course,
        skin_on=laid.skin == "on",
        thickness_mm=None if thickness is None else float(thickness),
        kinds=frozenset(laid.piece.kinds),
        is_kept_warm=data.is_kept_warm,
        carried_ppm=before.ppm(laid.piece.grams),
    )
    laid.questions += ask(recipe, laid.cured)
    if (question := before.ask(laid.piece)) is not None:
        laid.questions.append(question)
    try:
        laid.desk = weigh_out(recipe, laid.cured, scale=None if laid.mix else scale, limits=limits)
        if laid.mix is not None and scale is not None and laid.dry_grams:
            # a mix is weighed on the same scale, but there is more of it than of the agent in it
            step = scale * laid.desk.mix.agent / laid.dry_grams
            laid.desk = weigh_out(recipe, laid.cured, scale=step or None, limits=limits)
    except CureError as error:
        name = _FIELDS.get(error.field, error.field)
        name = f"{name}.amount" if name == "salt" else name
        reader.refuse(f"{path}recipe.{name}", "impossible", as_sentence(error.text))
    try:
        laid.time = plan_time(
            recipe.school,
            pounds=float(laid.piece.grams / GRAMS_PER_LB),
            thickness_mm=laid.cured.thickness_mm,
            skin_on=laid.cured.skin_on,
            is_belly=laid.product == "bacon",
        )
    except CureError as error:
        reader.refuse(f"{path}thickness", "impossible", as_sentence(error.text))


def _shrinking_methods(course: Course | None, way: Way) -> Sequence[str]:
    """The steps after the cure in which the meat only loses water, by what the piece is to become."""
    if course in _SHRINKING_METHODS:
        return _SHRINKING_METHODS[course]
    return [step.method for step in way.steps if step.kind in _SHRINKING]


def _salt_in_slice(laid: DeskPiece, beliefs: Sequence[Belief]) -> tuple[float, float] | None:
    """Salt in the finished slice, from and to: what the meat holds, in less and less weight."""
    desk = laid.desk
    if desk is None or desk.salt_low is None or desk.salt_high is None:
        return None
    kept = Estimate(
        middle=exp(sum(belief.log_mean for belief in beliefs)),
        log_deviation=sqrt(sum(belief.log_deviation**2 for belief in beliefs)),
    )
    return float(desk.salt_low) / kept.high, float(desk.salt_high) / kept.low
