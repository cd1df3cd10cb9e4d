"""Errors of the core as HTTP answers, mapped in this one place."""

from __future__ import annotations

import errno
import sqlite3
from contextlib import suppress
from typing import Any

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from pydantic import BaseModel
from starlette.exceptions import HTTPException

from ..app.office.local_form import form_of_office
from ..core.errors import (
    Ambiguous,
    BadInput,
    Clash,
    NotAllowed,
    NotEnough,
    NotFound,
    NotSignedIn,
    Odd,
    OutOfDate,
    RainPorchError,
    Refused,
)
from ..core.facts.local_form import USUAL, told
from ..store.db import unreadable
from .limits import CutOff

STATUS: dict[type[RainPorchError], int] = {
    BadInput: 422,
    NotFound: 404,
    Ambiguous: 409,
    OutOfDate: 409,
    Clash: 409,
    NotEnough: 422,
    Refused: 422,
    NotSignedIn: 401,
    NotAllowed: 403,
}


# what the framework refuses by itself, in our words
TOLD = {
    404: "There is nothing at this address of the service: see /api/docs.",
    405: "This is not asked for in this way: see /api/docs.",
}


class ErrorDoc(BaseModel):
    """message: what happened and what to do. field: which part of the request, where there is one."""

    message: str
    field: str | None = None
    odd: bool = False  # a question: the same request with `sure` is taken
    clash: bool = False  # somebody changed the same part: the same request on the newest revision takes its place


RESPONSES: dict[int | str, dict[str, Any]] = {
    code: {"model": ErrorDoc, "description": text}
    for code, text in (
        (401, "not signed in"),
        (403, "not allowed"),
        (404, "not in the records"),
        (409, "ambiguous or out of date"),
        (422, "makes no sense"),
    )
}


def install(app: FastAPI) -> None:
    @app.exception_handler(RainPorchError)
    def refused(request: Request, error: RainPorchError) -> JSONResponse:
        field = error.values.get("field")
        body = ErrorDoc(
            message=_told(request, error.message),
            field=field if isinstance(field, str) else None,
            odd=isinstance(error, Odd),
            clash=isinstance(error, Clash),
        )
        return JSONResponse(body.model_dump(), STATUS.get(type(error), 422))

    @app.exception_handler(HTTPException)
    def cut_off(_: Request, error: HTTPException) -> JSONResponse:
        message = TOLD.get(error.status_code, error.detail)
        headers = {**(error.headers or {}), **({"Connection": "close"} if isinstance(error, CutOff) else {})}
        return JSONResponse(ErrorDoc(message=message).model_dump(), error.status_code, headers=headers)

    @app.exception_handler(RequestValidationError)
    def misread(request: Request, error: RequestValidationError) -> JSONResponse:
        first = error.errors()[0]
        where = ".".join(str(p) for p in first["loc"] if p not in ("body", "query", "path")) or "request"
        said = first["msg"].removeprefix("Value error, ")
        return JSONResponse(
            ErrorDoc(message=_told(request, f"{where}: {said}."), field=_sayable(where)).model_dump(), 422
        )

    @app.exception_handler(sqlite3.OperationalError)
    @app.exception_handler(OSError)
    def no_room(request: Request, error: sqlite3.OperationalError | OSError) -> JSONResponse:
        """A disk that is full, or that may not be written: nothing was changed, and it is told what to do."""
        if isinstance(error, OSError):
            ours = error.errno in (errno.ENOSPC, errno.EDQUOT, errno.EROFS, errno.EACCES, errno.EPERM)
        else:
            ours = any(word in str(error) for word in ("full", "readonly"))
        if not ours:
            raise error
        return JSONResponse(
            ErrorDoc(message=unreadable(request.app.state.porch.records.folder, error)).model_dump(), 507
        )

    @app.exception_handler(UnicodeEncodeError)
    def unwritable(_: Request, error: UnicodeEncodeError) -> JSONResponse:
        """Half of a pair of surrogates: JSON can name it, no text can hold it."""
        return JSONResponse(ErrorDoc(message="A text has signs that are none: type it anew.").model_dump(), 422)


def _told(request: Request, message: str) -> str:
    """A message in the office's form of figures; in the usual one where porch.db cannot be asked, which may be what it says."""
    form = USUAL
    with suppress(sqlite3.Error):
        form = form_of_office(request.app.state.porch.porch).form()
    return _sayable(told(message, form))


def _sayable(text: str) -> str:
    return text.encode("utf-8", "replace").decode()
