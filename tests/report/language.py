"""The papers in another writing, in a process of its own: `python -m tests.report.language FOLDER` on a folder with the demo's
records tells, as JSON, the words in small letters that are left where every phrase is in capitals, and where."""

from __future__ import annotations

import io
import json
import re
import sqlite3
import sys
from collections.abc import Iterator
from pathlib import Path

import openpyxl
from fluent.syntax import FluentParser, FluentSerializer
from fluent.syntax import ast as written
from fluent.syntax.visitor import Transformer

from rain_porch.core import phrases
from rain_porch.core.phrases import FOLDER


def messages() -> dict[str, written.Message]:
    """Every phrase by its name. AssertionError for one that stands twice, and for what is none."""
    out: dict[str, written.Message] = {}
    for file in sorted((FOLDER / "en").glob("*.ftl")):
        for entry in FluentParser().parse(file.read_text(encoding="utf-8")).body:
            assert not isinstance(entry, written.Junk), f"{file.name}: {entry.content}"
            if isinstance(entry, written.Message):
                assert entry.id.name not in out, f"{entry.id.name} stands twice"
                out[entry.id.name] = entry
    return out


class Loud(Transformer):
    """Every word of ours in capitals, as another language would be; units stay, which the office's form tells."""

    def visit_TextElement(self, node: written.TextElement) -> written.TextElement:
        node.value = re.sub(r"(?<![a-z])(?!(?:sq ft|mi|ft)\b)(?<!sq )[a-z]+", lambda m: m[0].upper(), node.value)
        return node


def texts(of: object) -> Iterator[str]:
    """All that a document shows; names for programs are left out."""
    if isinstance(of, str):
        yield from re.findall(r">([^<>]+)<", of) if "<svg" in of else [of]
    elif isinstance(of, dict):
        for name, value in of.items():
            if name not in ("kind", "name", "page", "id", "accent", "paper", "language", "tone", "link"):
                yield from texts(value)
    elif isinstance(of, list | tuple):
        for value in of:
            yield from texts(value)
    elif callable(of):
        yield from texts(of())


def sheets(book: bytes) -> list[str]:
    """All texts of a workbook that are no formulas."""
    pages = openpyxl.load_workbook(io.BytesIO(book)).worksheets
    cells = (c.value for page in pages for row in page.iter_rows() for c in row)
    return [page.title for page in pages] + [v for v in cells if isinstance(v, str) and not v.startswith("=")]


def words_of_records(db: sqlite3.Connection) -> set[str]:
    """Every word that the records hold, in small letters."""
    out: set[str] = set()
    for table in ("listings", "parcels", "areas", "sources"):
        named = [
            row[1]
            for row in db.execute(f"PRAGMA table_info({table})")
            if row[2] == "TEXT" and row[1] not in ("geometry", "public_remarks")
        ]
        for column in named:
            for (text,) in db.execute(f"SELECT DISTINCT {column} FROM {table} WHERE {column} IS NOT NULL"):
                out.update(re.findall("[a-z]+", str(text).lower()))
    return out


def left_in_the_first(folder: Path) -> dict[str, str]:
    """What is still said in small letters: on all pages of a report, of one for a home that is for sale, in their workbooks, in bulletins
    of all parts and the papers of a look."""
    loudly = {name: FluentSerializer().serialize_entry(Loud().visit(m.clone())) for name, m in messages().items()}
    phrases._written = lambda: loudly  # type: ignore[assignment]

    from rain_porch.app.bulletin.documents import READY, BulletinDoc, BulletinPartDoc
    from rain_porch.app.bulletin.kept import ready
    from rain_porch.app.handover import look_papers
    from rain_porch.app.handover.bulletin_papers import bulletin_model
    from rain_porch.app.market.views import ViewDoc
    from rain_porch.app.office.agent import folders_agent
    from rain_porch.app.records import Records
    from rain_porch.report.layouts import PAGES
    from rain_porch.report.papers import document, xlsx
    from tests.conftest import NOW
    from tests.report.conftest import whole_of

    records = Records(folder, today=lambda: NOW.date())
    with folders_agent(records.snapshot(), now=lambda: NOW) as agent:
        whole, for_sale = whole_of(agent), whole_of(agent, "613 Barge Place")
        made: list[object] = [document(whole, None), document(for_sale, "while_for_sale"), sheets(xlsx(whole))]
        view = ViewDoc(measures=["median_price"], places=["Lantern Hill"], home_kind="detached")
        made += [bulletin_model(agent, ready(layout, view, "LANTERN HILL")) for layout in READY]
        kinds = BulletinPartDoc.model_fields["kind"].annotation.__args__  # type: ignore[union-attr]
        smoothed = view.model_copy(update={"smooth": 3, "whole": True, "measures": ["new_listings"]})
        for of in (view, smoothed):
            parts = [BulletinPartDoc(kind=kind, view=of, days=60) for kind in kinds]
            made.append(bulletin_model(agent, BulletinDoc(title="AUTUMN", parts=parts)))
        look_papers.as_pdf = lambda model: made.append(model) or b""  # what would be set
        search = {"areas": ["Lantern Hill"], "radius_miles": None, "home_kinds": ["detached"]}
        for layout in ("page", "packet"):
            ask = look_papers.LookPaper.model_validate({"search": search, "layout": layout})
            look_papers.paper_of_look(agent, "pdf", ask)
        made.append(sheets(look_papers.paper_of_look(agent, "xlsx", ask)[0]))
        others = words_of_records(agent.records.db)
    records.close()
    # names of people, of tones and of pages
    others |= {"orla", "grayle", "mortgage", "room", "moss", "slate", "cedar", "sheet", *PAGES}
    for key, message in messages().items():  # labels stand within sentences in small letters
        if key.startswith(("field-", "measure-", "grid-line-", "event-")):
            others.update(re.findall("[a-z]+", FluentSerializer().serialize_entry(message).lower()))
    return {
        word: text[:80] for text in texts(made) for word in re.findall(r"\b[a-z]{4,}\b", text) if word not in others
    }


if __name__ == "__main__":
    print(json.dumps(left_in_the_first(Path(sys.argv[1]))))
