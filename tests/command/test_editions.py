"""Records of other programs: those of the last one before go on, older and newer ones are refused."""

import re
from pathlib import Path

import pytest

from dolmetsch.command import paths, serving
from dolmetsch.command.backups.backup_file import ask, list_migrations
from dolmetsch.command.backups.restore import restore as bring_back
from dolmetsch.command.editions import list_steps, refuse_other_editions
from dolmetsch.command.telling import TroubleError
from tests.command.test_backup import second  # noqa: F401 (a fixture)
from tests.prepared import load_into

#: The demo's records as the last program with many steps of tables had them.
BEFORE = Path(__file__).parent / "records" / "0.1.0.tar"


def steps_before():
    return [name for stands_for in list_steps().values() for name in stands_for]


def tables_of(database):
    """Columns, indexes, checks and guards of every table; names that were chosen by Django apart."""
    found = {}
    for table in ask(database, "SHOW TABLES FROM dolmetsch").split():
        made = ask(database, f"SHOW CREATE TABLE dolmetsch.{table}").replace("\\n", "\n")
        lines = re.sub(r"`\w+_[0-9a-f]{8}\w*`", "`…`", re.sub(r" AUTO_INCREMENT=\d+", "", made))
        # an index that another one covers came from how the columns were added
        found[table] = {line.strip(" ,") for line in lines.splitlines()[1:]} - {"KEY `…` (`kitchen_id`)"}
    guards = ask(
        database,
        "SELECT EVENT_OBJECT_TABLE, EVENT_MANIPULATION FROM information_schema.TRIGGERS"
        " WHERE TRIGGER_SCHEMA = 'dolmetsch'",
    )
    return found, sorted(guards.splitlines())


def columns_of(database, table):
    return [
        line.split("\t")[0] for line in ask(database, f"SHOW COLUMNS FROM dolmetsch.{table}").splitlines()
    ]


def entries_of(database, columns):
    chosen = ", ".join(f"`{column}`" for column in columns)
    return ask(database, f"SELECT {chosen} FROM dolmetsch.batches_entry ORDER BY id").splitlines()


def test_records_of_the_program_before_go_on_and_have_the_tables_of_new_ones(second, monkeypatch):
    monkeypatch.delenv("DOLMETSCH_PASSPHRASE", raising=False)
    bring_back(BEFORE, replace=False, db_port=second.port)
    house = serving.House(serving.Wanted(port=second.port, db_port=second.port))
    house.database.start()
    try:
        entries = entries_of(house.database, columns := columns_of(house.database, "batches_entry"))
        house._bring_up_to_date()
        # later programs add columns and entries; what was recorded stays as it was, character for character
        assert entries_of(house.database, columns)[: len(entries)] == entries
        assert set(columns) < set(columns_of(house.database, "batches_entry"))
        assert len(entries) > 100
        assert set(list_steps()) <= set(list_migrations(house.database))
        assert "all is well" in second.manage(house.database, "check_records")
        old = tables_of(house.database)
        house.database.empty()
        load_into(house.database, "tables.sql")
        new = tables_of(house.database)
        assert [table for table in old[0] if old[0][table] != new[0].get(table)] == []
        assert old[1] == new[1]
        assert len(new[1]) > 100
    finally:
        house.database.stop()


def test_each_feature_makes_its_tables_in_one_step():
    # those of later programs come after them
    assert {name for name, stands_for in list_steps().items() if stands_for} >= {"batches.0001_tables"}
    assert len(steps_before()) == len(set(steps_before())) == 64


def test_what_this_program_knows_is_let_in():
    refuse_other_editions([])
    refuse_other_editions(["auth.0001_initial", *steps_before()])
    refuse_other_editions([*steps_before(), *list_steps()])
    refuse_other_editions(list(list_steps()))


def test_what_is_older_or_newer_is_refused_with_what_to_do():
    older = [name for name in steps_before() if name != "kitchens.0007_roles_and_clock"]
    with pytest.raises(TroubleError, match=r"lack kitchens.0007_.*Start Dolmetsch 0.1.0 as of"):
        refuse_other_editions(older)
    with pytest.raises(TroubleError, match=r"newer Dolmetsch \(batches.0099_more\). Update this one"):
        refuse_other_editions([*list_steps(), "batches.0099_more"])


def test_a_start_over_older_records_changes_nothing(second):
    house = serving.House(serving.Wanted(port=second.port, db_port=second.port))
    house.database.start()
    try:
        load_into(house.database, "tables.sql")
        ask(house.database, "DELETE FROM dolmetsch.django_migrations WHERE app = 'plans'")
        ask(
            house.database,
            "INSERT INTO dolmetsch.django_migrations (app, name, applied)"
            " VALUES ('plans', '0001_initial', NOW())",
        )
        seen = list_migrations(house.database)
        with pytest.raises(TroubleError, match="older Dolmetsch"):
            house._bring_up_to_date()
        assert list_migrations(house.database) == seen
        assert not (paths.PRIVATE / "mariadb" / "up-to-date").exists()
    finally:
        house.database.stop()
