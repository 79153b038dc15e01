"""Backups brought back: the same records, byte for byte; what is cut short, changed or newer is refused."""

import gzip
import io
import json
import os
import shutil
import ssl
import subprocess
import tarfile
import tempfile
from contextlib import contextmanager
from pathlib import Path

import pytest

from dolmetsch.command import certificate, holding, paths, serving
from dolmetsch.command.backups import backup_file, daily, restore
from dolmetsch.command.backups.backup_file import RECORDS, SECRETS, SESSIONS, opened, write_backup
from dolmetsch.command.backups.daily import Daily, list_daily
from dolmetsch.command.backups.restore import restore as bring_back
from dolmetsch.command.backups.sealing import seal, unseal
from dolmetsch.command.database import Database, find_free_port
from dolmetsch.command.holding import hold
from dolmetsch.command.serving import server_environment
from dolmetsch.command.telling import TroubleError
from tests.prepared import load_into

PASSPHRASE = "a lantern in the harbor"
ADD_PHOTO = """
import io, uuid
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client
from PIL import Image
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.kitchens.models import User
out = io.BytesIO()
Image.new("RGB", (300, 200), "#b5304a").save(out, "JPEG")
client = Client()
client.force_login(User.objects.get(username="maren"))
path = f"/api/kitchens/salt-lantern/batches/{Batch.objects.first().code}/photos"
file = {"file": SimpleUploadedFile("slab.jpg", out.getvalue())}
answer = client.post(path, file, headers={"Idempotency-Key": str(uuid.uuid4())})
assert answer.status_code == 201, answer.content
"""


class Machine:
    """A machine of its own: a private folder, and MariaDB over it."""

    def __init__(self, folder, monkeypatch):
        self.folder, self.monkeypatch = folder, monkeypatch
        self.port = find_free_port()

    def enter(self):
        for module in (paths, holding):
            self.monkeypatch.setattr(module, "PRIVATE", self.folder)
        self.monkeypatch.setattr(paths, "LOGS", self.folder / "logs")
        self.monkeypatch.setattr(backup_file, "FOLDER", self.folder / "backups")
        self.monkeypatch.setattr(restore, "set_up", lambda **_: None)
        paths.prepare()
        return self

    def database(self):
        secret = paths.get_secret("database")
        return Database(self.folder / "mariadb", port=self.port, password=secret, durable=True)

    def manage(self, database, *words, ok=True):
        env = {**server_environment(database), "DOLMETSCH_DEMO": "1"}
        command = [str(paths.PYTHON), "-W", "ignore", "-m", "django", *words]
        done = subprocess.run(command, env=env, capture_output=True, text=True, check=False)
        assert (done.returncode == 0) == ok, done.stdout + done.stderr
        return done.stdout + done.stderr


@contextmanager
def folder():
    """A folder in memory where that can be: MariaDB waits for the disk at every commit."""
    shared = Path("/dev/shm")
    base = shared if os.access(shared, os.W_OK) else None
    with tempfile.TemporaryDirectory(prefix="dolmetsch-", dir=base) as path:
        yield Path(path)


@pytest.fixture(scope="module")
def kept():
    """A machine with the demo, its backup, and all that is recorded there."""
    with folder() as first, pytest.MonkeyPatch.context() as monkeypatch:
        yield make_demo(Machine(first, monkeypatch).enter())


def make_demo(machine):
    database = machine.database()
    database.start()
    try:
        for dump in ("tables.sql", "demo.sql"):
            load_into(database, dump)
        machine.manage(database, "kitchen", "new", "Smoke House", "--owner", "wenna")
        machine.manage(database, "shell", "--no-imports", "-c", ADD_PHOTO)
        machine.contents = contents(machine, database)
        file = machine.folder / "backup.tar"
        write_backup(file, database, passphrase=PASSPHRASE)
    finally:
        database.stop()
    return machine


@pytest.fixture
def second(monkeypatch):
    with folder() as path:
        yield Machine(path, monkeypatch).enter()


