"""The desk's answer, printed. What is printed of the agent is rounded down; parts per million up."""

from collections.abc import Iterator
from fractions import Fraction
from math import ceil
from typing import Final

from dolmetsch.core.curing.brine_mixing import Water, mix_water
from dolmetsch.core.curing.curing_cautions import caution, caution_days
from dolmetsch.core.curing.curing_time import CENTRE_RATIO, Window, centre_on, judge_day, say_rules
from dolmetsch.core.curing.desk import print_agent
from dolmetsch.core.curing.desk_answer import Desk, Role, WeighOut
from dolmetsch.core.curing.schools import School
from dolmetsch.core.errors import CureError
from dolmetsch.core.findings import Finding, care, note
from dolmetsch.core.numbers.amounts import count_full_spoons, count_spoons, say_spoons
from dolmetsch.core.numbers.exact import fixed
from dolmetsch.core.numbers.spelling import same_name
from dolmetsch.core.reference.nitrite import limit_for
from dolmetsch.core.reference.spoons import SPOON_ERROR
from dolmetsch.server.cures import schemas
from dolmetsch.server.cures.desk import DeskPiece, DeskState
from dolmetsch.server.findings import show_findings
from dolmetsch.server.pieces.queries import print_length
from dolmetsch.server.problems import FieldProblem
from dolmetsch.server.quantities.printing import as_sentence, print_money, print_percent, print_weight
from dolmetsch.server.quantities.reader import Reader

CURVE_SOURCE: Final = (
    f"Diffusion into a slab: the center at {int(CENTRE_RATIO * 100)} % of what is outside. "
    "Salt in lean meat at 2 to 4 °C spreads at 1 to 5 × 10⁻¹⁰ m²/s by the literature; drawn with 2.5, the "
    "band is that span. Fat slows it, skin nearly blocks its side."
)
#: Where the kitchen says nothing else: a quarter of the water boiled, the rest from the tap in the fridge.
HOT_PART, HOT_F, COLD_F = Fraction(1, 4), Fraction(212), Fraction(40)


def _print_grams(role: Role, grams: Fraction) -> str:
    """Grams to weigh out: of the curing agent rounded down, so that it never brings more than computed."""
    return print_agent(grams) if role == "agent" else fixed(grams, 1)


def show_desk(laid: DeskState) -> schemas.DeskOut:
    """The whole desk."""
    shown = [_show_piece(laid, one, index) for index, one in enumerate(laid.pieces)]
    totals: dict[str, tuple[Fraction, Fraction | None]] = {}
    for one in laid.pieces:
        for line in _bought(one):
            grams, cost = totals.get(line.name, (Fraction(0), Fraction(0)))
            price = _cost(laid, one, line)
            totals[line.name] = (
                # what is weighed out, as it is printed beside each piece: they add up to this
                grams + Fraction(_print_grams(line.role, line.grams)) * one.own_share,
                None if cost is None or price is None else cost + price,
            )
    agents = {line.name for one in laid.pieces for line in _bought(one) if line.role == "agent"}
    costs = [cost for _, cost in totals.values() if cost is not None]
    return schemas.DeskOut(
        pieces=shown,
        totals=[
            schemas.TotalOut(
                name=name,
                grams=_print_grams("agent" if name in agents else "extra", grams),
                cost=None if cost is None else print_money(cost),
            )
            for name, (grams, cost) in totals.items()
        ],
        cost=print_money(sum(costs, Fraction(0))),
        unpriced=[name for name, (_, cost) in totals.items() if cost is None],
        problems=laid.reader.problems,
    )


def _bought(one: DeskPiece) -> list[WeighOut]:
    return [] if one.desk is None else [line for line in one.desk.lines if line.role != "water"]


def _cost(laid: DeskState, one: DeskPiece, line: WeighOut) -> Fraction | None:
    """Money for the piece's part of a line by the price list; None where that has no price by weight."""
    priced = laid.listed.get(same_name(line.name))
    if priced is None or priced.price.grams is None:
        return None
    return priced.price.cost_of(line.grams * one.own_share)


