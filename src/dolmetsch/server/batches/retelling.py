"""An entry told again: in words for the log, and as the content it was typed as."""

from decimal import Decimal

from dolmetsch.core.strip import label_kind
from dolmetsch.server.batches import schemas
from dolmetsch.server.batches.chain import Act, EntryRows, used_record
from dolmetsch.server.batches.models import LOT_MARK, LotLine, UsedLine, Weighing
from dolmetsch.server.batches.printing import print_money, sign_of

BASIS_WORDS = {"per_lb": "a pound", "per_kg": "a kilogram", "pack": "for the pack"}


def label_entry(rows: EntryRows) -> str:
    """What the entry is called: "Smoked", "Shop pack", …"""
    act = rows.entry.act
    if act in (Act.SPLIT, Act.WEIGH):
        return label_kind(rows.entry.kind)
    return {
        Act.BOUGHT: "Bought",
        Act.PORTION: "Portion",
        Act.SHOP_PACK: "Shop pack",
        Act.WITHDRAW: "Taken back",
    }[Act(act)]


def describe(rows: EntryRows, *, currency: str) -> list[str]:
    """The entry in lines, quantities as they were typed, money with the sign of ``currency``."""
    sign = sign_of(currency)
    if rows.lot is not None:
        return _describe_lot(rows.lot, sign)
    if rows.shop_pack is not None:
        pack = rows.shop_pack
        counted = f", {pack.slices} slices" if pack.slices else ""
        return [f"{pack.name}: {sign}{_money(pack.paid)} for {pack.typed}{counted}"]
    if rows.portion is not None:
        slices = rows.portion.slices
        return [rows.portion.typed if slices is None else f"{plain(slices)} slices"]
    if rows.entry.act == Act.WITHDRAW:
        return ["no longer counts"]
    return [*_describe_weighings(rows), *_describe_spending(rows, sign)]


def _money(money: Decimal) -> str:
    """Two decimals, or the four it has where they matter (a price like 2.855)."""
    return f"{money:.2f}" if money == round(money, 2) else plain(money)


def _describe_lot(lot: LotLine, sign: str) -> list[str]:
    weights = [
        f"{typed} {where}"
        for typed, where in ((lot.label_typed, "on the label"), (lot.own_typed, "on our scale"))
        if typed
    ]
    paid = f"{sign}{_money(lot.price)} {BASIS_WORDS[lot.price_basis]}"
    if lot.price_basis != LotLine.Basis.PACK:
        paid += f", {sign}{_money(lot.paid)} paid"
    return [lot.cut, ", ".join(weights), paid]


def _describe_weighings(rows: EntryRows) -> list[str]:
    pieces = [
        f"{line.mark} {line.typed}" + (f", {line.slices} slices" if line.slices else "")
        for line in rows.weighings
        if line.role != Weighing.Role.BY_PRODUCT
    ]
    cut = [
        f"{line.name} {line.typed} ({_worth(line)})"
        for line in rows.weighings
        if line.role == Weighing.Role.BY_PRODUCT
    ]
    split = rows.entry.from_mark
    whole = f"{'whole' if split == LOT_MARK else split} → " if split else ""
    return [whole + " · ".join(pieces), *(["off: " + " · ".join(cut)] if cut else [])]


def _worth(line: Weighing) -> str:
    if line.worth == Weighing.Worth.PRICE:
        return f"worth {line.worth_typed}"
    return "worth as the meat" if line.worth == Weighing.Worth.AS_MAIN else "worth nothing"


def _describe_spending(rows: EntryRows, sign: str) -> list[str]:
    used = [
        " ".join(filter(None, [line.what, line.amount_typed, f"({sign}{_cost(line)})"])) for line in rows.used
    ]
    minutes = [] if not rows.entry.minutes else [f"{plain(rows.entry.minutes)} minutes of work"]
    return [*(["used: " + " · ".join(used)] if used else []), *minutes]


def _cost(line: UsedLine) -> str:
    return print_money(used_record(line).cost)


def plain(number: Decimal) -> str:
    """A decimal without needless zeros, in fixed notation."""
    text = f"{number:f}"
    return text.rstrip("0").rstrip(".") if "." in text else text


def retell(rows: EntryRows) -> schemas.Content:
    """The entry's content as it was typed, to be corrected from."""
    entry = rows.entry
    if rows.lot is not None:
        return schemas.BoughtIn.model_validate(
            {
                "cut": rows.lot.cut,
                "label_weight": rows.lot.label_typed,
                "own_weight": rows.lot.own_typed,
                "price_basis": rows.lot.price_basis,
                "price": rows.lot.price_typed,
            }
        )
    if rows.portion is not None:
        slices = rows.portion.slices
        return schemas.PortionIn(slices="" if slices is None else plain(slices), weight=rows.portion.typed)
    if rows.shop_pack is not None:
        pack = rows.shop_pack
        return schemas.ShopPackIn(
            name=pack.name, paid=pack.paid_typed, weight=pack.typed, slices=_count(pack.slices)
        )
    if entry.act == Act.WITHDRAW:
        return schemas.WithdrawIn()
    return _retell_step(rows)


def _count(number: int | None) -> str:
    return "" if number is None else str(number)


def _retell_step(rows: EntryRows) -> schemas.SplitIn | schemas.WeighIn:
    entry = rows.entry
    told: dict[str, object] = {
        "kind": entry.kind,
        "minutes": "" if entry.minutes is None else plain(entry.minutes),
        "used": [
            {"what": u.what, "group": u.cost_group, "amount": u.amount_typed, "price": u.price_typed}
            for u in rows.used
        ],
    }
    if entry.act == Act.WEIGH:
        told["weights"] = [{"mark": line.mark, "weight": line.typed} for line in rows.weighings]
        return schemas.WeighIn.model_validate(told)
    told["piece"] = entry.from_mark
    told["pieces"] = [
        {"mark": line.mark, "weight": line.typed, "slices": _count(line.slices)}
        for line in rows.weighings
        if line.role == Weighing.Role.MAIN
    ]
    told["cut_off"] = [
        {
            "name": line.name,
            "material": line.material,
            "weight": line.typed,
            "worth": line.worth,
            "price": line.worth_typed,
        }
        for line in rows.weighings
        if line.role == Weighing.Role.BY_PRODUCT
    ]
    return schemas.SplitIn.model_validate(told)
