"""What is shown of a costed batch: strip, house, shop, pieces, log. Prints, never computes."""

from collections.abc import Iterator, Sequence
from fractions import Fraction
from itertools import islice

from dolmetsch.core.buying.price_history import mean_and_spread
from dolmetsch.core.costing.batch_size import count_slabs
from dolmetsch.core.costing.scale_error import square_root
from dolmetsch.core.costing.sheet import Comparison, cost_per_lb
from dolmetsch.core.costing.strip import LABELS, Column, Peel, Strip, label_kind, label_piece
from dolmetsch.core.forecast.forecast_comparison import ForecastComparison
from dolmetsch.core.ledger import batch as core
from dolmetsch.core.ledger.pieces import Piece
from dolmetsch.core.numbers.exact import fixed
from dolmetsch.server.batches.entries import typed
from dolmetsch.server.batches.entries.chain import (
    CostedBatch,
    EntryRows,
    fetch_cooks,
    find_policy,
    find_portion,
)
from dolmetsch.server.batches.entries.course import courses_of
from dolmetsch.server.batches.entries.describing import (
    describe,
    label_entry,
    plain,
    read_back,
    read_back_policy,
)
from dolmetsch.server.batches.entries.finishing import is_finished
from dolmetsch.server.batches.entries.reading import free_marks
from dolmetsch.server.batches.entries.taken import list_pieces_here
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.batches.show import schemas
from dolmetsch.server.batches.show.own_share import find_own_share
from dolmetsch.server.batches.show.uses import keep_uses
from dolmetsch.server.findings import show_findings
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.quantities.printing import (
    per_kg,
    print_money,
    print_money_or_none,
    print_percent,
    print_unit_cost,
    print_weight,
)

#: The groups of the bill, in the order in which they are read.
GROUP_ORDER = ("meat", "buying", "cure", "fuel", "packaging", "other", "labour", "overhead", "credit")
FREE_MARKS_SHOWN = 8


def show_batch(batch: Batch, rows: list[EntryRows], costed: CostedBatch) -> schemas.BatchOut:
    """The whole batch."""
    lot = next(row.lot for row in costed.chain.current if row.lot is not None)
    marks = taken_marks(costed)
    return schemas.BatchOut(
        code=batch.code,
        name=batch.name,
        cut=lot.cut,
        started_at=batch.started_at,
        seen=rows[-1].entry.sequence,
        is_finished=batch.is_finished,
        place=batch.place,
        strip=show_strip(costed.strip, costed),
        house=show_house(costed, is_finished=batch.is_finished),
        shops=show_shops(costed, is_finished=batch.is_finished),
        pieces=[_show_piece(piece, costed, marks) for piece in list_pieces_here(batch, costed)],
        by_products=[
            schemas.ByProductOut(
                mark=piece.id,
                name=piece.name,
                material=piece.material,
                weight=print_weight(piece.grams),
                carried=print_money(piece.cost),
            )
            for piece in costed.sheet.ledger.by_products
        ],
        loss_account=print_money(costed.sheet.ledger.loss.total),
        sources=list(show_sources(costed)),
        policy=show_policy(batch, costed),
        warnings=show_findings(costed.sheet.ledger.warnings),
        log=list(_show_log(rows, batch.kitchen)),
    )


def taken_marks(costed: CostedBatch) -> set[str]:
    """Every mark the batch uses or has used."""
    record = costed.chain.batch
    made = {
        out.id for step in record.steps if isinstance(step.action, core.Split) for out in step.action.into
    }
    merged = {step.action.into.id for step in record.steps if isinstance(step.action, core.Merge)}
    return made | merged | {lot.id for lot in record.lots}


def show_policy(batch: Batch, costed: CostedBatch) -> typed.PolicyIn:
    """What this batch counts."""
    return read_back_policy(find_policy(costed.chain.current) or batch)


