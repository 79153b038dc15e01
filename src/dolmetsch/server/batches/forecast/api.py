"""The API of forecasts, yields and calibration: only maps requests to reads and writes."""

from django.http import HttpRequest, HttpResponse
from ninja import Path, Router, Status

from dolmetsch.server.batches.forecast import schemas as out
from dolmetsch.server.batches.forecast.outlooks import (
    choose_way,
    read_calibration,
    read_forecast,
    read_yields,
)
from dolmetsch.server.batches.show.queries import get_batch
from dolmetsch.server.kitchens.queries import kitchen_of
from dolmetsch.server.responses import print_json
from dolmetsch.server.writing.kept_answers import until_next_write
from dolmetsch.server.writing.once import Key, write_of

router = Router(tags=["outlooks"])


@router.get("/batches/{code}/forecast", response=out.ForecastOut, operation_id="getForecast")
@until_next_write
def get_forecast(request: HttpRequest, kitchen_slug: Path[str], code: str) -> HttpResponse:
    """A batch under way, carried on to the end."""
    return print_json(read_forecast(get_batch(kitchen_of(request, kitchen_slug), code)))


@router.post("/batches/{code}/way", response={201: out.ForecastOut}, operation_id="chooseWay")
def post_way(
    request: HttpRequest, kitchen_slug: Path[str], code: str, body: out.ChooseWayIn, key: Key
) -> Status[out.ForecastOut]:
    """Choose the way a batch is made by."""
    kitchen = kitchen_of(request, kitchen_slug)
    return Status(201, choose_way(write_of(request, kitchen, key), code, body))


@router.get("/yields", response=out.YieldsOut, operation_id="getYields")
def get_yields(request: HttpRequest, kitchen_slug: Path[str]) -> out.YieldsOut:
    """What each method keeps of each cut."""
    return read_yields(kitchen_of(request, kitchen_slug))


@router.get("/calibration", response=out.CalibrationOut, operation_id="getCalibration")
def get_calibration(request: HttpRequest, kitchen_slug: Path[str]) -> out.CalibrationOut:
    """How often the 80 % range held."""
    return read_calibration(kitchen_of(request, kitchen_slug))
