"""Places that the agent has drawn and named: what a market view may look inside."""

from __future__ import annotations

from typing import ClassVar

from pydantic import Field

from ...core.search.shapes import check_shapes
from ...documents.base import Doc, StoredDoc, check_line
from ...documents.search import ShapeDoc
from ...documents.versions import read, written
from ...store.porch import kept
from ..office.agent import Agent


class OutlineDoc(StoredDoc):
    """A named place on the map: areas and circles, what lies in any of them and in none that is left out."""

    form: ClassVar[str] = "outline"

    name: str = Field(min_length=1, max_length=90, pattern=r"\S")
    shapes: list[ShapeDoc] = Field(min_length=1, max_length=20)


class KeptOutlineDoc(Doc):
    """outline_id: none for the circle of a workup, which follows its search. drawn: the place as it follows on "homes"."""

    outline_id: int | None
    name: str
    drawn: str
    shapes: list[ShapeDoc]


def outlines(agent: Agent) -> list[KeptOutlineDoc]:
    held = [(k.kept_id, read(OutlineDoc, k.document)) for k in kept.listed(agent.porch, agent.owner, kept.OUTLINE)]
    return [KeptOutlineDoc(outline_id=n, name=d.name, drawn=f"in {d.name}", shapes=d.shapes) for n, d in held]


def keep_outline(agent: Agent, outline: OutlineDoc) -> int:
    """Keep an outline under its name. Raises BadInput where the name is taken or a shape is none."""
    check_line("name", outline.name)
    check_shapes([s.shape() for s in outline.shapes], ())
    made = outline.model_copy(update={"name": outline.name.strip()})
    return kept.add(agent.porch, agent.owner, kept.OUTLINE, made.name, written(made))


def delete_outline(agent: Agent, outline_id: int) -> None:
    kept.delete(agent.porch, agent.owner, kept.OUTLINE, outline_id)