def show_sources(costed: CostedBatch) -> Iterator[schemas.SourceOut]:
    """Lots that are pieces of other batches, and what they carry now and carried then."""
    chain = costed.chain
    for lot, row in zip(chain.batch.lots, chain.lot_entries, strict=True):
        if lot.origin is None or row.lot is None or row.lot.from_batch is None:
            continue
        now = print_money(sum([money for _, money in lot.carried], Fraction(0)))
        then = now if row.lot.carried_then is None else print_money(Fraction(row.lot.carried_then))
        yield schemas.SourceOut(
            lot=lot.id,
            batch=lot.origin.batch,
            name=row.lot.from_batch.name,
            piece=lot.origin.piece,
            weight=print_weight(lot.grams),
            carried=now,
            carried_then=then,
            has_changed=now != then,
        )


def show_strip(strip: Strip, costed: CostedBatch) -> schemas.StripOut:
    """A strip, columns done and to come."""
    return schemas.StripOut(
        columns=[show_column(column, costed) for column in strip.columns],
        to_come=[schemas.KindOut(kind=kind, label=label_kind(kind)) for kind in strip.to_come],
    )


def show_column(column: Column, costed: CostedBatch) -> schemas.ColumnOut:
    """One column, dated by the entries behind it."""
    chain = costed.chain
    behind = [chain.step_entries[step - 1] for step in column.steps] or [
        row for row in chain.current if row.lot is not None
    ]
    return schemas.ColumnOut(
        kind=column.kind,
        label=label_kind(column.kind),
        first_at=min(row.entry.happened_at for row in behind),
        last_at=max(row.entry.happened_at for row in behind),
        entries=[row.entry.id or 0 for row in behind],
        pieces=list(column.pieces),
        weight_in=print_weight(column.grams_in),
        weight_out=print_weight(column.grams_out),
        kept_of_step=None if column.kept_of_step_ratio is None else print_percent(column.kept_of_step_ratio),
        kept_of_bought=print_percent(column.kept_of_bought_ratio),
        spent=print_money(column.spent),
        worth_back=print_money(column.worth_back),
        cost=print_unit_cost(column.cost_per_lb),
        peels=[_show_peel(peel) for peel in column.peels],
        came_together=column.came_together,
    )


def _show_peel(peel: Peel) -> schemas.PeelOut:
    return schemas.PeelOut(
        material=peel.material,
        name=peel.name,
        weight=print_weight(abs(peel.grams)),
        gain=peel.grams < 0,
        carried=print_money_or_none(peel.carried),
    )


def show_house(costed: CostedBatch, *, is_finished: bool) -> schemas.HouseOut:
    """The house's figures at the latest stage, which is named."""
    final, sliced = costed.sheet.final, costed.sheet.final.sliced
    fries = [Fraction(row.fry.ratio) for row in costed.chain.current if row.fry is not None]
    fry, variance = mean_and_spread(fries)
    order = {group: index for index, group in enumerate(GROUP_ORDER)}
    groups = sorted(final.groups.items(), key=lambda item: (order.get(item[0], len(order)), item[0]))
    return schemas.HouseOut(
        stage=_name_stage(costed),
        is_sliced=final.is_sliced,
        is_finished=is_finished,
        weight=print_weight(final.grams),
        cost=print_money(final.cost),
        unit_cost=print_unit_cost(final.cost_per_lb),
        kept_of_bought=print_percent(final.sliced_yield_ratio),
        slices=None if sliced is None else int(sliced.slices),
        cost_per_slice=None if sliced is None else print_money(sliced.cost_per_slice),
        cost_per_cooked=print_unit_cost(final.cost_per_cooked_lb),
        fry_kept=None if fry is None else print_percent(fry),
        fry_spread=None if variance is None else print_percent(square_root(variance)),
        fry_tests=len(fries),
        portion=print_money_or_none(final.portion_served),
        portion_label=_label_portion(costed),
        groups=[
            schemas.GroupOut(
                group=group,
                money=print_money(money),
                per_lb=print_money_or_none(cost_per_lb(money, final.grams)),
            )
            for group, money in groups
        ],
    )


def _name_stage(costed: CostedBatch) -> str:
    """The stage the price is of; "partly sliced" while some pieces still wait for the knife."""
    if costed.sheet.final.is_sliced:
        return "sliced"
    last = _last_kind(costed)
    if last == "slice":
        return "partly sliced"
    return label_kind(last).lower() if last in LABELS else f"after “{last or 'a step'}”"


