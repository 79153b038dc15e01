"""Writes: a plan is saved, put on the list, and its jobs are ticked off."""

import uuid

from dolmetsch.server.meals import schemas
from dolmetsch.server.meals.jobs import words_of
from dolmetsch.server.meals.models import Meal, MealJob, MealJobNews
from dolmetsch.server.meals.queries import get_meal, input_of
from dolmetsch.server.meals.working import work_out
from dolmetsch.server.problems import DomainError, not_found, refuse_fields
from dolmetsch.server.quantities.reader import Reader
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
        return Meal.objects.create(
            name=data.name,
            version=next_version(write, Meal, data.name),
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
        if worked.batch is None:
            said = "The larder has enough of it: there is nothing to make."
            raise DomainError("nothing_to_do", 422, "Not recorded", said)
        first = worked.batch.placed[0].start
        rows = [
            MealJob(kind="buy", words="Buy the meat", due_at=first, ends_at=first, minutes=0, wait_minutes=0)
        ]
        for index, one in enumerate(worked.batch.placed):
            stores = () if worked.fitted is None else worked.fitted.rooms_of.get(index, ())
            rows.append(
                MealJob(
                    kind=one.job.kind,
                    words=words_of(one.job.kind),
                    due_at=one.start,
                    ends_at=one.end,
                    minutes=one.job.hands_minutes,
                    wait_minutes=round(one.job.least.total_seconds() / 60),
                    stores=list(stores),
                    pieces=worked.pieces if stores else 0,
                )
            )
        for position, row in enumerate(rows):
            row.meal, row.listing, row.uid, row.position = meal, write.key, uuid.uuid4(), position
            key = write.key if position == 0 else uuid.uuid5(write.key, f"job {position}")
            for column, value in {**write.stamp, "key": key}.items():
                setattr(row, column, value)
        return MealJob.objects.bulk_create(rows)[0]

    return keep_once(write, MealJob, put)


def record_job_news(write: Write, uid: uuid.UUID, data: schemas.JobNewsIn) -> MealJobNews:
    """A job is done, or open again.

    Raises:
        DomainError: not_found, already, key_reused.
    """

    def record() -> MealJobNews:
        job = MealJob.objects.filter(kitchen=write.kitchen, uid=uid).first()
        if job is None:
            raise not_found("such job")
        last = job.news.order_by("-id").first()
        if (last.sort if last is not None else "open") == data.sort:
            said = "That was recorded already. Nothing was written."
            raise DomainError("already", 409, "Already done", said)
        return MealJobNews.objects.create(job=job, sort=data.sort, happened_at=write.now, **write.stamp)

    return keep_once(write, MealJobNews, record)
