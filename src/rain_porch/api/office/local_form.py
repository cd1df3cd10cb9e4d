"""The form of numbers, days, money and sizes."""

from __future__ import annotations

from ...app.office import local_form as forms
from ...app.office.local_form import LocalFormDoc
from ..routing import api_router
from ..state import Porch

router = api_router("local form")


@router.get("/local-form")
def local_form(porch: Porch) -> LocalFormDoc:
    """As the office reads figures."""
    return forms.local_form(porch.agent)


@router.put("/local-form", status_code=204)
def set_local_form(porch: Porch, body: LocalFormDoc) -> None:
    """Choose it for the whole office: screens that are opened and papers that are made from then on have it."""
    forms.set_local_form(porch.agent, body)
