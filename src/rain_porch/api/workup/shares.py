"""A workup shown to colleagues, or handed over."""

from __future__ import annotations

from pydantic import BaseModel, Field

from ...app.office import sharing
from ..routing import api_router
from ..state import Number, Porch

router = api_router("workups")


class ShareDoc(BaseModel):
    account_id: int
    name: str
    may_edit: bool


class SharedFor(BaseModel):
    may_edit: bool = False


class NewOwner(BaseModel):
    account_id: int = Field(ge=1, le=2**53)


@router.get("/workups/{workup_id}/shares")
def shares(porch: Porch, workup_id: Number) -> list[ShareDoc]:
    """With whom it is shared."""
    return [ShareDoc(**s) for s in sharing.shared_with(porch.agent, workup_id)]


@router.put("/workups/{workup_id}/shares/{account_id}", status_code=204)
def share(porch: Porch, workup_id: Number, account_id: Number, body: SharedFor) -> None:
    """Let a colleague read or edit it."""
    sharing.share(porch.agent, workup_id, account_id, body.may_edit)


@router.delete("/workups/{workup_id}/shares/{account_id}", status_code=204)
def share_no_longer(porch: Porch, workup_id: Number, account_id: Number) -> None:
    sharing.share(porch.agent, workup_id, account_id, None)


@router.post("/workups/{workup_id}/owner", status_code=204)
def hand_over(porch: Porch, workup_id: Number, body: NewOwner) -> None:
    """Give it to a colleague, with its history and what was delivered of it."""
    sharing.hand_over(porch.agent, workup_id, body.account_id)
