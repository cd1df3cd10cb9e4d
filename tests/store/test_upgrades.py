"""A folder of every earlier schema is saved aside, then brought to the newest with what it holds."""

from __future__ import annotations

import sqlite3
from contextlib import closing

import pytest

from rain_porch.store import db as database
from rain_porch.store.db import PORCH, RECORDS, newest_schema, open_database

ROW = {
    PORCH: "INSERT INTO workups (owner, title, revision, document, created_at, changed_at) "
    "VALUES (1, '1 Made Street', 1, '{}', '2026-11-02', '2026-11-02')",
    RECORDS: "INSERT INTO sources (name) VALUES ('a made source')",
}
EARLIER = [(which, n) for which in (PORCH, RECORDS) for n in range(1, newest_schema(which))]


@pytest.mark.parametrize(("which", "schema"), EARLIER)
def test_every_earlier_schema_is_saved_and_brought_along(tmp_path, which, schema):
    with closing(database.connect(tmp_path / f"{which}.db")) as old:
        for number, step in enumerate(database._steps(which)[:schema], start=1):
            old.executescript(f"BEGIN;{step.read_text(encoding='utf-8')}\nPRAGMA user_version = {number};COMMIT;")
        old.execute(ROW[which])
    table = ROW[which].split()[2]
    with closing(open_database(tmp_path, which)) as new:
        assert new.execute("PRAGMA user_version").fetchone()[0] == newest_schema(which)
        assert new.execute(f"SELECT count(*) FROM {table}").fetchone()[0] >= 1
        assert new.execute("PRAGMA integrity_check").fetchone()[0] == "ok"
        assert new.execute("PRAGMA foreign_key_check").fetchall() == []
    aside = tmp_path / "backups" / f"{which}-schema-{schema}.db"
    with closing(sqlite3.connect(aside)) as saved:
        assert saved.execute("PRAGMA user_version").fetchone()[0] == schema
        assert saved.execute(f"SELECT count(*) FROM {table}").fetchone()[0] >= 1
    stamp = aside.stat().st_mtime_ns
    open_database(tmp_path, which).close()
    assert aside.stat().st_mtime_ns == stamp, "once"
