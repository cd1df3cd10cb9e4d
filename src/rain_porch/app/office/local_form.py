"""The form in which the office reads numbers, days, money and sizes, as its manager has chosen it."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from ...core.errors import BadInput, NotAllowed
from ...core.facts.local_form import USUAL, LocalForm
from ...documents.base import Doc, Line, as_known
from ...store.db import Db
from ...store.porch import choices
from .agent import FOLDERS_OWNER, Agent

_NAME = "local form"


class LocalFormDoc(Doc):
    """numbers and days by an example; sign: of money, such as $ or kr; sizes: in which sizes and distances are shown. What is
    kept and what programs read stays in dollars' amounts, feet and miles: amounts are never changed into another money."""

    numbers: Literal["1,234.5", "1.234,5", "1 234,5", "1’234.5"] = "1,234.5"
    days: Literal["Aug 31, 2026", "31 Aug 2026", "2026-08-31"] = "Aug 31, 2026"
    sign: Annotated[Line, Field(min_length=1, max_length=4)] = USUAL.sign
    sign_stands: Literal["before", "after"] = "before"
    sizes: Literal["feet", "metres"] = "feet"

    def form(self) -> LocalForm:
        return LocalForm(**self.model_dump())


def local_form(agent: Agent) -> LocalFormDoc:
    return form_of_office(agent.porch)


def form_of_office(porch: Db) -> LocalFormDoc:
    return as_known(LocalFormDoc, choices.read(porch, FOLDERS_OWNER, _NAME))


def set_local_form(agent: Agent, form: LocalFormDoc) -> None:
    """For the whole office. NotAllowed for who is no manager, BadInput for a sign that would be read as a number."""
    if not agent.is_manager:
        raise NotAllowed("Only a manager chooses the form of figures for the office.", field="numbers")
    sign = form.sign.strip()
    if not sign or any(c.isdecimal() or c in ".,-−+%×÷" for c in sign):
        raise BadInput("sign", f"“{form.sign}” is no sign of money: write one such as $, € or kr.")
    choices.write(agent.porch, FOLDERS_OWNER, _NAME, form.model_copy(update={"sign": sign}).model_dump(mode="json"))