def _show_piece(laid: DeskState, one: DeskPiece, index: int) -> schemas.DeskPieceOut:
    costs = [_cost(laid, one, line) for line in _bought(one)]
    school = one.recipe.facts if one.recipe else None
    thickness = None if one.cured is None else one.cured.thickness_mm
    path = f"pieces[{index}]."
    cautions: list[Finding] = list(_say_meats(one, laid.batch.kitchen.weight_unit))
    if one.recipe is not None and one.cured is not None and one.desk is not None:
        cautions += caution(one.recipe, one.cured, one.desk)
    if one.cured is not None and one.time is not None:
        cautions += caution_days(one.cured, one.time, one.out_day)
    return schemas.DeskPieceOut(
        mark=one.input.mark,
        weight=print_weight(one.piece.grams),
        grams=fixed(one.piece.grams, 0),
        tub=one.input.tub if one.tub_grams != one.piece.grams else "",
        tub_weight=print_weight(one.tub_grams) if one.tub_grams != one.piece.grams else None,
        is_kept_warm=one.input.is_kept_warm,
        thickness=None if thickness is None else print_length(Fraction(thickness)),
        skin="on" if one.skin == "on" else "off" if one.skin == "off" else "",
        school=school.label if school else "",
        how=school.how if school else "",
        course=one.course,
        product=one.product,
        lines=list(_show_lines(laid, one)),
        gauge=_show_gauge(one),
        brine=_show_brine(one, laid.reader, path),
        time=_show_time(one),
        salt_in_slice=_say_salt(one),
        cautions=show_findings([*cautions, *_mix_cautions(one)]),
        questions=[
            FieldProblem(path=f"{path}recipe.{asked.subject}", code=asked.code, message=asked.message)
            for asked in one.questions
        ],
        cost=print_money(sum((cost for cost in costs if cost is not None), Fraction(0))) if costs else None,
        stage_note=_stage_note(one),
    )


def _say_meats(one: DeskPiece, unit: str) -> Iterator[Finding]:
    """What a sausage is mixed of, by weight as it came in."""
    total = sum((grams for _, grams in one.meats), Fraction(0))
    if len(one.meats) < 2:
        return
    parts = [
        f"{cut} {print_weight(grams).say(unit)} ({fixed(grams / total * 100, 0)} %)"
        for cut, grams in one.meats
    ]
    yield note("meats", f"Mixed of {', '.join(parts)}, as they came in.")


def _stage_note(one: DeskPiece) -> str:
    if one.recipe is None:
        return ""
    later = [extra.name for extra in one.recipe.extras if extra.stage == 2]
    return f"Second stage, once out: {', '.join(later)}." if later else ""


def _show_lines(laid: DeskState, one: DeskPiece) -> Iterator[schemas.LineOut]:
    if one.desk is None or one.recipe is None:
        return
    if one.mix is not None:
        grams = one.dry_grams
        yield _line(f"mix: {one.mix.mix.recipe.name}", "mix", grams, grams / one.piece.grams)
    lines = one.desk.lines if one.mix is None else sorted(one.desk.lines, key=lambda line: line.stage)
    for line in lines:
        is_mixed = one.mix is not None and line.stage == 1
        yield _of(laid, one, line, text="in the mix" if is_mixed else _say_share(one, line))


def _say_share(one: DeskPiece, line: WeighOut) -> str:
    mix = one.desk.mix if one.desk else None
    if line.role == "agent" and mix is not None:
        text = "nitrite not known" if mix.ppm is None else f"{_up(mix.ppm, 0)} ppm"
        return f"{text}, {fixed(line.share * 100, 2)} %"
    base = "of the meat" if line.role in ("water", "box") else ""
    return f"{fixed(line.share * 100, 2)} % {base}".strip()


