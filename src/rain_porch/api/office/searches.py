"""Searches kept by name, for this home and for others."""

from __future__ import annotations

from pydantic import BaseModel, Field

from ...app import saved_searches as kept_searches
from ...app.around import LookAsk
from ...documents.base import Line, Worded
from ...documents.search import SearchDoc
from ..routing import api_router
from ..state import Number, Porch

router = api_router("searches")


class SearchName(BaseModel):
    name: Line = Field(min_length=1, max_length=80, pattern=r"\S")


class SavedSearch(BaseModel):
    """words: the search as a sentence, for the home it was made for."""

    search_id: int
    name: str
    words: Worded


class Carried(BaseModel):
    """The search about this home, and what belonged to the other's place and stayed behind."""

    search: SearchDoc
    left: list[Worded]


@router.get("/searches")
def saved_searches(porch: Porch) -> list[SavedSearch]:
    return [
        SavedSearch(search_id=n, name=name, words=words) for n, name, words in kept_searches.saved_searches(porch.agent)
    ]


@router.post("/workups/{workup_id}/searches", status_code=201)
def save_search(porch: Porch, workup_id: Number, body: SearchName) -> int:
    """Keep the workup's search under a name; one of the same name is replaced. Returns its number."""
    return kept_searches.save_search(porch.agent, workup_id, body.name.strip())


@router.get("/workups/{workup_id}/searches/{search_id}")
def carry_search(porch: Porch, workup_id: Number, search_id: Number) -> Carried:
    """A saved search as it would be for this home; nothing changes yet."""
    search, left = kept_searches.carried_search(porch.agent, workup_id, search_id)
    return Carried(search=SearchDoc.of(search), left=left)


class SearchOfLook(SearchName):
    look: LookAsk


@router.post("/searches", status_code=201)
def save_search_of_look(porch: Porch, body: SearchOfLook) -> int:
    """Keep a look's search under a name; one of the same name is replaced. Returns its number."""
    return kept_searches.save_looked(porch.agent, body.name.strip(), body.look)


@router.post("/searches/{search_id}/around")
def carry_search_to_look(porch: Porch, search_id: Number, body: LookAsk) -> Carried:
    """A saved search as it would be for a look; nothing changes."""
    search, left = kept_searches.carried_to_look(porch.agent, search_id, body)
    return Carried(search=SearchDoc.of(search), left=left)


@router.delete("/searches/{search_id}", status_code=204)
def delete_search(porch: Porch, search_id: Number) -> None:
    kept_searches.delete_search(porch.agent, search_id)
