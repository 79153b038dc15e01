"""Each fact has one home: what decides it elsewhere is found here, by what it would have to read."""

import re
from pathlib import Path

import pytest

import dolmetsch

SRC = Path(dolmetsch.__file__).parent

#: What only a fact's home may say, and where that is; a reason beside each further place.
HOMES = {
    # what a piece is to become
    r"\b(?:find_course|infer_course)\(": {
        "core/ledger/course.py",
        "server/batches/entries/course.py",
        # the strip of a costed chain
        "server/batches/entries/chain.py",
        # what a method leads to, which says it as well
        "server/batches/entries/chosen_way.py",
    },
    r"\.is_smoked_cold\b": {
        "core/heat/raw.py",
        "server/batches/entries/chosen_way.py",
        # by which method a smoke was done, and which programs smoke so
        "core/forecast/way.py",
        "core/heat/program_course.py",
        # how the next smoke is expected to be
        "server/pieces/queries.py",
    },
    # what is raw
    r"\bis_raw\(": {"core/heat/raw.py", "server/batches/entries/raw.py"},
    # which entries count
    r"act[=!]=?\s*(?:Entry\.)?Act\.WITHDRAW\)": {"server/batches/models/entry.py"},
    # what is here on a day
    r"keep_until(?:__lt|\s*<\s)": {"server/larder/here.py"},
    r"\.from_grams\b.*\bleft\b|\bleft\b.*\.from_grams\b": {"server/batches/entries/taken.py"},
    # what the meat reads
    r"\bSTALE_SECONDS\b.*(?:<|>)|(?:<|>).*\bSTALE_SECONDS\b": {
        "core/heat/inside.py",
        "core/heat/cooling.py",
        "core/heat/troubles.py",
        # where a logger's file has a gap
        "core/heat/logger_table.py",
        "server/fires/cooked.py",
        # whether a cooker is heard, and where a curve has a gap
        "server/fires/alarms.py",
        "server/fires/followed.py",
        "server/fires/live.py",
    },
    # who may see money
    r"\b(?:hide_amounts|show_amounts)\(": {"server/quantities/spoken.py", "server/access/money.py"},
    # money with its sign in a sentence
    r"\bsign_of\(": {
        "server/quantities/printing.py",
        "server/quantities/reader.py",
        # by say_amount
        "server/batches/entries/describing.py",
        "server/diary/queries.py",
        "server/larder/one_pack.py",
        # in operations that are about money, which are refused where it is not shown
        "server/pieces/owner_page.py",
        "server/offers/showing.py",
        "server/batches/verdict/show_verdict.py",
        "server/batches/exchange/papers/page.py",
        "server/books/tools.py",
    },
    # what hangs
    r'kind\s*==\s*"down"|kind="down"': {"server/hooks/drying.py", "server/hooks/queries.py"},
}


@pytest.mark.parametrize("pattern", HOMES)
def test_nothing_decides_a_fact_a_second_time(pattern):
    found = {
        str(path.relative_to(SRC))
        for path in SRC.rglob("*.py")
        if "/migrations/" not in str(path) and re.search(pattern, path.read_text())
    }
    assert found == HOMES[pattern]


def test_the_page_of_homes_names_what_is_there():
    page = (SRC.parents[1] / "docs" / "said-once.md").read_text()
    named = re.findall(r"`((?:core|server)/[\w/]+\.py)`", page)
    assert len(named) > 8
    for path in named:
        assert (SRC / path).is_file(), path
    for name in re.findall(r"`([a-z_]{6,})`", page):
        if name in ("replaces",):
            continue
        assert any(f"def {name}(" in path.read_text() for path in SRC.rglob("*.py")), name