def _of(laid: DeskState, one: DeskPiece, line: WeighOut, *, text: str) -> schemas.LineOut:
    grams = _print_grams(line.role, line.grams)
    shown = _line(line.name, line.role, line.grams, line.share)
    cost = _cost(laid, one, line)
    spoon = line.ingredient.spoon if line.ingredient else None
    if line.role == "agent" and one.recipe is not None and one.recipe.agent is not None:
        spoon = laid.spoons[one.recipe.agent.spoon]
    shown = shown.model_copy(
        update={
            "grams": grams,
            "text": text,
            "stage": line.stage,
            "cost": None if cost is None else print_money(cost),
        }
    )
    if one.own_share != 1:
        shown = shown.model_copy(update={"own_grams": fixed(line.grams * one.own_share, 2)})
    if spoon is None:
        return shown
    is_agent = line.role == "agent"
    spoons = count_full_spoons(line.grams, spoon) if is_agent else count_spoons(line.grams, spoon)
    held = spoons * spoon.grams
    return shown.model_copy(
        update={
            "spoons": say_spoons(spoons),
            "spoons_grams": fixed(held, 1),
            "is_spooned": is_agent and one.desk is not None and one.desk.spoons is not None and spoons > 0,
            "spoons_from": fixed(held * (1 - SPOON_ERROR), 1),
            "spoons_to": fixed(held * (1 + SPOON_ERROR), 1),
        }
    )


def _line(name: str, role: str, grams: Fraction, share: Fraction) -> schemas.LineOut:
    return schemas.LineOut.model_validate(
        {
            "name": name,
            "role": role,
            "stage": 1,
            "grams": fixed(grams, 1),
            "share": fixed(share * 100, 2),
            "text": f"{fixed(share * 100, 2)} %",
            "spoons": None,
            "spoons_from": None,
            "spoons_to": None,
            "cost": None,
        }
    )


def _up(value: Fraction, places: int) -> str:
    """Rounded up, so that it is never shown lower than it is."""
    return fixed(Fraction(ceil(value * 10**places), 10**places), places)


def _show_gauge(one: DeskPiece) -> schemas.GaugeOut | None:
    desk, cured, recipe = one.desk, one.cured, one.recipe
    if desk is None or cured is None or recipe is None:
        return None
    mix = desk.mix
    if (recipe.agent is None and not cured.carried_ppm) or mix.limit_ppm is None:
        return None
    assert mix.limit_name is not None
    assert mix.limit_source is not None
    table = limit_for(product=cured.product, method=recipe.facts.method, skin_on=cured.skin_on)
    carried = cured.carried_ppm
    return schemas.GaugeOut(
        ppm=None if desk.ppm is None else _up(desk.ppm, 1),
        own=None if mix.ppm is None else _up(mix.ppm, 1),
        carried_ppm=fixed(carried, 0) if carried else None,
        is_at_rule=desk.is_at_rule,
        low=None if desk.ppm_low is None else fixed(desk.ppm_low, 0),
        high=None if desk.ppm_high is None else _up(desk.ppm_high, 0),
        pick_up=None if mix.ppm_pick_up is None else _up(mix.ppm_pick_up, 1),
        one_system=None if mix.ppm_one_system is None else _up(mix.ppm_one_system, 1),
        limit=fixed(mix.limit_ppm, 0),
        limit_name=mix.limit_name,
        source=mix.limit_source,
        reference=None if table.ppm == mix.limit_ppm else fixed(table.ppm, 0),
        is_over=desk.is_over,
        error=_say_error(desk),
    )


def _say_error(desk: Desk) -> str:
    """What the spread of the gauge comes from."""
    if desk.spoons is not None and desk.spoons.is_too_coarse:
        return "from none of it to a level ¼ teaspoon"
    if desk.mix.agent_error is None or desk.spoons is not None:
        return "level spoons differ by 10 %"
    return f"by the scale's own step, {print_percent(desk.mix.agent_error)} % of the agent either way"


def _show_brine(one: DeskPiece, reader: Reader, path: str) -> schemas.BrineOut | None:
    if one.desk is None or one.desk.brine is None or one.desk.mix.water is None:
        return None
    brine, recipe = one.desk.brine, one.input.recipe
    water = _part_water(
        one.desk.mix.water, recipe.hot_part, recipe.hot_water, recipe.cold_water, reader, path
    )
    if water is None:
        return None
    if water.may_go_in:
        said = "Cold enough for the meat once it is mixed."
    elif water.ice is not None:
        said = (
            f"Too warm for meat: {fixed(water.ice, 0)} g of the cold part as ice brings it to 40 °F "
            "(4 °C), or wait."
        )
    else:
        said = (
            "Too warm for meat, and ice alone does not mend it: into the fridge until it is under "
            "40 °F (4 °C)."
        )
    return schemas.BrineOut(
        weight=print_weight(brine.grams),
        grams=fixed(brine.grams, 0),
        injector_grams=fixed(brine.injector, 0),
        tub_grams=fixed(brine.tub, 0),
        spare_grams=fixed(brine.spare, 0),
        strength=fixed(brine.strength * 100, 1),
        hot_grams=fixed(water.hot, 0),
        cold_grams=fixed(water.cold, 0),
        mixed_f=fixed(water.mixed, 0),
        mixed_c=fixed((water.mixed - 32) * 5 / 9, 0),
        may_go_in=water.may_go_in,
        ice_grams=None if water.ice is None else fixed(water.ice, 0),
        water_note=said,
    )


