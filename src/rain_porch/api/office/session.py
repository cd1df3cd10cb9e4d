"""Signing in and out, the first account, one's own password."""

from __future__ import annotations

from fastapi import Request, Response
from pydantic import BaseModel, Field

from ...app.home import photos
from ...app.office import accounts
from ...app.office.local_form import LocalFormDoc, form_of_office
from ...core.errors import NotAllowed, NotSignedIn
from ..routing import api_router
from ..state import Porch, State
from ..who import COOKIE, asker

router = api_router("accounts")
FIRST = "the first account"  # under which wrong codes are counted


class WhoDoc(BaseModel):
    """may_import: may bring records in and take imports back."""

    account_id: int
    name: str
    role: str
    may_import: bool


class SessionDoc(BaseModel):
    """who: none before signing in. by_itself: nobody has to sign in here. first: the first account is still to be made. form: in which
    the office reads figures."""

    who: WhoDoc | None
    by_itself: bool
    first: bool
    demo: bool
    form: LocalFormDoc


class SignInDoc(BaseModel):
    name: str = Field(max_length=200)
    password: str = Field(max_length=1000)


class FirstDoc(SignInDoc):
    code: str = Field(max_length=100, description="as the service printed it at its start")


class PasswordDoc(BaseModel):
    old: str = Field(max_length=1000)
    new: str = Field(max_length=1000)


@router.get("/session")
def session(request: Request) -> SessionDoc:
    """Who is signed in, and what stands before the others."""
    state: State = request.app.state.porch
    who = asker(request)
    return _doc(state, who.account, who.by_itself)


@router.post("/session")
def sign_in(request: Request, response: Response, body: SignInDoc) -> SessionDoc:
    state: State = request.app.state.porch
    account, token = accounts.sign_in(state.porch, body.name, body.password, state.now())
    _let_in(request, response, token)
    return _doc(state, account, False)


@router.delete("/session", status_code=204)
def sign_out(request: Request, response: Response) -> None:
    state: State = request.app.state.porch
    accounts.sign_out(state.porch, request.cookies.get(COOKIE, ""))
    response.delete_cookie(COOKIE, path=_path(request), httponly=True, samesite="lax")


@router.delete("/sessions", status_code=204)
def sign_out_everywhere(porch: Porch, request: Request, response: Response) -> None:
    """End every session of the account, this one too."""
    accounts.sign_out_everywhere(porch.agent.porch, porch.agent.account_id)
    response.delete_cookie(COOKIE, path=_path(request), httponly=True, samesite="lax")


@router.put("/password", status_code=204)
def change_password(porch: Porch, request: Request, response: Response, body: PasswordDoc) -> None:
    """Another password of one's own; all other sessions end."""
    db = porch.agent.porch
    if not accounts.somebody_signs_in(db):
        raise NotAllowed("Nobody signs in here yet: make the first account, with the code that the service printed.")
    account = accounts.read_account(db, porch.agent.account_id)
    _let_in(request, response, accounts.change_own_password(db, account, body.old, body.new, porch.agent.now()))


@router.post("/first-account", status_code=201)
def make_first(request: Request, response: Response, body: FirstDoc) -> SessionDoc:
    """Give the folder's own account its name and password, with the code that the service printed at its start."""
    state: State = request.app.state.porch
    if not accounts.is_code(state.porch, body.code, state.first_code, FIRST, state.now()):
        raise NotSignedIn("This is not the code: the service printed it where it was started.", field="code")
    account = accounts.make_first(state.porch, body.name, body.password)
    _let_in(request, response, accounts.begin_session(state.porch, account, state.now()))
    return _doc(state, account, False)


def _let_in(request: Request, response: Response, token: str) -> None:
    """The cookie: no script reads it, no other page sends it along, and over TLS it goes over TLS alone."""
    response.set_cookie(
        COOKIE, token, max_age=int(accounts.LONGEST.total_seconds()), httponly=True, samesite="lax",
        secure=request.url.scheme == "https", path=_path(request),
    )  # fmt: skip


def _path(request: Request) -> str:
    state: State = request.app.state.porch
    return state.path or "/"


def _doc(state: State, account: accounts.Account | None, by_itself: bool) -> SessionDoc:
    return SessionDoc(
        who=None
        if account is None
        else WhoDoc(
            account_id=account.account_id, name=account.name, role=account.role, may_import=account.may_change_records
        ),
        by_itself=by_itself,
        first=not accounts.somebody_signs_in(state.porch),
        demo=photos.is_demo(state.records.folder),
        form=form_of_office(state.porch),
    )