def contents(machine, database):
    """Every row of every table, but who is signed in, and every photo."""
    form = ("--no-create-info", "--skip-triggers", "--skip-extended-insert", "--order-by-primary")
    left_out = [f"--ignore-table=dolmetsch.{table}" for table in SESSIONS]
    words = (*form, "--hex-blob", "--skip-dump-date", "--skip-comments", *left_out, "dolmetsch")
    command, env = database.client("mariadb-dump", *words)
    rows = subprocess.run(command, env=env, capture_output=True, check=True).stdout.splitlines()
    photos = machine.folder / "photos"
    found = {str(path.relative_to(photos)): path.read_bytes() for path in photos.rglob("*.jpg")}
    return [row for row in rows if row.startswith(b"INSERT")], found


def test_what_comes_back_is_the_same_byte_for_byte(kept, second, monkeypatch):
    monkeypatch.setenv("DOLMETSCH_PASSPHRASE", PASSPHRASE)
    bring_back(kept.folder / "backup.tar", replace=False, db_port=second.port)
    database = second.database()
    database.start()
    try:
        rows, photos = contents(second, database)
        assert (rows, photos) == kept.contents
        assert (len(rows) > 1500, len(photos) > 1) == (True, True)
        assert "all is well" in second.manage(database, "check_records")
        _break(second, database)
    finally:
        database.stop()
    mine, theirs = (json.loads((one.folder / "secrets.json").read_text()) for one in (second, kept))
    assert mine["django"] == theirs["django"]
    assert mine["database"] != theirs["database"]


def _break(machine, database):
    """What is changed behind the program's back is found, each by name."""
    photo = next((machine.folder / "photos").rglob("*.large.jpg"))
    photo.write_bytes(photo.read_bytes()[:-1])
    for statement in (
        "UPDATE batches_batch SET summary = JSON_SET(summary, '$.cut', 'nonsense') ORDER BY id LIMIT 1",
        "UPDATE batches_shopsaving SET saved = saved + 1 ORDER BY id LIMIT 1",
        "SET foreign_key_checks = 0; UPDATE people_invitation SET kitchen_id = 0; "
        "INSERT INTO kitchens_membership (user_id, kitchen_id, role, tablet_code) "
        "VALUES (4711, 1, 'cook', '')",
    ):
        command, env = database.client("mariadb", "dolmetsch", "-e", statement)
        subprocess.run(command, env=env, check=True)
    said = machine.manage(database, "check_records", ok=False)
    assert f"photo {photo.name[:12]} was changed" in said
    assert "keeps another summary than its entries come to" in said
    assert "the books keep other figures" in said
    assert "1 rows of kitchens_membership refer by user to what is not there" in said
    assert "4 things are wrong" in said


def test_it_comes_back_without_its_secrets_too_and_nobody_is_signed_in_by_it(kept, second, monkeypatch):
    monkeypatch.delenv("DOLMETSCH_PASSPHRASE", raising=False)
    with opened(kept.folder / "backup.tar") as (tar, manifest):
        assert {RECORDS, SECRETS} <= set(manifest["files"])
        records = gzip.decompress(tar.extractfile(RECORDS).read())
    assert b"CREATE TABLE `django_session`" in records
    assert b"INSERT INTO `django_session`" not in records
    bring_back(kept.folder / "backup.tar", replace=False, db_port=second.port)
    # a second time there are records here
    with pytest.raises(TroubleError, match="records here already"):
        bring_back(kept.folder / "backup.tar", replace=False, db_port=second.port)
    bring_back(kept.folder / "backup.tar", replace=True, db_port=second.port)
    [aside] = second.folder.glob("aside-*")
    assert (aside / "mariadb" / "made").exists()
    assert not (second.folder / "restoring").exists()


