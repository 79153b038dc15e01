"""An entry described: in words for the log, and as the content it was typed as."""

import re
from collections.abc import Callable, Mapping
from decimal import Decimal
from fractions import Fraction
from typing import Final, cast

from dolmetsch.core.costing.strip import label_kind
from dolmetsch.core.ledger.batch import purge_ratio
from dolmetsch.core.ledger.course import COURSE_FACTS, Course
from dolmetsch.core.numbers.exact import fixed
from dolmetsch.server.batches.entries import typed
from dolmetsch.server.batches.entries.chain import STEP_ACTS, Act, EntryRows, used_record
from dolmetsch.server.batches.models import LOT_MARK, Batch, Entry, LotLine, PolicyLine, Weighing
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.quantities.printing import print_money, sign_of
from dolmetsch.server.quantities.spoken import say_amount
from dolmetsch.server.quantities.units import UNITS

BASIS_WORDS = {"per_lb": "a pound", "per_kg": "a kilogram", "pack": "for the pack"}


def label_entry(rows: EntryRows) -> str:
    """What the entry is called: "Smoked", "Shop pack", …"""
    act = rows.entry.act
    if act in STEP_ACTS:
        return label_kind(rows.entry.kind) or "Step"
    return {
        Act.BOUGHT: "Bought",
        Act.PORTION: "Portion",
        Act.POLICY: "Policy",
        Act.FRY: "Fried",
        Act.SHOP_PACK: "Shop pack",
        Act.FINISH: "Finished",
        Act.COURSE: "To become",
        Act.WITHDRAW: "Canceled",
    }[Act(act)]


def _describe_course(entry: Entry) -> str:
    """What pieces are to become, in a line."""
    words = COURSE_FACTS[cast(Course, entry.course)].label if entry.course else "not said any more"
    return f"{' and '.join(entry.marks)}: {words}" if entry.marks else words


_PLAIN_WORDS: Final[Mapping[Act, Callable[[Entry], str]]] = {
    Act.WITHDRAW: lambda _: "no longer counts",
    Act.FINISH: lambda _: "finished as it is",
    Act.COURSE: _describe_course,
}


def describe(rows: EntryRows, kitchen: Kitchen) -> list[str]:
    """The entry in lines, quantities as they were typed: bare weights with the kitchen's unit, money with
    its sign.
    """
    sign, unit = sign_of(kitchen.currency), kitchen.weight_unit
    if rows.lot is not None:
        return _describe_lot(rows, rows.lot, kitchen)
    if rows.shop_pack is not None:
        pack = rows.shop_pack
        counted = f", {pack.slices} slices" if pack.slices else ""
        fried = f", {_percent(pack.fry_ratio)} left after frying" if pack.fry_ratio is not None else ""
        size = _with_unit(pack.typed, unit)
        return [f"{pack.name or 'a pack'}: {_amount(sign, pack.paid)} for {size}{counted}{fried}"]
    if rows.portion is not None:
        slices, cooked = rows.portion.slices, rows.portion.cooked_grams
        if slices is not None:
            return [f"{plain(slices)} slices"]
        return [_with_unit(rows.portion.typed, unit) + (" cooked" if cooked is not None else "")]
    if rows.fry is not None:
        weights = ""
        if rows.fry.raw_typed:
            raw, cooked = (_with_unit(one, unit) for one in (rows.fry.raw_typed, rows.fry.cooked_typed))
            weights = f", {raw} to {cooked}"
        return [f"{_percent(rows.fry.ratio)} left after frying{weights}"]
    if rows.policy is not None:
        return [describe_policy(rows.policy, sign)]
    if (words := _PLAIN_WORDS.get(Act(rows.entry.act))) is not None:
        return [words(rows.entry)]
    return [
        *_describe_weighings(rows, kitchen),
        *_describe_heat(rows.entry),
        *_describe_spending(rows, sign),
    ]


def _describe_heat(entry: Entry) -> list[str]:
    inside = f"{entry.inside_typed} inside" if entry.inside_typed else ""
    words = ", ".join(word for word in (entry.heat, inside) if word)
    return [words] if words else []


def describe_policy(policy: PolicyLine | Batch, sign: str) -> str:
    """What is counted, in a line."""
    rate = policy.labour_rate
    work = "work not counted" if rate is None else f"work at {_amount(sign, rate)} an hour"
    trim = "trim credited" if policy.credit_by_products else "trim not credited"
    switches = {
        "fuel": policy.count_fuel,
        "packaging": policy.count_packaging,
        "overhead": policy.count_overhead,
    }
    left_out = [name for name, counted in switches.items() if not counted]
    rest = f"{' and '.join(left_out)} left out" if left_out else "fuel, packaging and overhead counted"
    return f"{work}, {trim}, {rest}"


def _percent(ratio: Decimal) -> str:
    return f"{plain(ratio * 100)} %"


