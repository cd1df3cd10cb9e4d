"""The office's accounts, and who did what: for its managers; colleagues for everybody."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel, Field

from ...app.office import accounts, sharing
from ...core.errors import NotAllowed
from ...documents.accounts import AccountDoc
from ..routing import api_router
from ..state import AskedNumber, Number, Porch

router = api_router("accounts")
Role = Literal["agent", "manager"]


class ColleagueDoc(BaseModel):
    account_id: int
    name: str


class ChangedAccount(BaseModel):
    name: str = Field(max_length=200)
    role: Role = "agent"
    may_import: bool = False
    disabled: bool = False


class NewAccount(BaseModel):
    name: str = Field(max_length=200)
    role: Role = "agent"
    may_import: bool = False
    password: str = Field(max_length=1000)


class NewPassword(BaseModel):
    password: str = Field(max_length=1000)


class ActDoc(BaseModel):
    """first_at, last_at: the same thing done several times within some minutes is one act."""

    act_id: int
    account_id: int
    name: str
    what: str
    of_what: str
    first_at: str
    last_at: str
    times: int
    title: str = Field(description="of the workup, where it is of one that is still there")


@router.get("/colleagues")
def colleagues(porch: Porch) -> list[ColleagueDoc]:
    return [ColleagueDoc(account_id=a.account_id, name=a.name) for a in sharing.colleagues(porch.agent)]


@router.get("/accounts")
def all_accounts(porch: Porch) -> list[AccountDoc]:
    return [accounts.account_doc(a) for a in accounts.all_accounts(porch.agent.porch)]


@router.post("/accounts", status_code=201)
def add_account(porch: Porch, body: NewAccount) -> AccountDoc:
    db = porch.agent.porch
    _after_the_first(porch)
    return accounts.account_doc(
        accounts.read_account(db, accounts.add_account(db, body.name, body.role, body.may_import, body.password))
    )


@router.put("/accounts/{account_id}")
def change_account(porch: Porch, account_id: Number, body: ChangedAccount) -> AccountDoc:
    db = porch.agent.porch
    accounts.change_account(db, account_id, body.name, body.role, body.may_import, body.disabled)
    return accounts.account_doc(accounts.read_account(db, account_id))


@router.put("/accounts/{account_id}/password", status_code=204)
def set_password(porch: Porch, account_id: Number, body: NewPassword) -> None:
    """A new password for somebody, who is signed out everywhere."""
    _after_the_first(porch)
    accounts.set_password(porch.agent.porch, account_id, body.password)


@router.get("/acts")
def acts(porch: Porch, account_id: AskedNumber = None) -> list[ActDoc]:
    """Who did what, when; newest first."""
    return [ActDoc(**a) for a in sharing.who_did_what(porch.agent, account_id)]


def _after_the_first(porch: Porch) -> None:
    """A password closes a folder that was open to who sits here: that must be their own first, or they could not come back."""
    if not accounts.somebody_signs_in(porch.agent.porch):
        raise NotAllowed("Make the first account first, your own: with the code that the service printed at its start.")