def _last_kind(costed: CostedBatch) -> str:
    """The kind of the last step that weighed something: throwing a piece away is no stage of the others."""
    columns = costed.strip.columns
    weighed = [column.kind for column in columns if column.kept_of_step_ratio is not None]
    return weighed[-1] if weighed else columns[0].kind


def _label_portion(costed: CostedBatch) -> str | None:
    portion = find_portion(costed.chain.current)
    if portion is None:
        return None
    if portion.slices is None:
        return portion.typed + (" cooked" if portion.cooked_grams is not None else "")
    return "1 slice" if portion.slices == 1 else f"{plain(portion.slices)} slices"


def pack_names(record: core.Batch) -> list[str]:
    """What its shop packs are called, in their order."""
    return [pack.name or "a pack" for pack in record.shop]


def show_shops(
    costed: CostedBatch, *, is_finished: bool, ahead: Sequence[ForecastComparison] = ()
) -> list[schemas.ShopOut]:
    """The shop's packs beside the house, in the order they were recorded.

    An unfinished pound is never set beside the shop's: then ``ahead``, the forecast, is compared, if there is
    one.
    """
    lines = [row for row in costed.chain.current if row.shop_pack is not None]
    shown = [
        _show_pack(shop, row, pack)
        for shop, row, pack in zip(costed.sheet.shop, lines, costed.chain.batch.shop, strict=True)
    ]
    if is_finished:
        return [_with_saved(one, shop) for one, shop in zip(shown, costed.sheet.shop, strict=True)]
    return (
        [_with_forecast(one, comparison) for one, comparison in zip(shown, ahead, strict=True)]
        if ahead
        else shown
    )


def _show_pack(shop: Comparison, row: EntryRows, pack: core.ShopPack) -> schemas.ShopOut:
    """One pack: what it is and what it costs, beside nothing."""
    unit_cost = print_unit_cost(shop.cost_per_lb)
    assert unit_cost is not None
    assert row.shop_pack is not None
    return schemas.ShopOut(
        entry=row.entry.id or 0,
        name=shop.name or "a pack",
        pack=f"{print_money(pack.paid)} for {row.shop_pack.typed}",
        unit_cost=unit_cost,
        cost_per_slice=print_money_or_none(shop.cost_per_slice),
        portion=print_money_or_none(shop.portion),
        saved_per_lb=None,
        saved_per_kg=None,
        saved_per_portion=None,
        saved_on_batch=None,
        is_cheaper=None,
        cost_per_cooked=print_unit_cost(shop.cost_per_cooked_lb),
        break_even=None,
        earned_per_hour=None,
    )


def _with_saved(shown: schemas.ShopOut, shop: Comparison) -> schemas.ShopOut:
    """A pack beside what the finished batch came to."""
    saved = shop.saved_per_lb
    return shown.model_copy(
        update={
            "saved_per_lb": print_money_or_none(saved),
            "saved_per_kg": None if saved is None else print_money(per_kg(saved)),
            "saved_per_portion": print_money_or_none(shop.saved_per_portion),
            "saved_on_batch": print_money_or_none(shop.saved_on_batch),
            "is_cheaper": None if saved is None else saved > 0,
            "break_even": print_unit_cost(shop.break_even_paid_per_lb),
            "earned_per_hour": print_money_or_none(shop.earned_per_hour),
        }
    )


def _with_forecast(shown: schemas.ShopOut, ahead: ForecastComparison) -> schemas.ShopOut:
    """A pack beside what the batch is expected to come to."""
    saved = Fraction(ahead.saved_per_lb)
    portion, hourly = ahead.saved_per_portion, ahead.earned_per_hour
    return shown.model_copy(
        update={
            "saved_per_lb": print_money(saved),
            "saved_per_kg": print_money(per_kg(saved)),
            "saved_per_portion": None if portion is None else print_money(Fraction(portion)),
            "saved_on_batch": print_money(Fraction(ahead.saved_on_batch)),
            "is_cheaper": ahead.is_cheaper,
            "chance": round(100 * ahead.chance),
            "saved_low": print_unit_cost(Fraction(ahead.saved_low)),
            "saved_high": print_unit_cost(Fraction(ahead.saved_high)),
            "earned_per_hour": None if hourly is None else print_money(Fraction(hourly)),
        }
    )


