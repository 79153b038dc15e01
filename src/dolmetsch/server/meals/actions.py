"""Writes: a plan is saved, put on the list, and its jobs are ticked off."""

import uuid
from collections.abc import Iterator, Sequence
from fractions import Fraction

from dolmetsch.server.batches.entries.course import find_course_of
from dolmetsch.server.batches.forecast.outlooks import put_way
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.batches.show.queries import cost_batch, get_batch
from dolmetsch.server.meals import schemas
from dolmetsch.server.meals.changes import BUY, say_buy
from dolmetsch.server.meals.inputs.facts import find_facts
from dolmetsch.server.meals.inputs.jobs import words_of
from dolmetsch.server.meals.inputs.listed import input_of, list_jobs_of, list_made
from dolmetsch.server.meals.models import Meal, MealJob, MealJobNews, MealMade
from dolmetsch.server.meals.queries import get_meal
from dolmetsch.server.meals.reading import find_make
from dolmetsch.server.meals.words import say_products
from dolmetsch.server.meals.working import Worked, work_out
from dolmetsch.server.problems import DomainError, not_found, refuse_fields
from dolmetsch.server.quantities.reader import Reader, round_decimal
from dolmetsch.server.writing.kept import next_version
from dolmetsch.server.writing.once import Write, keep_once


def save_meal(write: Write, data: schemas.MealIn) -> Meal:
    """Save the next version of a plan; one that was dropped is put away.

    Raises:
        DomainError: bad_fields, key_reused.
    """

    def save() -> Meal:
        reader = Reader.of(write.kitchen)
        reader.need("name", data.name, "Give the plan a name, like Saturday's forty.")
        problems = list(reader.problems)
        if not data.put_away:
            problems += work_out(write.kitchen, data, write.now).read.reader.problems
        if problems:
            raise refuse_fields(problems)
        name, version = next_version(write, Meal, data.name)
        return Meal.objects.create(
            name=name,
            version=version,
            input=data.model_dump(mode="json"),
            is_put_away=data.put_away,
            **write.stamp,
        )

    return keep_once(write, Meal, save)


def put_on_list(write: Write, name: str) -> MealJob:
    """Put the jobs of a plan, as they are counted back now, on the list; those of before are replaced.

    Raises:
        DomainError: not_found, bad_fields, nothing_to_do, key_reused.
    """

    def put() -> MealJob:
        meal = get_meal(write.kitchen, name)
        worked = work_out(write.kitchen, input_of(meal, write.today), write.now)
        if worked.read.reader.problems:
            raise refuse_fields(worked.read.reader.problems)
        if not worked.batches:
            said = "The larder has enough of it: there is nothing to make."
            raise DomainError("nothing_to_do", 422, "Not recorded", said)
        rows = [row for index in range(len(worked.batches)) for row in _list_rows(worked, index)]
        for position, row in enumerate(rows):
            row.meal, row.listing, row.uid, row.position = meal, write.key, uuid.uuid4(), position
            key = write.key if position == 0 else uuid.uuid5(write.key, f"job {position}")
            for column, value in {**write.stamp, "key": key}.items():
                setattr(row, column, value)
        return MealJob.objects.bulk_create(rows)[0]

    return keep_once(write, MealJob, put)


def _list_rows(worked: Worked, index: int) -> Iterator[MealJob]:
    """The jobs of a batch of the plan, buying first."""
    batch = worked.batches[index]
    first = batch.placed[0].start
    yield MealJob(
        kind=BUY,
        words=say_buy(worked, batch),
        grams=round_decimal(Fraction(batch.grams), 2),
        products=batch.products,
        due_at=first,
        ends_at=first,
        minutes=0,
        wait_minutes=0,
    )
    for position, one in enumerate(batch.placed):
        stores = worked.fitted.rooms_of.get((index, position), ())
        yield MealJob(
            kind=one.job.kind,
            words=words_of(one.job.kind),
            products=batch.products,
            due_at=one.start,
            ends_at=one.end,
            minutes=one.job.hands_minutes,
            wait_minutes=round(one.job.least.total_seconds() / 60),
            stores=list(stores),
            pieces=batch.pieces * batch.read.places if stores else 0,
        )


def name_batch(write: Write, name: str, data: schemas.MadeIn) -> MealMade:
    """Say in which batch a product of a plan is made; without a batch, that it is made in none after all.

    Where nobody said what the batch is to become, it is made by the plan's method.

    Raises:
        DomainError: not_found, bad_fields, key_reused.
    """

    def record() -> MealMade:
        meal = get_meal(write.kitchen, name)
        reader = Reader.of(write.kitchen)
        makes = {say_products(job.products): job.products for job in list_jobs_of([meal])}
        if data.product not in makes:
            reader.refuse(
                "product", "unknown", "Put the plan on the list first; then say what is made in what."
            )
        batch = None
        if data.batch:
            batch = Batch.objects.filter(kitchen=write.kitchen, code=data.batch).first()
            taken = {one.pk: key for key, one in list_made(write.kitchen).items()}
            if batch is None:
                reader.refuse("batch", "unknown", f"There is no batch “{data.batch}”.")
            elif batch.pk in taken and taken[batch.pk] != (name, tuple(makes.get(data.product, ()))):
                reader.refuse("batch", "taken", f"{data.batch} is made for “{taken[batch.pk][0]}” already.")
        if reader.problems:
            raise refuse_fields(reader.problems)
        if batch is not None:
            _make_by_plan(write, batch.code, meal, makes[data.product])
        return MealMade.objects.create(meal=meal, products=makes[data.product], batch=batch, **write.stamp)

    return keep_once(write, MealMade, record)


def _make_by_plan(write: Write, code: str, meal: Meal, products: Sequence[str]) -> None:
    batch = get_batch(write.kitchen, code)
    if batch.chosen_way is not None or find_course_of(batch, cost_batch(batch)) is not None:
        return
    makes = input_of(meal, write.today).makes
    # what one job is for is made by one method
    position = find_make([make.product for make in makes], products[0])
    if position is not None and makes[position].way:
        put_way(write, batch, makes[position].way)


def record_job_news(write: Write, uid: uuid.UUID, data: schemas.JobNewsIn) -> MealJobNews:
    """A job is done, or open again.

    Raises:
        DomainError: not_found, already, key_reused.
    """

    def record() -> MealJobNews:
        job = MealJob.objects.filter(kitchen=write.kitchen, uid=uid).first()
        if job is None:
            raise not_found("such job")
        fact = find_facts(write.kitchen, list_jobs_of([job.meal])).get(job.pk)
        if data.sort == "open" and fact is not None and fact.by_batch:
            said = "Its batch shows that it is done: correct it there."
            raise DomainError("already", 409, "Already done", said)
        if (fact is not None) == (data.sort == "done"):
            said = "That was recorded already. Nothing was written."
            raise DomainError("already", 409, "Already done", said)
        return MealJobNews.objects.create(job=job, sort=data.sort, happened_at=write.now, **write.stamp)

    return keep_once(write, MealJobNews, record)