def _amount(sign: str, money: Decimal) -> str:
    """Two decimals, or the four it has where they matter (a price like 2.855)."""
    return say_amount(f"{sign}{money:.2f}" if money == round(money, 2) else f"{sign}{plain(money)}")


def _describe_purge(lot: LotLine) -> list[str]:
    if lot.label_grams is None or lot.own_grams is None:
        return []
    purge = purge_ratio(label_grams=Fraction(lot.label_grams), own_grams=Fraction(lot.own_grams))
    return [] if purge is None else [f"{fixed(purge * 100, 1)} % purge"]


def _describe_lot(rows: EntryRows, lot: LotLine, kitchen: Kitchen) -> list[str]:
    sign, unit = sign_of(kitchen.currency), kitchen.weight_unit
    weights = [
        f"{_with_unit(typed, unit)} {where}"
        for typed, where in ((lot.label_typed, "on the label"), (lot.own_typed, "on our scale"))
        if typed
    ]
    weights += _describe_purge(lot)
    paid = f"{_amount(sign, lot.price)} {BASIS_WORDS[lot.price_basis]}"
    if lot.price_basis != LotLine.Basis.PACK:
        paid += f", {_amount(sign, lot.paid)} paid"
    lines = [lot.cut, *([", ".join(weights)] if weights else [])]
    if lot.from_batch is not None:
        much = f"{_with_unit(lot.from_typed, unit)} of" if lot.from_typed else "all of"
        pack = f", out of pack {lot.from_pack}" if lot.from_pack else ""
        lines.append(f"{much} {lot.from_mark} from {lot.from_batch.code}{pack}")
    if lot.paid or lot.from_batch is None:
        lines.append(paid)
    if lot.bought_from:
        lines.append(f"from {lot.bought_from}")
    if rows.extras:
        extras = [f"{extra.what} {_amount(sign, extra.cost)}" for extra in rows.extras]
        lines.append("and " + " · ".join(extras))
    if lot.solution_ratio:
        lines.append(f"{_percent(lot.solution_ratio)} solution added")
    return lines


def _with_unit(typed: str, unit: str) -> str:
    """A weight as it was typed; a bare number was read in the kitchen's unit."""
    return typed if any(letter.isalpha() for letter in typed) else f"{typed} {unit}"


def _describe_weighings(rows: EntryRows, kitchen: Kitchen) -> list[str]:
    unit = kitchen.weight_unit
    pieces = [
        f"{line.mark} {_with_unit(line.typed, unit)}" + (f", {line.slices} slices" if line.slices else "")
        for line in rows.weighings
        if line.role != Weighing.Role.BY_PRODUCT
    ]
    cut = [
        f"{line.name} {_with_unit(line.typed, unit)} ({_worth(line, kitchen)})"
        for line in rows.weighings
        if line.role == Weighing.Role.BY_PRODUCT
    ]
    entry = rows.entry
    if entry.act == Act.DISCARD:
        bearer = "the other pieces carry its cost" if entry.charge == "batch" else "booked as loss"
        return [", ".join(entry.marks), bearer, *([entry.note] if entry.note else [])]
    if entry.act == Act.MERGE:
        return [f"{' + '.join(entry.marks)} → {' · '.join(pieces)}"]
    split = entry.from_mark
    whole = f"{'whole' if split == LOT_MARK else split} → " if split else ""
    return [whole + " · ".join(pieces), *(["off: " + " · ".join(cut)] if cut else [])]


def _worth(line: Weighing, kitchen: Kitchen) -> str:
    if line.worth == Weighing.Worth.PRICE:
        price = say_amount(f"{sign_of(kitchen.currency)}{line.worth_typed.lstrip('$€£')}")
        is_bare = not any(letter.isalpha() or letter == "/" for letter in line.worth_typed)
        return f"worth {price} a {UNITS[kitchen.weight_unit].word}" if is_bare else f"worth {price}"
    return "worth as the meat" if line.worth == Weighing.Worth.AS_MAIN else "worth nothing"


def _describe_spending(rows: EntryRows, sign: str) -> list[str]:
    used = [
        " ".join(
            filter(
                None,
                [
                    line.what,
                    line.amount_typed,
                    f"({say_amount(sign + print_money(used_record(line).cost))})",
                    f"for {', '.join(line.marks)}" if line.marks else "",
                ],
            )
        )
        for line in rows.used
    ]
    minutes = [] if not rows.entry.minutes else [f"{plain(rows.entry.minutes)} minutes of work"]
    entry = rows.entry
    overhead = [f"overhead {_amount(sign, entry.overhead)}"] if entry.overhead else []
    return [*(["used: " + " · ".join(used)] if used else []), *minutes, *overhead]


def plain(number: Decimal) -> str:
    """A decimal without needless zeros, in fixed notation."""
    text = f"{number:f}"
    return text.rstrip("0").rstrip(".") if "." in text else text


def plain_fraction(number: Fraction) -> str:
    """A rational that has at most twelve decimals, without needless zeros."""
    text = fixed(number, 12).rstrip("0").rstrip(".")
    return text or "0"


