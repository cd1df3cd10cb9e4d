"""What the agent has set once for all their work."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter
from pydantic import BaseModel, Field

from .errors import RESPONSES
from .state import Porch

router = APIRouter(tags=["choices"], responses=RESPONSES)
ColumnName = Annotated[str, Field(pattern=r"^(fact:)?[a-z_]{1,60}$")]


class ColumnsDoc(BaseModel):
    """Columns of the table of homes, in order; none: as usual."""

    columns: list[ColumnName] = Field(max_length=80)


@router.get("/columns")
def columns(porch: Porch) -> ColumnsDoc:
    return ColumnsDoc(columns=porch.workups.chosen_columns())


@router.put("/columns")
def set_columns(porch: Porch, body: ColumnsDoc) -> ColumnsDoc:
    porch.workups.choose_columns(body.columns)
    return body
