"""Accounts, their sessions, and sign-ins that failed."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from ...core.errors import BadInput, NotFound
from ..db import Db, WritableDb, atomic

AGENT, MANAGER = "agent", "manager"
_ALL = "SELECT account_id, name, role, may_import, disabled, password_hash FROM accounts "


@dataclass(frozen=True)
class Account:
    """may_import: is allowed to bring records in, take imports back, say what is wrong with a record; a manager always is."""

    account_id: int
    name: str
    role: str
    may_import: bool
    disabled: bool
    password_hash: str | None

    @property
    def is_manager(self) -> bool:
        return self.role == MANAGER

    @property
    def may_change_records(self) -> bool:
        return not self.disabled and (self.may_import or self.is_manager)


def _account(row: Any) -> Account:
    return Account(
        row["account_id"], row["name"], row["role"], bool(row["may_import"]), bool(row["disabled"]),
        row["password_hash"],
    )  # fmt: skip


def read(db: Db, account_id: int) -> Account:
    row = db.execute(f"{_ALL} WHERE account_id = :id", {"id": account_id}).fetchone()
    if row is None:
        raise NotFound(f"There is no account {account_id}.", account_id=account_id)
    return _account(row)


def named(db: Db, name: str) -> Account | None:
    """The account of a name, however its letters are written."""
    return next((a for a in listed(db) if a.name.casefold() == name.strip().casefold()), None)


def listed(db: Db) -> list[Account]:
    return [_account(r) for r in db.execute(f"{_ALL} ORDER BY account_id")]


def add(db: WritableDb, name: str, role: str, may_import: bool, password_hash: str | None) -> int:
    """Raises BadInput for a name that is taken."""
    with atomic(db):
        _not_taken(db, name, None)
        made = db.execute(
            "INSERT INTO accounts (name, role, may_import, password_hash) VALUES (:n, :r, :m, :p)",
            {"n": name, "r": role, "m": int(may_import), "p": password_hash},
        )
        return int(made.lastrowid or 0)


def change(db: WritableDb, account_id: int, name: str, role: str, may_import: bool, disabled: bool) -> None:
    """Raises BadInput where nobody would be left who may manage accounts; a disabled account is signed out everywhere."""
    with atomic(db):
        before = read(db, account_id)
        _not_taken(db, name, account_id)
        managers = [a for a in listed(db) if a.is_manager and not a.disabled and a.password_hash is not None]
        if managers == [before] and (disabled or role != MANAGER):
            raise BadInput("role", f"{before.name} is the only manager: make another one first.")
        db.execute(
            "UPDATE accounts SET name = :n, role = :r, may_import = :m, disabled = :d WHERE account_id = :id",
            {"n": name, "r": role, "m": int(may_import), "d": int(disabled), "id": account_id},
        )
        if disabled:
            end_sessions(db, account_id)


def set_password(db: WritableDb, account_id: int, password_hash: str) -> None:
    """A new password signs the account out everywhere."""
    with atomic(db):
        read(db, account_id)
        db.execute(
            "UPDATE accounts SET password_hash = :p WHERE account_id = :id", {"p": password_hash, "id": account_id}
        )
        end_sessions(db, account_id)


def any_password(db: Db) -> bool:
    """Whether anybody can sign in yet."""
    return db.execute("SELECT 1 FROM accounts WHERE password_hash IS NOT NULL LIMIT 1").fetchone() is not None


def _not_taken(db: Db, name: str, but: int | None) -> None:
    same = named(db, name)
    if same is not None and same.account_id != but:
        raise BadInput("name", f"There is an account “{same.name}” already: choose another name.")


# --- sessions


def begin_session(db: WritableDb, digest: str, account_id: int, now: str) -> None:
    db.execute(
        "INSERT INTO sessions (digest, account_id, begun_at, seen_at) VALUES (:d, :a, :now, :now)",
        {"d": digest, "a": account_id, "now": now},
    )


def session(db: Db, digest: str, begun_after: str, seen_after: str) -> tuple[Account, str] | None:
    """The account of a session that has not run out and is not disabled, and when it was seen last."""
    row = db.execute(
        "SELECT a.account_id, name, role, may_import, disabled, password_hash, seen_at FROM sessions "
        "JOIN accounts a USING (account_id) "
        "WHERE digest = :d AND begun_at > :b AND seen_at > :s AND disabled = 0",
        {"d": digest, "b": begun_after, "s": seen_after},
    ).fetchone()
    return (_account(row), row["seen_at"]) if row else None


def see_session(db: WritableDb, digest: str, now: str) -> None:
    db.execute("UPDATE sessions SET seen_at = :now WHERE digest = :d", {"now": now, "d": digest})


def end_session(db: WritableDb, digest: str) -> None:
    db.execute("DELETE FROM sessions WHERE digest = :d", {"d": digest})


def end_sessions(db: WritableDb, account_id: int) -> None:
    db.execute("DELETE FROM sessions WHERE account_id = :a", {"a": account_id})


def forget_old_sessions(db: WritableDb, begun_before: str, seen_before: str) -> None:
    db.execute("DELETE FROM sessions WHERE begun_at <= :b OR seen_at <= :s", {"b": begun_before, "s": seen_before})


# --- sign-ins that failed


def failures(db: Db, name: str) -> tuple[int, str] | None:
    """(how many in a row, when the last was)."""
    row = db.execute("SELECT failures, last_at FROM failed_sign_ins WHERE name = :n", {"n": name}).fetchone()
    return (row[0], row[1]) if row else None


def note_failure(db: WritableDb, name: str, now: str, keep: int = 10_000) -> None:
    """One more; the oldest go where names are made up by the thousand."""
    with atomic(db):
        db.execute(
            "INSERT INTO failed_sign_ins VALUES (:n, 1, :now) "
            "ON CONFLICT (name) DO UPDATE SET failures = failures + 1, last_at = :now",
            {"n": name, "now": now},
        )
        db.execute(
            "DELETE FROM failed_sign_ins WHERE name IN "
            "(SELECT name FROM failed_sign_ins ORDER BY last_at DESC LIMIT -1 OFFSET :keep)",
            {"keep": keep},
        )


def forget_failures(db: WritableDb, name: str) -> None:
    db.execute("DELETE FROM failed_sign_ins WHERE name = :n", {"n": name})