def test_an_upgrade_that_fails_leaves_the_records_as_they_were(kept, second, monkeypatch):
    monkeypatch.delenv("DOLMETSCH_PASSPHRASE", raising=False)
    bring_back(kept.folder / "backup.tar", replace=False, db_port=second.port)
    house = serving.House(serving.Wanted(port=find_free_port(), db_port=second.port))
    house.database.start()
    rows = "SELECT COUNT(*) FROM dolmetsch.batches_entry"
    try:
        before = backup_file.ask(house.database, rows)
        (second.folder / "mariadb" / "up-to-date").write_text("an older program")

        def fail(*_args, **_more):
            drop = "SET foreign_key_checks = 0; DROP TABLE dolmetsch.batches_entry"
            backup_file.ask(house.database, drop)
            raise TroubleError("the migration failed")

        monkeypatch.setattr(serving, "must", fail)
        with pytest.raises(TroubleError, match="the migration failed"):
            house._bring_up_to_date()
        assert backup_file.ask(house.database, rows) == before
    finally:
        house.database.stop()
    assert len(list((second.folder / "backups").glob("*-before-upgrade.tar"))) == 1
    # the older program goes on, and the newer one tries again
    assert (second.folder / "mariadb" / "up-to-date").read_text() == "an older program"


def test_a_certificate_made_here_is_trusted_by_its_authority(second, monkeypatch):
    monkeypatch.setenv("HOME", str(second.folder))
    for name in ("FOLDER", "AUTHORITY", "CERTIFICATE", "KEY"):
        path = getattr(certificate, name)
        monkeypatch.setattr(certificate, name, second.folder / "certificate" / path.name)
    monkeypatch.setattr(certificate, "FOLDER", second.folder / "certificate")
    certificate._make("192.168.1.20")
    authority = certificate.AUTHORITY.read_bytes()
    certificate._make("kitchen.lan")
    # made once: what phones trust stays
    assert certificate.AUTHORITY.read_bytes() == authority
    assert oct(certificate.KEY.stat().st_mode)[-3:] == "600"
    server = ssl.SSLContext(ssl.PROTOCOL_TLS_SERVER)
    server.load_cert_chain(certificate.CERTIFICATE, certificate.KEY)
    trusting = ssl.create_default_context(cafile=certificate.AUTHORITY)
    for host, is_right in (("kitchen.lan", True), ("127.0.0.1", True), ("192.168.1.20", False)):
        assert shakes_hands(server, trusting, host) == is_right


def shakes_hands(server, client, host):
    """Whether a client that opens ``host`` trusts what the server shows."""
    there, back = ssl.MemoryBIO(), ssl.MemoryBIO()
    one = server.wrap_bio(there, back, server_side=True)
    other = client.wrap_bio(back, there, server_hostname=host)
    for _ in range(10):
        done = 0
        for side in (other, one):
            try:
                side.do_handshake()
                done += 1
            except ssl.SSLWantReadError:
                pass
            except ssl.SSLError:
                return False
        if done == 2:
            return True
    return False


def test_while_it_runs_nothing_is_brought_back(kept, second):
    with hold("start", busy=""), pytest.raises(TroubleError, match="runs here"):
        bring_back(kept.folder / "backup.tar", replace=True, db_port=second.port)


def changed(kept, folder, change):
    """A copy of the backup with its files as ``change`` makes them."""
    into = folder / "changed.tar"
    with tarfile.open(kept.folder / "backup.tar") as tar, tarfile.open(into, "w") as out:
        for member in tar.getmembers():
            content = change(member.name, tar.extractfile(member).read())
            if content is not None:
                member.size = len(content)
                out.addfile(member, io.BytesIO(content))
    return into


def newer(name, content):
    if name != "manifest.json":
        return content
    manifest = json.loads(content)
    manifest["tables"].append("batches.9999_of_the_future")
    return json.dumps(manifest).encode()


def other_format(name, content):
    return content.replace(b"dolmetsch-backup/1", b"something-else/2") if name == "manifest.json" else content


