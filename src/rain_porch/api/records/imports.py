"""The records: how many, how fresh, what came in and what was wrong with it; feeds; and out again."""

from __future__ import annotations

import csv
import datetime as dt
import io
import tempfile
from pathlib import Path
from typing import Annotated, Any, Literal

from fastapi import Path as PathParameter
from fastapi import Request, Response
from fastapi.responses import FileResponse
from pydantic import BaseModel, Field
from starlette.background import BackgroundTask

from ...app import schedule
from ...app.incoming import outcomes
from ...app.incoming.fetching import line
from ...app.office import accounts
from ...app.snapshot import freshness
from ...core.errors import BadInput, NotFound
from ...core.intake.parsing import guarded
from ...documents.imports import ImportDoc, UndoneDoc
from ...records import exporting, inbox
from ...records.feeds.feed import pull
from ...records.files import kept_files
from ...store import health
from ...store.records.incoming import feeds, imports
from ...store.records.incoming import inbox as store_inbox
from ..routing import api_router
from ..state import Number, Porch, State

router = api_router("records")
ALL_ROWS = 1_000_000


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
    undone_at: str | None
    kept: bool = Field(False, description="its file is kept: its mapping can be mended")


class SourceRow(BaseModel):
    """through: the newest event among its listings."""

    name: str
    kinds: str | None
    imports: int
    last_import: str | None
    listings: int
    through: str | None


class FeedRow(BaseModel):
    address: str
    source: str
    read_to: str | None
    last_pulled_at: str | None
    broken_off: bool


class InboxFile(BaseModel):
    """held: it waits for a person; outcome says why, or what came in."""

    source: str
    name: str
    looked_at: str
    outcome: str
    held: bool


class InboxDoc(BaseModel):
    """folder: what is put into a folder of a source's name in it comes in by itself; "" for who may bring nothing in."""

    folder: str
    files: list[InboxFile]


class InboxRequest(BaseModel):
    again_every: schedule.Rhythm | None = Field(None, description="minutes until it is looked at again, and so on")


class RecordsDoc(BaseModel):
    counts: dict[str, int]
    through: dt.date | None
    imports: list[ImportRow]
    sources: list[SourceRow]
    feeds: list[FeedRow]
    inbox: InboxDoc


class PullRequest(BaseModel):
    address: str = Field(min_length=8, max_length=500)
    token: str = Field("", max_length=2000)
    source: str | None = Field(None, max_length=120)
    again_every: schedule.Rhythm | None = Field(None, description="minutes until it is pulled again, and so on")


class Health(BaseModel):
    """records: their version, which every import raises."""

    status: Literal["ok"]
    records: int


@router.get("/health")
def service_health(request: Request) -> Health:
    """Whether the service answers and its databases can be read: for whatever watches over it."""
    state: State = request.app.state.porch
    accounts.all_accounts(state.porch)
    return Health(status="ok", records=state.records.snapshot().stamp[0])


class RecordsStandingDoc(BaseModel):
    """On which records all figures stand: their version, the newest import among them and when it was taken in. is_behind: newer
    records are there and are being read, while these go on being shown."""

    version: int
    is_behind: bool
    newest_import: str | None
    taken_in: dt.datetime | None


@router.get("/records/standing")
def standing(porch: Porch) -> RecordsStandingDoc:
    newest = imports.newest_import(porch.records.db)
    return RecordsStandingDoc(
        version=porch.records.stamp[0],
        is_behind=porch.state.records.is_behind(porch.records),
        newest_import=newest[0] if newest else None,
        taken_in=dt.datetime.fromisoformat(newest[1]) if newest else None,
    )


@router.get("/records")
def records(porch: Porch) -> RecordsDoc:
    db, kept = porch.live, kept_files.kept_numbers(porch.records.folder)
    return RecordsDoc(
        **freshness(porch.records),
        imports=[ImportRow(**r, kept=r["import_id"] in kept) for r in imports.list_imports(db)],
        sources=[SourceRow(**r) for r in health.sources(db)],
        feeds=[FeedRow(**r) for r in feeds.all_feeds(db)],
        inbox=_inbox(porch),
    )


def _inbox(porch: Porch) -> InboxDoc:
    files = [InboxFile(**r) for r in store_inbox.files(porch.live)]
    account = accounts.read_account(porch.state.porch, porch.agent.account_id)
    return InboxDoc(
        folder=str(inbox.folder_of(porch.records.folder)) if account.may_change_records else "", files=files
    )


def _again(porch: Porch, kind: str, details: dict[str, Any], minutes: int | None) -> None:
    """Plan work to come back by itself, where that is asked."""
    if minutes is not None:
        due = porch.agent.now() + dt.timedelta(minutes=minutes)
        schedule.plan_once(porch.agent, kind, details, minutes, due)
        porch.state.schedule.wake()


