"""Files on their way into the records: brought, mapped, planned, accepted or let go."""

from __future__ import annotations

import dataclasses
import shutil
from typing import Annotated, Any, Literal

from fastapi import Path, Query, Request
from fastapi.concurrency import run_in_threadpool
from pydantic import BaseModel, Field

from ...app.incoming import files
from ...core.errors import Refused
from ...core.facts.fields import BY_NAME
from ...core.facts.people import WHO_LIVES_THERE, tells_who_lives_there
from ...core.facts.words import HomeKind, Status
from ...core.intake.matching import SURE
from ...documents.base import Worded
from ...documents.imports import FormReadDoc, WordReadDoc
from ...records import previewing
from ...records.mapping.mapping import Part, takes_own
from ...records.mapping.proposing import own_of
from ..limits import parts_of_file
from ..routing import api_router
from ..state import Files, Number, Porch

router = api_router("records")
FileId = Annotated[str, Path(pattern="^[0-9a-f]{12}$")]
KindName = Literal["listings", "history", "parcels", "transfers", "assessments", "areas", "series", "photos"]
SAMPLES = 4
HOME_KINDS = [k.value.replace("_", " ") for k in HomeKind if k is not HomeKind.UNKNOWN]


class PartDoc(BaseModel):
    """Where one field comes from; see docs/records.md, Mappings."""

    field: str = Field(max_length=80)
    columns: list[str] = Field(default=[], max_length=8)
    how: Literal["join", "date", "sum", "difference", "first"] = "join"
    between: str = Field(" ", max_length=20)
    times: float = 1.0
    values: dict[str, str] = {}
    constant: str | None = Field(None, max_length=500)
    form: Literal["", "point", "comma", "mdy", "dmy"] = ""
    take: str = Field("", max_length=40)


class ColumnDoc(BaseModel):
    """words: the distinct words of a column that has few. own: the name under which it would be kept as a field of the
    office's own, where that can be. why_not: where it may never be."""

    name: str
    own: str | None = None
    why_not: str = ""
    samples: list[str]
    words: list[str]


class GuessDoc(BaseModel):
    part: PartDoc
    sure: float
    why: str


class TargetDoc(BaseModel):
    name: str
    label: str
    reso: str
    kind: str
    unit: str


class PreviewDoc(BaseModel):
    """parts: the mapping that would be used; guesses: all that was thought of, with how sure it is; forms: how numbers
    and dates are written; words: what the source's words for statuses and kinds of home are taken for, those that nobody
    can tell first; both as far as the first rows tell."""

    file_id: str
    name: str
    kind: str
    source: str
    remembered: bool
    columns: list[ColumnDoc]
    parts: list[PartDoc]
    guesses: list[GuessDoc]
    fields: list[TargetDoc]
    forms: list[FormReadDoc]
    words: list[WordReadDoc]
    statuses: list[str] = [s.value for s in Status]
    home_kinds: list[str] = HOME_KINDS
    sure_enough: float = SURE


class PlanRequest(BaseModel):
    kind: KindName | None = None
    source: str = Field(min_length=1, max_length=120)
    parts: list[PartDoc] | None = Field(None, max_length=400)
    places: Literal["", "swap", "new"] = ""


class IncomingDoc(BaseModel):
    """samples: rows to look at, by outcome. mends: the import whose kept file this is."""

    file_id: str
    name: str
    mends: int | None = None
    stage: str
    rows: int
    result: dict[str, Any] | None
    samples: dict[str, list[dict[str, Any]]]
    message: Worded


def _doc(file: files.Incoming) -> IncomingDoc:
    return IncomingDoc(
        file_id=file.file_id, name=file.shown or file.path.name, stage=file.stage, rows=file.rows, result=file.result,
        samples=file.samples, message=file.message, mends=file.mends,
    )  # fmt: skip


def _part_doc(part: Part) -> PartDoc:
    return PartDoc(**part.as_json())


