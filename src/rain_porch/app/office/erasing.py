"""What a person asks to be erased, for good: out of every earlier state, out of the file itself, and so out of later backups."""

from __future__ import annotations

import json
from collections.abc import Callable
from typing import Any

from ...core.errors import NotFound
from ...store import db as database
from ...store import own_files
from ...store.porch import clients, deliveries, kept, shares, workups
from ...store.records.incoming import photo_undo
from .agent import Agent


def erase_client(agent: Agent, client_id: int) -> int:
    """A client, what was delivered to them with its messages and links, and their name in workups; how many deliveries went.

    Raises NotFound. Deliveries are theirs by name or e-mail address.
    """
    person = next((c for c in clients.listed(agent.porch, agent.owner) if c["client_id"] == client_id), None)
    if person is None:
        raise NotFound(f"There is no client {client_id}.", client_id=client_id)
    name, email = person["name"].strip().casefold(), person["email"].strip().casefold()

    def without_them(text: str) -> str:
        return _changed(
            text, name, lambda d: d.update(client="") if d.get("client", "").strip().casefold() == name else None
        )

    def no_reader(d: dict[str, Any]) -> None:
        """A bulletin goes to them no more."""
        d["readers"] = [
            r for r in d.get("readers", [])
            if not (email and r["email"].strip().casefold() == email) and not (name and r["name"].strip().casefold() == name)
        ]  # fmt: skip

    with database.erasing(agent.porch):
        gone = deliveries.erase(agent.porch, agent.owner, name, email)
        for number, _ in workups.titled(agent.porch, agent.owner, archived_too=True):
            workups.rewrite(agent.porch, agent.owner, number, without_them)
        for k in kept.listed(agent.porch, agent.owner, kept.BULLETIN):
            without = k.document
            for known in filter(None, (email, name)):
                without = _changed(without, known, no_reader)
            if without != k.document:
                kept.write(agent.porch, agent.owner, kept.BULLETIN, k.kept_id, k.name, without)
        clients.delete(agent.porch, agent.owner, client_id)
    return gone


def erase_photo(agent: Agent, workup_id: int, file: str) -> None:
    """A picture of the agent's own, out of a workup and all its earlier states, and off the disk where nothing else names it.
    Raises NotFound."""

    def without_it(text: str) -> str:
        return _changed(
            text, file, lambda d: d.update(photos=[p for p in d.get("photos", []) if p.get("file") != file])
        )

    if file not in workups.read(agent.porch, agent.owner, workup_id)["document"] and not shares.has_file(
        agent.porch, agent.owner, file, -1
    ):
        raise NotFound(f"The picture {file} is not there any more.")
    with database.erasing(agent.porch):
        workups.rewrite(agent.porch, agent.owner, workup_id, without_it)
        shares.forget_file(agent.porch, agent.owner, file)
    if photo_undo.unnamed(agent.records.db, {file}) - own_files.named(agent.porch):
        (agent.records.folder / "photos" / file).unlink(missing_ok=True)


def _changed(text: str, what: str, change: Callable[[dict[str, Any]], Any]) -> str:
    """A document without what is erased; one in which that does not stand is left as it is. One that is damaged and holds it
    goes whole: nothing in it can be told apart."""
    if what not in text.casefold():
        return text
    try:
        document = json.loads(text)
    except ValueError:
        return "{}"
    change(document)
    return json.dumps(document, ensure_ascii=False, separators=(",", ":"))
