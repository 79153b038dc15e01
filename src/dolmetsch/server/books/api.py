"""The API of the books: only maps requests to reads and writes."""

from typing import Annotated

from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Path, Query, Router, Status

from dolmetsch.server.books import schemas, tools
from dolmetsch.server.books.forecasts import read_kinds
from dolmetsch.server.books.money import list_kinds, read_money_book
from dolmetsch.server.books.prices import read_price_book
from dolmetsch.server.books.rows import Part
from dolmetsch.server.books.unusual import read_unusual_book
from dolmetsch.server.books.yields import By, read_yield_book
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.kitchens.queries import kitchen_of
from dolmetsch.server.prices.schemas import SellerIn
from dolmetsch.server.prices.sellers import join_seller
from dolmetsch.server.quantities.lengths import NAME_LENGTH
from dolmetsch.server.responses import print_json
from dolmetsch.server.writing.kept_answers import until_next_write
from dolmetsch.server.writing.once import Key, write_of

router = Router(tags=["books"])


@router.get("/books/yields", response=schemas.YieldBookOut, operation_id="getYieldBook")
@until_next_write
def get_yield_book(
    request: HttpRequest, kitchen_slug: Path[str], by: By = "way", part: Part = "none"
) -> HttpResponse:
    """Every batch a dot, by cut and way or by step, parted by source, season, cook, thickness or inside."""
    return print_json(read_yield_book(kitchen_of(request, kitchen_slug), by=by, part=part))


@router.get("/books/unusual", response=schemas.UnusualBookOut, operation_id="getUnusualBook")
@until_next_write
def get_unusual_book(request: HttpRequest, kitchen_slug: Path[str]) -> HttpResponse:
    """What was out of the usual, and what else differed then."""
    return print_json(read_unusual_book(kitchen_of(request, kitchen_slug)))


@router.get("/books/money", response=schemas.MoneyOut, operation_id="getMoneyBook")
@until_next_write
def get_money_book(
    request: HttpRequest,
    kitchen_slug: Path[str],
    year: Annotated[int | None, Query(ge=2000, le=2199)] = None,
    kind: Annotated[str, Query(max_length=NAME_LENGTH)] = "",
) -> HttpResponse:
    """Saved or lost in a year beside a kind of the shop's; where packs went; machines that pay."""
    kitchen = kitchen_of(request, kitchen_slug)
    return print_json(read_money_book(kitchen, timezone.now(), year=year, kind=kind))


@router.get("/books/prices", response=schemas.PriceBookOut, operation_id="getPriceBook")
@until_next_write
def get_price_book(request: HttpRequest, kitchen_slug: Path[str]) -> HttpResponse:
    """Raw and shop prices over time by source, and the house at today's prices."""
    return print_json(read_price_book(kitchen_of(request, kitchen_slug), timezone.now()))


@router.post("/sellers", response={201: schemas.PriceBookOut}, operation_id="joinSeller")
def post_seller(
    request: HttpRequest, kitchen_slug: Path[str], body: SellerIn, key: Key
) -> Status[schemas.PriceBookOut]:
    """Say that a seller's name stands for another one's, or for itself again."""
    kitchen = kitchen_of(request, kitchen_slug)
    join_seller(write_of(request, kitchen, key), body)
    return Status(201, read_price_book(kitchen, timezone.now()))


@router.get("/books/forecasts", response=schemas.ForecastKindsOut, operation_id="getForecastKinds")
@until_next_write
def get_forecast_kinds(request: HttpRequest, kitchen_slug: Path[str]) -> HttpResponse:
    """How often each kind of forecast held: price, enough, ready time, dry date."""
    return print_json(read_kinds(kitchen_of(request, kitchen_slug)))


def _list_tools(kitchen: Kitchen) -> list[schemas.ToolOut]:
    """The machines, by what was saved beside the packs that most batches were set beside."""
    names = next(iter(list_kinds(kitchen).values()), [])
    return tools.list_tools(kitchen, tools.list_saved(kitchen, names))


@router.post("/tools", response={201: list[schemas.ToolOut]}, operation_id="buyTool")
def post_tool(
    request: HttpRequest, kitchen_slug: Path[str], body: schemas.ToolIn, key: Key
) -> Status[list[schemas.ToolOut]]:
    """Record a machine that is to pay for itself."""
    kitchen = kitchen_of(request, kitchen_slug)
    tools.buy_tool(write_of(request, kitchen, key), body)
    return Status(201, _list_tools(kitchen))


@router.post("/tools/{tool_id}/cancel", response={201: list[schemas.ToolOut]}, operation_id="cancelTool")
def post_tool_canceled(
    request: HttpRequest, kitchen_slug: Path[str], tool_id: int, body: schemas.ToolGoneIn, key: Key
) -> Status[list[schemas.ToolOut]]:
    """Take a machine back that was recorded by mistake."""
    kitchen = kitchen_of(request, kitchen_slug)
    tools.cancel_tool(write_of(request, kitchen, key), tool_id, body)
    return Status(201, _list_tools(kitchen))
