"""What the agent has set once for all their work."""

from __future__ import annotations

from typing import Annotated

from pydantic import BaseModel, Field

from ...app.office import choices as chosen
from ..routing import api_router
from ..state import Porch

router = api_router("choices")
ColumnName = Annotated[str, Field(pattern=r"^((fact|prices):)?[a-z_]{1,60}$")]


class ColumnsDoc(BaseModel):
    """Columns of the table of homes, in order, and of the table of land; none: as usual."""

    columns: list[ColumnName] = Field(max_length=80)
    land: list[ColumnName] = Field([], max_length=80)


@router.get("/columns")
def columns(porch: Porch) -> ColumnsDoc:
    columns, land = chosen.chosen_columns(porch.agent)
    return ColumnsDoc(columns=columns, land=land)


@router.put("/columns")
def set_columns(porch: Porch, body: ColumnsDoc) -> ColumnsDoc:
    chosen.choose_columns(porch.agent, body.columns, body.land)
    return body