def _part_water(grams: Fraction, part: str, hot: str, cold: str, reader: Reader, path: str) -> Water | None:
    share = reader.percent(f"{path}recipe.hot_part", part, what="share")
    hot_f = _fahrenheit(reader, f"{path}recipe.hot_water", hot)
    cold_f = _fahrenheit(reader, f"{path}recipe.cold_water", cold)
    try:
        return mix_water(
            grams,
            hot_ratio=HOT_PART if share is None else Fraction(share),
            hot_fahrenheit=HOT_F if hot_f is None else hot_f,
            cold_fahrenheit=COLD_F if cold_f is None else cold_f,
        )
    except CureError as error:
        reader.refuse(f"{path}recipe.{error.field}_water", "impossible", as_sentence(error.text))
        return None


def _fahrenheit(reader: Reader, path: str, text: str) -> Fraction | None:
    """A temperature in °F; a bare number is in the kitchen's own (°F beside pounds, °C beside kilograms)."""
    if not text:
        return None
    bare = text.lower().replace("°", " ").strip()
    is_celsius = bare.endswith("c") or (not bare.endswith("f") and reader.unit == "kg")
    value = reader.number(
        path,
        bare.removesuffix("c").removesuffix("f").strip(),
        what="temperature",
        limit=Fraction(300),
        places=1,
    )
    if value is None:
        return None
    return Fraction(value) * 9 / 5 + 32 if is_celsius else Fraction(value)


def _show_time(one: DeskPiece) -> schemas.TimeOut | None:
    time, recipe = one.time, one.recipe
    if time is None or recipe is None:
        return None
    out = one.out_day
    center = centre_on(time, out)
    return schemas.TimeOut(
        rules=say_rules(time.rules),
        first=time.window.first,
        last=time.window.last,
        out=out,
        planned=time.planned,
        state=judge_day(time.window, out),
        said=_say_day(recipe.facts, time.window, out),
        center=None if center is None else f"{center * 100:.0f}",
        asks_thickness=time.asks_thickness,
        curve=[
            schemas.CentrePointOut(
                days=f"{point.days:.2f}",
                middle=f"{point.middle * 100:.1f}",
                low=f"{point.low * 100:.1f}",
                high=f"{point.high * 100:.1f}",
            )
            for point in time.curve
        ],
        curve_source=CURVE_SOURCE,
    )


def _say_day(school: School, window: Window, day: int) -> str:
    """What a day means beside the window: too early, inside it, or past it."""
    match judge_day(window, day):
        case "early":
            days = "day" if window.first - day == 1 else "days"
            return (
                f"{window.first - day} {days} too early: the rules ask for {window.first} days at least. "
                "The middle is likely not cured yet."
            )
        case "over":
            days = "day" if day - window.last == 1 else "days"
            return f"{day - window.last} {days} past the window. {school.over}"
    return school.inside


def _say_salt(one: DeskPiece) -> str | None:
    """ "3.0 %, plus or minus 0.2 %"; None where it is not known."""
    if one.salt is None:
        return None
    low, high = (share * 100 for share in one.salt)
    middle, apart = (low + high) / 2, (high - low) / 2
    return f"{middle:.1f} %, plus or minus {max(apart, 0.1):.1f} %"


def _mix_cautions(one: DeskPiece) -> Iterator[Finding]:
    if one.mix is None or one.desk is None:
        return
    needed = one.dry_grams
    if needed > one.mix.left:
        left = fixed(one.mix.left, 0)
        text = f"It takes {fixed(needed, 0)} g of the mix, and by the records {left} g are left."
        source = "what was mixed less what was used"
        yield care("mix_short", text, source=source)