@pytest.mark.parametrize(
    ("change", "said"),
    [
        (lambda name, content: content[:-9] if name == RECORDS else content, "was changed or cut short"),
        (lambda name, content: b"x" + content[1:] if name == RECORDS else content, "was changed"),
        (lambda name, content: None if name == RECORDS else content, "is missing"),
        (lambda name, content: None if name == "manifest.json" else content, "no manifest"),
        (newer, "are of a newer Dolmetsch"),
        (other_format, "its format is something-else/2"),
    ],
)
def test_a_backup_that_is_changed_cut_or_newer_is_refused_and_changes_nothing(kept, second, change, said):
    file = changed(kept, second.folder, change)
    with pytest.raises(TroubleError, match=said):
        bring_back(file, replace=True, db_port=second.port)
    assert not (second.folder / "mariadb").exists()


def test_a_file_that_is_none_or_cut_off_is_refused(kept, second):
    whole = (kept.folder / "backup.tar").read_bytes()
    for content in (b"", b"no tar", whole[: len(whole) // 2]):
        file = second.folder / "cut.tar"
        file.write_bytes(content)
        with pytest.raises(TroubleError, match="no whole backup"):
            bring_back(file, replace=True, db_port=second.port)
    with pytest.raises(TroubleError, match="cannot be read"):
        bring_back(second.folder / "nowhere.tar", replace=True, db_port=second.port)


def test_a_member_that_would_land_elsewhere_is_refused(kept, second):
    file = second.folder / "evil.tar"
    shutil.copy(kept.folder / "backup.tar", file)
    with tarfile.open(file, "a") as tar:
        info = tarfile.TarInfo("photos/../../evil.jpg")
        info.size = 1
        tar.addfile(info, io.BytesIO(b"x"))
    with pytest.raises(TroubleError, match="does not belong in it"):
        bring_back(file, replace=True, db_port=second.port)


def test_a_backup_is_never_written_over_another_file(kept, second):
    file = second.folder / "there.tar"
    file.write_text("mine")
    with pytest.raises(TroubleError, match="there already"):
        write_backup(file, second.database())
    with pytest.raises(TroubleError, match="no folder"):
        write_backup(second.folder / "nowhere" / "x.tar", second.database())
    with pytest.raises(TroubleError, match="no records here"):
        write_backup(second.folder / "x.tar", second.database())
    assert sorted(path.name for path in second.folder.glob("*.tar")) == ["there.tar"]


def test_secrets_open_by_their_passphrase_alone():
    sealed = seal(b"the key", PASSPHRASE)
    assert b"the key" not in sealed
    assert unseal(sealed, PASSPHRASE) == b"the key"
    for wrong, content in (("another passphrase", sealed), (PASSPHRASE, sealed[:-1] + b"x")):
        with pytest.raises(TroubleError, match="do not open"):
            unseal(content, wrong)


def test_a_daily_backup_is_made_when_due_and_the_oldest_go(second, monkeypatch):
    (second.folder / "backups").mkdir()
    monkeypatch.setattr(daily, "FOLDER", second.folder / "backups")
    begun = []

    class Done:
        returncode = 0

        def poll(self):
            return 0

    def spawn(command, **_):
        begun.append(command[-1])
        with open(command[-1], "w") as out:
            out.write("x")
        os.utime(command[-1], (now[0], now[0]))
        return Done()

    monkeypatch.setattr(daily, "spawn", spawn)
    now = [1_000_000.0]
    names = iter(range(100))
    monkeypatch.setattr(
        daily, "name_backup", lambda why: second.folder / "backups" / f"{next(names):03d}-{why}.tar"
    )
    one = Daily(keep=2, clock=lambda: now[0])

    def after(seconds):
        now[0] += seconds
        one.look()
        return len(begun)

    assert after(500) == 0
    assert after(200) == 1
    assert after(23 * 3600) == 1
    assert after(2 * 3600) == 2
    assert after(25 * 3600) == 3
    after(100)
    assert [path.name for path in list_daily()] == ["001-daily.tar", "002-daily.tar"]
    # a clock that was a year ahead, and set right
    now[0] -= 365 * 86400
    assert after(100) == 4
    monkeypatch.setattr(daily, "LEAST_ROOM", 10**18)
    assert after(25 * 3600) == 4
    assert Daily(keep=0, clock=lambda: now[0] + 10**6).look() is None
    assert len(begun) == 4