def _show_piece(piece: Piece, costed: CostedBatch, marks: set[str]) -> schemas.PieceOut:
    is_lot = any(lot.id == piece.id for lot in costed.chain.batch.lots)
    free = free_marks(piece.id, is_lot=is_lot, taken=marks)
    return schemas.PieceOut(
        mark=piece.id,
        label=label_piece(piece),
        weight=print_weight(piece.grams),
        cost=print_unit_cost(cost_per_lb(piece.cost, piece.grams)),
        slices=None if piece.slices is None else int(piece.slices),
        free_marks=list(islice(free, FREE_MARKS_SHOWN)),
    )


def _show_log(rows: list[EntryRows], kitchen: Kitchen) -> Iterator[schemas.LogOut]:
    latest = {row.root_sequence: row.entry for row in rows}
    fetch_cooks(rows)
    for row in rows:
        entry = row.entry
        counts = latest[row.root_sequence]
        yield schemas.LogOut(
            id=entry.id,
            sequence=entry.sequence,
            act=entry.act,
            label=label_entry(row),
            lines=describe(row, kitchen),
            happened_at=entry.happened_at,
            recorded_at=entry.recorded_at,
            by=entry.recorded_by.called,
            corrects=entry.corrects_id,
            reason=entry.reason,
            overruled_by=None if counts.id == entry.id else counts.id,
            content=read_back(row),
        )


def summarize(batch: Batch, costed: CostedBatch) -> None:
    """Renew what ``batch`` keeps of itself for lists."""
    mains = list_pieces_here(batch, costed)
    courses = courses_of(batch, mains, costed.chain.current)
    batch.is_finished = is_finished(batch, costed, mains)
    house = show_house(costed, is_finished=batch.is_finished)
    shops = show_shops(costed, is_finished=batch.is_finished)
    # a customer's pieces save the kitchen nothing
    own = find_own_share(batch, costed).saved if batch.is_finished else ()
    saved = [print_money_or_none(amount) for amount in own]
    shop = shops[0] if shops else None
    columns = costed.strip.columns
    last = _last_kind(costed)
    batch.place = "books" if batch.is_finished else _place_of(last)
    batch.pieces_count = len(mains)
    lot = next(row.lot for row in costed.chain.current if row.lot is not None)
    to_come = () if batch.is_finished else costed.strip.to_come or ("slice",)
    batch.cut = lot.cut
    batch.summary = {
        "cut": lot.cut,
        "pieces": [piece.id for piece in mains],
        "mains": [
            {
                "mark": piece.id,
                "label": label_piece(piece),
                "weight": print_weight(piece.grams).model_dump(),
                "course": courses[piece.id],
            }
            for piece in mains
        ],
        "labels": [label_kind(column.kind) for column in columns],
        "kept": [print_percent(column.kept_of_bought_ratio) for column in columns],
        "stage": house.stage,
        "next": {"kind": to_come[0], "label": label_kind(to_come[0])} if to_come else None,
        "weight": house.weight.model_dump(),
        "cost": None if house.unit_cost is None else house.unit_cost.model_dump(),
        "shop_name": None if shop is None else shop.name,
        "saved_per_lb": None if shop is None else shop.saved_per_lb,
        "saved_on_batch": saved[0] if saved else None,
        "shops": [[one.name, amount] for one, amount in zip(shops, saved, strict=True)]
        if batch.is_finished
        else [],
        "slabs": count_slabs(costed.sheet),
        "minutes": fixed(costed.sheet.minutes, 2),
        "used": keep_uses(batch, costed.chain.current),
    }


def _place_of(kind: str) -> str:
    return {"smoke": "fire", "chill": "slice", "slice": "slice"}.get(kind, "bench")
