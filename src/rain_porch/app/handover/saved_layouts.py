"""Layouts of reports that the agent keeps by name."""

from __future__ import annotations

from ...documents.stored import PaperDoc
from ...documents.versions import read, written
from ...store.db import atomic
from ...store.porch import kept
from ..office.agent import Agent


def saved_layouts(agent: Agent) -> list[tuple[int, str, PaperDoc]]:
    """(number, name, paper) of each."""
    held = kept.listed(agent.porch, agent.owner, kept.LAYOUT)
    return [(k.kept_id, k.name, read(PaperDoc, k.document)) for k in held]


def save_layout(agent: Agent, name: str, paper: PaperDoc) -> int:
    """Keep pages, order and options; what belongs to one home (title, letter, comments) stays behind."""
    document = written(paper.model_copy(update={"title": "", "letter": "", "notes": {}}))
    with atomic(agent.porch):
        for k in kept.listed(agent.porch, agent.owner, kept.LAYOUT):
            if k.name == name:
                kept.write(agent.porch, agent.owner, kept.LAYOUT, k.kept_id, name, document)
                return k.kept_id
        return kept.add(agent.porch, agent.owner, kept.LAYOUT, name, document)


def delete_layout(agent: Agent, layout_id: int) -> None:
    kept.delete(agent.porch, agent.owner, kept.LAYOUT, layout_id)
