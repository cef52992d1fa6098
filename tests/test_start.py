"""Starting the program: alone in its folder, private, and with a sentence where it can't."""

import os
import socket
import sqlite3
import stat

from sqlalchemy import text
from typer.testing import CliRunner

from milkwort.cli import app
from milkwort.core.errors import PlannerError
from milkwort.hold import held_alone
from milkwort.main import _listener
from milkwort.settings import Settings
from milkwort.store.database import Database
from tests.store.test_migrations import OLD
from tools.program import served


def start(data, *more):
    """Start a server that can't, within this process: it ends before it would listen."""
    return CliRunner().invoke(app, ["serve", "--data", str(data), *more])


def in_one_sentence(done):
    assert done.exit_code == 2 and done.stdout == ""
    (line,) = done.stderr.strip().splitlines()
    assert line.startswith("milkwort: ") and "Traceback" not in line
    return line


def test_a_second_server_on_one_folder_says_where_the_first_is(tmp_path):
    with served(tmp_path, verb="serve", port=8790) as url:
        line = in_one_sentence(start(tmp_path, "--port", "8795"))
        assert "is served already" in line and url in line
    with served(tmp_path, verb="serve", port=8790):
        pass  # what is left in the folder holds nobody up


def test_a_file_that_is_no_database_is_left_as_it_is(tmp_path):
    path = tmp_path / "milkwort.db"
    path.write_bytes(b"not a database at all " * 100)
    before = path.read_bytes()
    assert "damaged" in in_one_sentence(start(tmp_path))
    assert path.read_bytes() == before


def test_a_damaged_database_is_said(tmp_path):
    database = Database(tmp_path / "milkwort.db")
    database.migrate()
    database.close()
    path = tmp_path / "milkwort.db"
    content = bytearray(path.read_bytes())
    content[100:8000] = os.urandom(7900)
    path.write_bytes(content)
    assert "damaged" in in_one_sentence(start(tmp_path))


def test_a_database_of_a_newer_version_is_left_as_it_is(tmp_path):
    database = Database(tmp_path / "milkwort.db")
    database.migrate()
    with database.begin() as session:
        session.execute(text("update alembic_version set version_num = '9999'"))
    database.close()
    assert "newer Milkwort" in in_one_sentence(start(tmp_path))


def test_a_folder_that_cannot_be_a_folder_is_said(tmp_path):
    (tmp_path / "file").write_text("x")
    in_one_sentence(start(tmp_path / "file"))


def test_a_server_that_cannot_make_its_application_says_why(tmp_path, monkeypatch):
    def fails(*_given, **_more):
        raise PlannerError("The sample could not be kept.")

    monkeypatch.setattr("milkwort.application.application", fails)
    done = start(tmp_path, "--port", "8796")
    assert done.exit_code == 2
    assert done.stderr == "milkwort: The sample could not be kept.\n"


def test_what_it_keeps_is_its_owners_alone(tmp_path):
    folder = tmp_path / "new" / "data"
    with held_alone(folder):
        database = Database(folder / "milkwort.db")
        database.migrate()
        with database.begin() as session:
            session.execute(text("insert into client (name, created_at) values ('x', '')"))
            modes = {p.name: stat.S_IMODE(p.stat().st_mode) for p in folder.iterdir()}
        database.close()
    assert stat.S_IMODE(folder.stat().st_mode) == 0o700
    assert modes and set(modes.values()) == {0o600}


def test_a_database_is_copied_before_it_is_migrated(tmp_path):
    path = tmp_path / "milkwort.db"
    with sqlite3.connect(path) as connection:
        connection.executescript(OLD.read_text(encoding="utf-8"))
    connection.close()
    database = Database(path)
    database.migrate()
    database.migrate()
    database.close()
    (copy,) = tmp_path.glob("milkwort-before-*.db")
    with sqlite3.connect(copy) as connection:
        assert connection.execute("select version_num from alembic_version").fetchone() == ("0005",)
        assert connection.execute("select count(*) from keyword").fetchone()[0] > 0
    connection.close()


def test_nothing_is_copied_where_nothing_is_migrated(tmp_path):
    database = Database(tmp_path / "milkwort.db")
    database.migrate()
    database.migrate()
    database.close()
    assert not list(tmp_path.glob("milkwort-before-*"))


def test_answers_do_not_wait_for_company_on_their_way():
    listener = _listener(Settings(port=8797))
    try:
        assert listener.proto == socket.IPPROTO_TCP
    finally:
        listener.close()


def test_a_lost_power_loses_nothing_that_was_answered(tmp_path):
    database = Database(tmp_path / "d.db")
    with database.read() as session:
        assert session.scalar(text("pragma synchronous")) == 2
    database.close()
