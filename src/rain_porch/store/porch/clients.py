"""Clients in porch.db."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from typing import Any

from ...core.errors import NotFound
from ..db import Db, WritableDb, atomic

FIELDS = ("name", "email", "phone", "address", "note")


def listed(db: Db, owner: int) -> list[dict[str, Any]]:
    rows = db.execute(
        "SELECT client_id, name, email, phone, address, note FROM clients WHERE owner = :o ORDER BY name, client_id",
        {"o": owner},
    )
    return [dict(r) for r in rows]


def add(db: WritableDb, owner: int, people: Iterable[Mapping[str, str]]) -> list[int]:
    """Keep people; one of the same name and e-mail as one held is changed in place. Returns their numbers."""
    out = []
    with atomic(db):
        for person in people:
            values = {"o": owner, **{f: person.get(f, "") for f in FIELDS}}
            held = db.execute(
                "SELECT client_id FROM clients WHERE owner = :o AND name = :name AND lower(email) = lower(:email)",
                values,
            ).fetchone()
            if held:
                out.append(int(held[0]))
                db.execute(
                    "UPDATE clients SET phone = :phone, address = :address, note = :note WHERE client_id = :id",
                    {**values, "id": held[0]},
                )
                continue
            cursor = db.execute(
                "INSERT INTO clients (owner, name, email, phone, address, note) "
                "VALUES (:o, :name, :email, :phone, :address, :note)",
                values,
            )
            out.append(int(cursor.lastrowid or 0))
    return out


def change(db: WritableDb, owner: int, client_id: int, person: Mapping[str, str]) -> None:
    done = db.execute(
        "UPDATE clients SET name = :name, email = :email, phone = :phone, address = :address, note = :note "
        "WHERE client_id = :id AND owner = :o",
        {"o": owner, "id": client_id, **{f: person.get(f, "") for f in FIELDS}},
    )
    if not done.rowcount:
        raise NotFound(f"There is no client {client_id}.", client_id=client_id)


def delete(db: WritableDb, owner: int, client_id: int) -> None:
    if not db.execute(
        "DELETE FROM clients WHERE client_id = :id AND owner = :o", {"id": client_id, "o": owner}
    ).rowcount:
        raise NotFound(f"There is no client {client_id}.", client_id=client_id)
