"""The records: how many, how fresh, what came in and what was wrong with it."""

from __future__ import annotations

import datetime as dt
from typing import Any

from fastapi import APIRouter
from pydantic import BaseModel

from ..store import imports
from ..workups.records import freshness
from .errors import RESPONSES
from .state import Number, Porch

router = APIRouter(tags=["records"], responses=RESPONSES)


class ImportRow(BaseModel):
    import_id: int
    source: str
    kind: str
    file_name: str
    finished_at: str
    rows: int
    new: int
    changed: int
    same: int
    suspect: int
    rejected: int
    reasons: dict[str, int]


class RecordsDoc(BaseModel):
    counts: dict[str, int]
    through: dt.date | None
    imports: list[ImportRow]


@router.get("/records")
def records(porch: Porch) -> RecordsDoc:
    return RecordsDoc(
        **freshness(porch.records), imports=[ImportRow(**r) for r in imports.list_imports(porch.records.db)]
    )


@router.get("/records/imports/{import_id}/rows")
def reported_rows(porch: Porch, import_id: Number) -> list[dict[str, Any]]:
    """Rows of an import that were rejected, or in which something was blanked or marked suspect."""
    return imports.reported_rows(porch.records.db, import_id)