def read_back(rows: EntryRows) -> typed.Content:
    """The entry's content as it was typed, to be corrected from."""
    entry = rows.entry
    if rows.lot is not None:
        return _read_back_lot(rows, rows.lot)
    if rows.portion is not None:
        portion = rows.portion
        return typed.PortionIn(
            slices="" if portion.slices is None else plain(portion.slices),
            weight=portion.typed if portion.grams is not None else "",
            cooked_weight=portion.typed if portion.cooked_grams is not None else "",
        )
    if rows.shop_pack is not None:
        pack = rows.shop_pack
        return typed.ShopPackIn(
            name=pack.name,
            paid=pack.paid_typed,
            weight=pack.typed,
            slices=_count(pack.slices),
            fry="" if pack.fry_ratio is None else plain(pack.fry_ratio * 100),
        )
    if rows.fry is not None:
        return typed.FryIn(kept=rows.fry.typed, raw=rows.fry.raw_typed, cooked=rows.fry.cooked_typed)
    if rows.policy is not None:
        return read_back_policy(rows.policy)
    return _read_back_plain(entry) or _read_back_step(rows)


def _read_back_plain(entry: Entry) -> typed.Content | None:
    """An entry that has nothing but what it says; None for the others."""
    match entry.act:
        case Act.WITHDRAW:
            return typed.WithdrawIn()
        case Act.FINISH:
            return typed.FinishIn()
        case Act.COURSE:
            return typed.CourseIn.model_validate({"course": entry.course, "pieces": entry.marks})
    return None


def read_back_policy(policy: PolicyLine | Batch | Kitchen) -> typed.PolicyIn:
    """What is counted, as it would be typed."""
    return typed.PolicyIn(
        labour_rate="" if policy.labour_rate is None else f"{policy.labour_rate:.2f}",
        by_products=policy.credit_by_products,
        fuel=policy.count_fuel,
        packaging=policy.count_packaging,
        overhead=policy.count_overhead,
    )


def _read_back_lot(rows: EntryRows, lot: LotLine) -> typed.BoughtIn:
    source = None
    if lot.from_batch is not None:
        source = typed.SourceIn(batch=lot.from_batch.code, piece=lot.from_mark, weight=lot.from_typed)
    return typed.BoughtIn.model_validate(
        {
            "mark": _own_mark(lot.mark, LOT_MARK),
            "cut": lot.cut,
            "label_weight": lot.label_typed,
            "own_weight": lot.own_typed,
            "price_basis": lot.price_basis,
            "price": lot.price_typed,
            "extras": [{"what": extra.what, "cost": extra.typed} for extra in rows.extras],
            "solution": "" if lot.solution_ratio is None else plain(lot.solution_ratio * 100),
            "scale": rows.entry.scale_typed,
            "bought_from": lot.bought_from,
            "source": source,
        }
    )


def _own_mark(mark: str, name: str) -> str:
    """The mark, unless it was made of the name, and would be again."""
    return "" if re.fullmatch(rf"{re.escape(name)}( [0-9]+)?", mark) else mark


def _count(number: int | None) -> str:
    return "" if number is None else str(number)


def _read_back_step(rows: EntryRows) -> typed.Step:
    entry = rows.entry
    content: dict[str, object] = {
        "kind": entry.kind,
        "minutes": "" if entry.minutes is None else plain(entry.minutes),
        "used": [
            {
                "what": line.what,
                "group": line.cost_group,
                "amount": line.amount_typed,
                "price": line.price_typed,
                "pieces": line.marks,
            }
            for line in rows.used
        ],
        "overhead": "" if entry.overhead is None else plain(entry.overhead),
        "scale": entry.scale_typed,
    }
    if entry.act == Act.DISCARD:
        content |= {"pieces": entry.marks, "charge": entry.charge, "why": entry.note}
        return typed.DiscardIn.model_validate(content)
    if entry.act == Act.MERGE:
        (into,) = rows.weighings
        made = {"mark": into.mark, "weight": into.typed, "slices": _count(into.slices)}
        return typed.MergeIn.model_validate({**content, "pieces": entry.marks, "into": made})
    content |= {"heat": entry.heat, "inside": entry.inside_typed}
    if entry.act == Act.WEIGH:
        content["weights"] = [{"mark": line.mark, "weight": line.typed} for line in rows.weighings]
        return typed.WeighIn.model_validate(content)
    content["piece"] = entry.from_mark
    content["pieces"] = [
        {"mark": line.mark, "weight": line.typed, "slices": _count(line.slices)}
        for line in rows.weighings
        if line.role == Weighing.Role.MAIN
    ]
    content["cut_off"] = [
        {
            "mark": _own_mark(line.mark, line.name),
            "name": line.name,
            "material": line.material,
            "weight": line.typed,
            "worth": line.worth,
            "price": line.worth_typed,
        }
        for line in rows.weighings
        if line.role == Weighing.Role.BY_PRODUCT
    ]
    return typed.SplitIn.model_validate(content)