@router.post("/records/inbox")
def look_into_inbox(porch: Porch, asked: InboxRequest) -> InboxDoc:
    """Bring in what is new in the watched folder, on a connection of its own: nobody waits for it."""
    inbox.folder_of(porch.records.folder).mkdir(exist_ok=True)
    with porch.state.records.connection() as db:
        inbox.take_in(db, porch.records.folder, porch.agent.now())
    _again(porch, "inbox", {}, asked.again_every)
    return _inbox(porch)


class ReportedRowDoc(BaseModel):
    """original: the row as it stood, by the file's heads."""

    row_number: int
    outcome: str
    reasons: list[str]
    original: dict[str, Any]


@router.get("/records/imports/{import_id}/rows")
def reported_rows(porch: Porch, import_id: Number) -> list[ReportedRowDoc]:
    """Rows of an import that were rejected, or in which something was blanked or marked suspect."""
    return [ReportedRowDoc(**row) for row in imports.reported_rows(porch.live, import_id)]


@router.get("/records/imports/{import_id}/rejects.csv", response_class=Response)
def rejects(porch: Porch, import_id: Number) -> Response:
    """The rejected rows as they stood in the file, with row and reason before them, to be mended and brought in again."""
    rows = [r for r in imports.reported_rows(porch.live, import_id, ALL_ROWS) if r["outcome"] == "rejected"]
    if not rows:
        raise NotFound(f"Import {import_id} rejected nothing.", import_id=import_id)
    originals = [r["original"] for r in rows]
    columns = list(dict.fromkeys(name for o in originals for name in o))
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(["Row in the file", "Why it was rejected", *map(guarded, columns)])
    for r, o in zip(rows, originals, strict=True):
        writer.writerow([r["row_number"], "; ".join(r["reasons"]), *(guarded(str(o.get(c, ""))) for c in columns)])
    return Response(
        out.getvalue(),
        media_type="text/csv; charset=utf-8",
        headers={"Content-Disposition": f'attachment; filename="rejects-{import_id}.csv"'},
    )


class UnderWayDoc(BaseModel):
    """An import that is being taken back: done of its records so far, of how many."""

    import_id: int
    done: int
    of: int


@router.post("/records/imports/{import_id}/undo")
def undo(porch: Porch, import_id: Number) -> UndoneDoc:
    """Take an import back; how far it is tells `GET /records/undoing`."""
    with porch.state.records.connection() as db:
        return outcomes.undo_doc(porch.state.undoing.undo(porch.records.folder, db, import_id, porch.agent.now()))


@router.get("/records/undoing")
def undoing(porch: Porch) -> list[UnderWayDoc]:
    """Imports that are being taken back."""
    return [UnderWayDoc(import_id=x.import_id, done=x.done, of=x.of) for x in porch.state.undoing.under_way()]


@router.delete("/records/imports/{import_id}/undo", status_code=204)
def stop_undo(porch: Porch, import_id: Number) -> None:
    """Stop taking an import back: everything stays as it was."""
    porch.state.undoing.stop(import_id)


@router.post("/records/feed")
def pull_feed(porch: Porch, asked: PullRequest) -> ImportDoc:
    """Pull what is new from a feed of listings, on a connection of its own: nobody waits for it."""
    records, nearby = porch.state.records, porch.state.feeds_nearby()
    with records.connection() as db:
        result = pull(
            db, asked.address, asked.token,
            folder=records.folder, now=porch.agent.now(), source=asked.source, **line(nearby),
        )  # fmt: skip
    details = {"address": asked.address, "token": asked.token, "source": asked.source or "", "nearby": nearby}
    _again(porch, "feed", details, asked.again_every)
    return outcomes.import_doc(result)


@router.get("/records/export/{kind}.{ending}", response_class=FileResponse)
def export(
    porch: Porch,
    kind: Annotated[str, PathParameter(max_length=20)],
    ending: Literal["csv", "json", "geojson", "xlsx"],
) -> FileResponse:
    """All records of a kind, in the form that the import reads (or a workbook for people)."""
    if kind not in exporting.KINDS:
        raise BadInput("kind", f"There are no records of a kind “{kind}”: name one of {', '.join(exporting.KINDS)}.")
    file = Path(tempfile.mkdtemp(dir=porch.records.folder)) / f"{kind}.{ending}"
    try:
        with porch.state.records.connection() as db:
            exporting.export(db, kind, file)
    except BaseException:
        _forget(file)
        raise
    return FileResponse(file, filename=file.name, background=BackgroundTask(_forget, file))


def _forget(file: Path) -> None:
    file.unlink(missing_ok=True)
    file.parent.rmdir()
