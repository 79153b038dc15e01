"""The meal plans' API: only maps requests to reads and writes."""

import uuid

from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Path, Router, Status

from dolmetsch.server.kitchens.queries import kitchen_of
from dolmetsch.server.meals import actions, schemas
from dolmetsch.server.meals.queries import read_meal_page, read_meals, write_meal_calendar
from dolmetsch.server.meals.showing import show_meal
from dolmetsch.server.responses import answer_with, print_json
from dolmetsch.server.writing.kept_answers import until_next_write
from dolmetsch.server.writing.once import Key, write_of

router = Router(tags=["meals"])


@router.get("/meals", response=schemas.MealsOut, operation_id="getMeals")
@until_next_write
def get_meals(request: HttpRequest, kitchen_slug: Path[str]) -> HttpResponse:
    """Every meal plan, and the jobs on the list."""
    return print_json(read_meals(kitchen_of(request, kitchen_slug), timezone.now()))


@router.post("/previews/meals", response=schemas.MealOut, operation_id="previewMeal")
def preview_meal(request: HttpRequest, kitchen_slug: Path[str], body: schemas.MealIn) -> schemas.MealOut:
    """A meal plan worked out; nothing is written."""
    return show_meal(kitchen_of(request, kitchen_slug), body, timezone.now())


@router.post("/meals", response={201: schemas.MealsOut}, operation_id="saveMeal")
def save_meal(
    request: HttpRequest, kitchen_slug: Path[str], body: schemas.MealIn, key: Key
) -> Status[schemas.MealsOut]:
    """Save the next version of a meal plan, or drop it."""
    kitchen = kitchen_of(request, kitchen_slug)
    write = write_of(request, kitchen, key)
    actions.save_meal(write, body)
    return Status(201, read_meals(kitchen, write.now))


@router.get("/meals/{name}", response=schemas.MealPage, operation_id="getMeal")
@until_next_write
def get_one_meal(request: HttpRequest, kitchen_slug: Path[str], name: str) -> HttpResponse:
    """One meal plan whole."""
    return print_json(read_meal_page(kitchen_of(request, kitchen_slug), name, timezone.now()))


@router.get(
    "/meals/{name}/plan.ics",
    operation_id="getMealCalendar",
    openapi_extra=answer_with("text/calendar"),
)
def get_meal_calendar(request: HttpRequest, kitchen_slug: Path[str], name: str) -> HttpResponse:
    """The jobs of a plan as a calendar file."""
    return HttpResponse(
        write_meal_calendar(kitchen_of(request, kitchen_slug), name),
        content_type="text/calendar; charset=utf-8",
        headers={"Content-Disposition": 'attachment; filename="plan.ics"'},
    )


@router.post("/meals/{name}/listed", response={201: schemas.MealPage}, operation_id="putMealOnList")
def put_on_list(
    request: HttpRequest, kitchen_slug: Path[str], name: str, key: Key
) -> Status[schemas.MealPage]:
    """Put the jobs of a plan on the list."""
    kitchen = kitchen_of(request, kitchen_slug)
    write = write_of(request, kitchen, key)
    actions.put_on_list(write, name)
    return Status(201, read_meal_page(kitchen, name, write.now))


@router.post("/meals/{name}/made", response={201: schemas.MealPage}, operation_id="nameMealBatch")
def name_batch(
    request: HttpRequest, kitchen_slug: Path[str], name: str, body: schemas.MadeIn, key: Key
) -> Status[schemas.MealPage]:
    """Say in which batch a product of a plan is made."""
    kitchen = kitchen_of(request, kitchen_slug)
    write = write_of(request, kitchen, key)
    actions.name_batch(write, name, body)
    return Status(201, read_meal_page(kitchen, name, write.now))


@router.post("/meal-jobs/{uid}/news", response={201: schemas.MealsOut}, operation_id="recordJobNews")
def record_job_news(
    request: HttpRequest, kitchen_slug: Path[str], uid: uuid.UUID, body: schemas.JobNewsIn, key: Key
) -> Status[schemas.MealsOut]:
    """A job on the list is done, or open again."""
    kitchen = kitchen_of(request, kitchen_slug)
    write = write_of(request, kitchen, key)
    actions.record_job_news(write, uid, body)
    return Status(201, read_meals(kitchen, write.now))
