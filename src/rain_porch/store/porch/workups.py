"""Workups and their revisions in porch.db. A change and the note of what was done commit together."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from ...core.errors import NotFound, OutOfDate
from ..db import Db, WritableDb, atomic

STATES = 200  # of a workup that undo walks back along


def create(db: WritableDb, owner: int, title: str, document: str, what: str, now: str) -> int:
    with atomic(db):
        cursor = db.execute(
            "INSERT INTO workups (owner, title, revision, document, created_at, changed_at) "
            "VALUES (:owner, :title, 1, :document, :now, :now)",
            {"owner": owner, "title": title, "document": document, "now": now},
        )
        number = int(cursor.lastrowid or 0)
        _note(db, number, 1, owner, what, document, now)
    return number


def read(db: Db, owner: int, workup_id: int) -> dict[str, Any]:
    """Raises NotFound for a workup that is not there or not this owner's."""
    row = db.execute(
        "SELECT workup_id, title, revision, document, created_at, changed_at FROM workups "
        "WHERE workup_id = :id AND owner = :owner",
        {"id": workup_id, "owner": owner},
    ).fetchone()
    if row is None:
        raise NotFound(f"There is no workup {workup_id}.", workup_id=workup_id)
    return dict(row)


def save(
    db: WritableDb, owner: int, workup_id: int, revision: int, title: str, document: str, what: str, now: str,
    by: int | None = None,
) -> int:  # fmt: skip
    """Write the next revision; `revision` is the one that was read, `by` whose hand it is. Raises OutOfDate when another came
    between."""
    with atomic(db):
        _read_as(db, owner, workup_id, revision)
        _write(db, workup_id, revision + 1, title, document, now)
        _note(db, workup_id, revision + 1, owner, what, document, now, by)
        # what was done, when and by whom stays; the state itself only as far as one would walk back
        db.execute(
            "UPDATE workup_revisions SET document = '' WHERE workup_id = :id AND revision <= :old AND document <> ''",
            {"id": workup_id, "old": revision + 1 - STATES},
        )
    return revision + 1


def undo(db: WritableDb, owner: int, workup_id: int, revision: int, now: str) -> tuple[int, str | None]:
    """Put back the state before the last change, as a revision of its own: a number never comes again, so that nobody who read
    what was undone can save on it. Returns the new revision and what was undone; None where nothing was done yet.

    `revision` is the one that was read. Raises OutOfDate when another came between: one window never takes back what
    another did without having seen it.
    """
    with atomic(db):
        held = _read_as(db, owner, workup_id, revision)
        rows = db.execute(
            "SELECT revision, what, document FROM workup_revisions WHERE workup_id = :id ORDER BY revision DESC LIMIT 2",
            {"id": workup_id},
        ).fetchall()
        if len(rows) < 2 or not rows[1]["document"]:
            return revision, None
        last, before = rows
        key = {"id": workup_id, "last": last["revision"], "before": before["revision"], "next": revision + 1}
        db.execute("DELETE FROM workup_revisions WHERE workup_id = :id AND revision = :last", key)
        db.execute("UPDATE workup_revisions SET revision = :next WHERE workup_id = :id AND revision = :before", key)
        _write(db, workup_id, revision + 1, held["title"], before["document"], now)
    return revision + 1, str(last["what"])


def _read_as(db: Db, owner: int, workup_id: int, revision: int) -> dict[str, Any]:
    """The workup at the revision that was read. Raises OutOfDate where it is at another."""
    held = read(db, owner, workup_id)
    if held["revision"] != revision:
        raise OutOfDate(
            f"Workup {workup_id} was changed in the meantime: it is at revision {held['revision']}, not {revision}. "
            "Read it again and repeat the change.",
            revision=held["revision"],
        )
    return held


def history(db: Db, owner: int, workup_id: int) -> list[dict[str, Any]]:
    rows = db.execute(
        "SELECT revision, what, at, name AS who FROM workup_revisions LEFT JOIN accounts ON account_id = by_account "
        "WHERE workup_id = :id AND owner = :owner ORDER BY revision DESC LIMIT 200",
        {"id": workup_id, "owner": owner},
    )
    return [dict(r) for r in rows]


def document_at(db: Db, owner: int, workup_id: int, revision: int) -> str | None:
    """The document as it was at a revision; None where that has been taken back."""
    row = db.execute(
        "SELECT document FROM workup_revisions WHERE workup_id = :id AND owner = :owner AND revision = :r",
        {"id": workup_id, "owner": owner, "r": revision},
    ).fetchone()
    return str(row["document"]) or None if row else None


def standing(db: Db, owner: int, workup_id: int) -> dict[str, Any]:
    """The newest revision, what was done last and by whom. Raises NotFound."""
    row = db.execute(
        "SELECT w.revision, r.what, r.by_account, a.name AS who FROM workups w "
        "LEFT JOIN workup_revisions r ON r.workup_id = w.workup_id AND r.revision = w.revision "
        "LEFT JOIN accounts a ON a.account_id = r.by_account WHERE w.workup_id = :id AND w.owner = :owner",
        {"id": workup_id, "owner": owner},
    ).fetchone()
    if row is None:
        raise NotFound(f"There is no workup {workup_id}.", workup_id=workup_id)
    return dict(row)