@router.post("/records/incoming", openapi_extra={"requestBody": {"content": {"application/octet-stream": {}}}})
async def bring(
    held: Files, request: Request, name: Annotated[str, Query(min_length=1, max_length=300)]
) -> IncomingDoc:
    """A file, as it is, in the body of the request. Of one that holds several tables, each waits for itself; the first is
    answered."""
    file = held.place(name)
    size = 0
    try:
        with file.path.open("wb") as out:
            async for part in parts_of_file(request):
                size += len(part)
                if size > files.MAX_BYTES:
                    break
                out.write(part)
    except BaseException:  # the sender went away, or was too slow
        held.cancel(file.file_id)
        raise
    if size == 0 or size > files.MAX_BYTES:
        held.cancel(file.file_id)
        raise Refused("The file is empty." if size == 0 else "The file is larger than 4 GB: bring it in parts.")
    return _doc(await run_in_threadpool(held.spread, file.file_id))


@router.get("/records/incoming")
def waiting(held: Files) -> list[IncomingDoc]:
    return [_doc(f).model_copy(update={"samples": {}}) for f in held.waiting()]


@router.post("/records/imports/{import_id}/mend")
def mend(held: Files, porch: Porch, import_id: Number) -> IncomingDoc:
    """The kept file of an import waits again, so that its mapping can be mended."""
    return _doc(held.mend(porch.live, import_id))


@router.get("/records/incoming/{file_id}")
def stage_of(held: Files, file_id: FileId) -> IncomingDoc:
    return _doc(held.get(file_id))


@router.get("/records/incoming/{file_id}/preview")
def preview(
    held: Files,
    porch: Porch,
    file_id: FileId,
    kind: KindName | None = None,
    source: Annotated[str | None, Query(max_length=120)] = None,
) -> PreviewDoc:
    """How the file would be read: its columns with samples, and the mapping last looked at, else remembered or proposed."""
    file = held.get(file_id)
    if file.stage == "unpacking" or file.fault is not None:
        raise Refused(file.message or "It is being unpacked.")
    path = file.path
    source, kind_now = source or file.source or path.stem, kind or file.kind
    chosen = file.mapping if (kind_now, source) == (file.kind, file.source) else None
    with porch.state.records.connection() as db:
        seen = previewing.preview(db, path, source, kind_now, chosen)
    columns = []
    for i, column in enumerate(seen.columns):
        cells = [row[i].strip() for row in seen.sample if i < len(row) and row[i].strip()]
        distinct = list(dict.fromkeys(c[:80] for c in cells))
        columns.append(
            ColumnDoc(
                name=column, samples=distinct[:SAMPLES], words=distinct if len(distinct) <= 24 else [],
                own=own_of(column, seen.profiles[i]) if takes_own(previewing.fields_of(seen.kind)) else None,
                why_not=WHO_LIVES_THERE if tells_who_lives_there(column) else "",
            )
        )  # fmt: skip
    return PreviewDoc(
        file_id=file_id, name=file.shown or path.name, kind=seen.kind, source=source, remembered=seen.remembered, columns=columns,
        parts=[_part_doc(p) for p in seen.parts],
        forms=[FormReadDoc(**dataclasses.asdict(r)) for r in previewing.forms_of_preview(path, seen)],
        words=[WordReadDoc(**dataclasses.asdict(w)) for w in previewing.words_of_preview(seen)],
        guesses=[GuessDoc(part=_part_doc(g.part), sure=g.sure, why=g.why) for g in seen.guesses],
        fields=[
            TargetDoc(name=f.name, label=f.label, reso=f.reso, kind=f.kind.value, unit=f.unit)
            for f in (*previewing.fields_of(seen.kind), *(BY_NAME[c.own] for c in columns if c.own))
        ],
    )  # fmt: skip


@router.post("/records/incoming/{file_id}/plan")
def plan(held: Files, file_id: FileId, asked: PlanRequest) -> IncomingDoc:
    """Start to work out what the file would change; ask for its stage until it is "planned"."""
    mapping = {"parts": [p.model_dump() for p in asked.parts]} if asked.parts else None
    return _doc(held.plan(file_id, asked.kind, asked.source, mapping, held.now(), asked.places))


@router.post("/records/incoming/{file_id}/accept")
def accept(held: Files, file_id: FileId) -> IncomingDoc:
    return _doc(held.accept(file_id))


@router.delete("/records/incoming/{file_id}")
def let_go(held: Files, file_id: FileId) -> list[IncomingDoc]:
    held.cancel(file_id)
    return waiting(held)


class RoomDoc(BaseModel):
    free_mb: int


@router.get("/records/room")
def room(held: Files) -> RoomDoc:
    """How much the disk of the data folder can still take."""
    return RoomDoc(free_mb=shutil.disk_usage(held.folder).free // 1_000_000)
