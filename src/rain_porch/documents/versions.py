"""What is stored, by its version: read from any earlier form, written in the newest, with what is not known carried along.

A document is a JSON object with its `version`; the first form had none. An upgrade is a pure function from the data of one
version to that of the next. Fields that this program does not know, as a newer one has written them, come back out as they
were.
"""

from __future__ import annotations

import json
from collections.abc import Callable, Mapping, Sequence
from typing import Any, TypeVar

from pydantic import ValidationError

from ..core.errors import Refused
from .base import StoredDoc

Data = dict[str, Any]
T = TypeVar("T", bound=StoredDoc)


def _marked(data: Data) -> Data:
    """1 → 2: the same, and from now on it says which form it has."""
    return data


def _bulletin_on_paper(data: Data) -> Data:
    """2 → 3 of a layout: what was called a market letter is a bulletin."""
    out = dict(data)
    if "market_letter" in out:
        out["bulletin"] = out.pop("market_letter")

    def renamed(name: Any) -> Any:
        return "bulletin" if name == "market_letter" else name

    if isinstance(out.get("pages"), list):
        out["pages"] = [renamed(name) for name in out["pages"]]
    for by_page in ("notes", "speaks_of"):
        if isinstance(out.get(by_page), dict):
            out[by_page] = {renamed(name): value for name, value in out[by_page].items()}
    return out


def _bulletin_on_the_workups_paper(data: Data) -> Data:
    return {**data, "paper": _bulletin_on_paper(data["paper"])} if isinstance(data.get("paper"), dict) else data


def _parts_of_a_bulletin(data: Data) -> Data:
    """2 → 3: its items are parts."""
    return {**{k: v for k, v in data.items() if k != "items"}, **({"parts": data["items"]} if "items" in data else {})}


# kind of document → what brings version n to n + 1, in order from 1
UPGRADES: Mapping[str, Sequence[Callable[[Data], Data]]] = {
    "workup": (_marked, _bulletin_on_the_workups_paper),
    "market view": (_marked,),
    "search": (_marked,),
    "layout": (_marked, _bulletin_on_paper),
    "bulletin": (_marked, _parts_of_a_bulletin),
    "outline": (),
}


def newest(kind: str) -> int:
    return 1 + len(UPGRADES[kind])


def read(model: type[T], text: str) -> T:
    """A stored document of any version. Refused for what a newer program has written otherwise, or what is damaged."""
    try:
        data = json.loads(text)
        version = int(data.pop("version", 1))
    except (ValueError, TypeError, AttributeError):
        raise Refused(f"This {model.form} is damaged and cannot be read: restore it from a backup.") from None
    for upgrade in UPGRADES[model.form][version - 1 :]:
        data = upgrade(data)
    carried: list[tuple[tuple[str, ...], Any]] = []
    for _ in range(20):  # parts that were unknown inside unknown parts come out with these
        try:
            made = model.model_validate_json(json.dumps(data))
        except ValidationError as error:
            taken = [_taken_out(data, e["loc"]) for e in error.errors() if e["type"] == "extra_forbidden"]
            if len(taken) < error.error_count():
                raise Refused(_why(model.form, version)) from None
            carried += taken
            continue
        made._carried = [*carried, ((), version)] if version > newest(model.form) else carried
        return made
    raise Refused(_why(model.form, version))


def _why(form: str, version: int) -> str:
    if version > newest(form):
        return f"This {form} was written by a newer version of Rain Porch: update it to open this."
    return f"This {form} is damaged and cannot be read: restore it from a backup."


def written(document: StoredDoc) -> str:
    """The document in its newest form, with what was carried along."""
    data = json.loads(document.model_dump_json())
    version = newest(document.form)
    for path, value in document._carried:
        if not path:
            version = max(version, int(value))  # what a newer program wrote stays of its version
            continue
        part: Any = data
        for name in path[:-1]:
            part = part.get(name) if isinstance(part, dict) else None
        if isinstance(part, dict):
            part.setdefault(path[-1], value)
    return json.dumps({"version": version, **data}, ensure_ascii=False, separators=(",", ":"))


def _taken_out(data: Data, where: tuple[int | str, ...]) -> tuple[tuple[str, ...], Any]:
    """An unknown field out of the data. Inside a list it has no name to come back by, and stays away."""
    part: Any = data
    for name in where[:-1]:
        part = part[name]
    value = part.pop(where[-1])
    named = all(isinstance(name, str) for name in where)
    return (tuple(str(name) for name in where) if named else ("", "")), value