def listed(db: Db, owner: int, archived: bool = False, words: str = "") -> list[dict[str, Any]]:
    """The account's own, newest change first: those at hand or those put away; with `words` in title, address or client."""
    rows = db.execute(
        "SELECT workup_id, title, document, created_at, changed_at FROM workups WHERE owner = :owner "
        f"AND (archived_at IS NOT NULL) = :archived AND {_WITH_WORDS} ORDER BY changed_at DESC, workup_id DESC LIMIT 500",
        {"owner": owner, "archived": int(archived), "words": _like(words)},
    )
    return [dict(r) for r in rows]


# a document that is damaged has no address and no client, and hides no other
_WITH_WORDS = (
    "(:words = '%%' OR title LIKE :words ESCAPE '!' OR CASE WHEN json_valid(document) THEN "
    "json_extract(document, '$.address') LIKE :words ESCAPE '!' OR json_extract(document, '$.client') LIKE :words ESCAPE '!' END)"
)


def _like(words: str) -> str:
    for sign in "!%_":
        words = words.replace(sign, f"!{sign}")
    return f"%{words.strip()}%"


def listed_for(db: Db, owner: int, every: bool, archived: bool = False, words: str = "") -> list[dict[str, Any]]:
    """Workups that are not the account's own: those shared with it, or `every` other one's, with whose they are."""
    rows = db.execute(
        "SELECT w.workup_id, title, document, created_at, changed_at, a.name AS whose, w.owner, s.may_edit FROM workups w "
        "JOIN accounts a ON a.account_id = w.owner "
        "LEFT JOIN shares s ON s.workup_id = w.workup_id AND s.account_id = :owner "
        "WHERE w.owner <> :owner AND (:every OR s.may_edit IS NOT NULL) AND (archived_at IS NOT NULL) = :archived "
        f"AND {_WITH_WORDS} ORDER BY changed_at DESC, w.workup_id DESC LIMIT 500",
        {"owner": owner, "every": int(every), "archived": int(archived), "words": _like(words)},
    )
    return [dict(r) for r in rows]


def titled(db: Db, owner: int, archived_too: bool = False) -> list[tuple[int, str]]:
    """(number, title) of each at hand, newest change first; `archived_too` of every one."""
    rows = db.execute(
        "SELECT workup_id, title FROM workups WHERE owner = :owner AND (:all OR archived_at IS NULL) "
        "ORDER BY changed_at DESC, workup_id DESC LIMIT :most",
        {"owner": owner, "all": int(archived_too), "most": -1 if archived_too else 500},
    )
    return [(r["workup_id"], r["title"]) for r in rows]


def titled_for(db: Db, owner: int) -> list[tuple[int, str]]:
    """(number, title) of each that is shared with the account and at hand."""
    rows = db.execute(
        "SELECT workup_id, title FROM shares JOIN workups USING (workup_id) "
        "WHERE account_id = :owner AND archived_at IS NULL ORDER BY changed_at DESC, workup_id DESC LIMIT 500",
        {"owner": owner},
    )
    return [(r["workup_id"], r["title"]) for r in rows]


def archive(db: WritableDb, owner: int, workup_id: int, at: str | None) -> None:
    """Put a workup away, or take it out again (`at` None)."""
    read(db, owner, workup_id)
    db.execute("UPDATE workups SET archived_at = :at WHERE workup_id = :id", {"at": at, "id": workup_id})


def rewrite(db: WritableDb, owner: int, workup_id: int, to: Callable[[str], str]) -> None:
    """Change the document in every state that is kept, so that what is taken out of it can never be brought back."""
    with atomic(db):
        held = read(db, owner, workup_id)
        db.execute(
            "UPDATE workups SET document = :d WHERE workup_id = :id", {"d": to(held["document"]), "id": workup_id}
        )
        for r in db.execute(
            "SELECT revision, document FROM workup_revisions WHERE workup_id = :id AND document <> ''",
            {"id": workup_id},
        ).fetchall():
            db.execute(
                "UPDATE workup_revisions SET document = :d WHERE workup_id = :id AND revision = :r",
                {"d": to(r["document"]), "id": workup_id, "r": r["revision"]},
            )


def delete(db: WritableDb, owner: int, workup_id: int) -> None:
    read(db, owner, workup_id)
    db.execute("DELETE FROM workups WHERE workup_id = :id AND owner = :owner", {"id": workup_id, "owner": owner})


def _write(db: WritableDb, workup_id: int, revision: int, title: str, document: str, now: str) -> None:
    db.execute(
        "UPDATE workups SET revision = :revision, title = :title, document = :document, changed_at = :now "
        "WHERE workup_id = :id",
        {"id": workup_id, "revision": revision, "title": title, "document": document, "now": now},
    )


def _note(
    db: WritableDb, workup_id: int, revision: int, owner: int, what: str, document: str, now: str, by: int | None = None
) -> None:
    db.execute(
        "INSERT INTO workup_revisions (workup_id, revision, owner, what, document, at, by_account) "
        "VALUES (:id, :revision, :owner, :what, :document, :now, :by)",
        {
            "id": workup_id,
            "revision": revision,
            "owner": owner,
            "what": what,
            "document": document,
            "now": now,
            "by": owner if by is None else by,
        },
    )
