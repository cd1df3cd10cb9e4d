"""Mappings that have a name, and the order of words of fields of the office's own: shared by the office."""

from __future__ import annotations

from typing import Annotated

from fastapi import Path
from pydantic import BaseModel, Field

from ...core.errors import BadInput, NotFound
from ...core.facts.fields import Kind, own_field
from ...records.mapping.layouts import LAYOUTS
from ...records.mapping.mapping import mapping_alone, name_of_mapping
from ...store.records import word_orders
from ...store.records.incoming import imports
from ..routing import api_router
from ..state import Porch
from .incoming import KindName, PartDoc

router = api_router("records")
MappingName = Annotated[str, Path(min_length=1, max_length=200)]


class NamedMappingDoc(BaseModel):
    name: str
    kind: str
    parts: list[PartDoc]
    saved_at: str


class MappingToSave(BaseModel):
    kind: KindName
    parts: list[PartDoc] = Field(min_length=1, max_length=400)


@router.get("/records/mappings")
def mappings(porch: Porch) -> list[NamedMappingDoc]:
    return [
        NamedMappingDoc(name=m["name"], kind=m["kind"], saved_at=m["saved_at"], parts=[PartDoc(**p) for p in m["mapping"]["parts"]])
        for m in imports.named_mappings(porch.live)
    ]  # fmt: skip


@router.put("/records/mappings/{name}")
def save(porch: Porch, name: MappingName, asked: MappingToSave) -> list[NamedMappingDoc]:
    """Keep a mapping under a name; one of the same name is replaced."""
    if asked.kind not in LAYOUTS:
        raise NotFound(f"Files of {asked.kind} have no mapping.")
    document = mapping_alone({"parts": [p.model_dump() for p in asked.parts]}, LAYOUTS[asked.kind].fields)
    with porch.state.records.connection() as db:
        imports.save_mapping(
            db, name_of_mapping(name), asked.kind, document, porch.agent.now().isoformat(timespec="seconds")
        )
    return mappings(porch)


@router.delete("/records/mappings/{name}")
def forget(porch: Porch, name: MappingName) -> list[NamedMappingDoc]:
    with porch.state.records.connection() as db:
        if not imports.forget_mapping(db, name):
            raise NotFound(f"There is no mapping called “{name}”.")
    return mappings(porch)


class WordOrder(BaseModel):
    """words: from least to most; none where they have no order."""

    words: list[Annotated[str, Field(min_length=1, max_length=80)]] = Field(max_length=60)


@router.put("/records/word-orders/{field}")
def set_word_order(porch: Porch, field: Annotated[str, Path(max_length=64)], asked: WordOrder) -> dict[str, list[str]]:
    """Say the order of the words of a field of the office's own: tables sort by it, a search may ask for a word and better."""
    f = own_field(field)
    if f is None or f.kind != Kind.WORD:
        raise BadInput("field", f"“{field}” is no field of your own that holds words: name one of these.")
    words = list(dict.fromkeys(w.strip() for w in asked.words if w.strip()))
    with porch.state.records.connection() as db:
        word_orders.set_order(db, field, words)
    return {name: order for name, order in word_orders.word_orders(porch.live).items() if order}
