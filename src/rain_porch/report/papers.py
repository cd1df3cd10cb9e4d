"""From pages to paper: the document model goes into the Typst template as JSON, PDF or page pictures come out."""

from __future__ import annotations

import datetime as dt
from collections.abc import Callable, Mapping, Sequence
from dataclasses import replace
from pathlib import Path
from typing import Any, Literal

from ..core.errors import BadInput
from ..core.facts.dates import said
from ..core.facts.local_form import OwnWords
from ..core.phrases import LANGUAGE, phrase
from .blocks import Nothing
from .layouts import LAYOUTS, PAGES
from .local import in_form
from .model import Brand, ReportInput
from .pages.opening import with_contents
from .pages.own import OWN, own_pages
from .pictures import ink
from .typesetting import compiled
from .webpage import web_page
from .wording import day
from .workbooks.workbook import workbook

PictureForm = Literal["svg", "png"]
PICTURE_MEDIA: Mapping[PictureForm, str] = {"svg": "image/svg+xml", "png": "image/png"}


def pages_of(given: ReportInput, layout: str | None) -> Sequence[str]:
    """The names of a layout's pages; without a layout those that the workup has chosen. BadInput."""
    if layout is None:
        return given.paper.pages
    if layout not in LAYOUTS:
        raise BadInput("layout", f"There is no layout “{layout}”: use one of {', '.join(LAYOUTS)}.")
    return LAYOUTS[layout]


def document(given: ReportInput, layout: str | None) -> dict[str, Any]:
    """The document model of a layout. Pages that have nothing to say are left out.

    BadInput where none of them has anything to say: it tells why.
    """
    names = pages_of(given, layout)
    pages = _pages(names, given)
    if not pages:
        raise BadInput("pages", " ".join(dict.fromkeys(without_words(given, layout).values())))
    return _model(given, pages)


def _pages(names: Sequence[str], given: ReportInput) -> list[dict[str, Any]]:
    """The pages of these names that have something to say."""
    made = (_made(name, given) for name in names)
    return [page for part in made if not isinstance(part, Nothing) for page in part]


def _model(given: ReportInput, pages: list[dict[str, Any]]) -> dict[str, Any]:
    card = given.agent
    model = {
        **_of_every_page(),
        "title": phrase("paper-title", home=given.title),
        "address": given.title,
        "by": card.get("name", ""),
        "by-line": by_line(card),
        "accent": given.brand.colour,
        "paper": given.brand.size,
        "foot": phrase(
            "paper-foot", day=day(given.price["effective_date"]), through=said(given.through), made=said(given.made_on)
        ),
        "pages": with_contents(pages),
    }
    return in_form(model, given.brand.form)


def _of_every_page() -> dict[str, str]:
    """The language of the words, and what stands for the pictures of a brand."""
    return {"language": LANGUAGE, "logo-alt": phrase("logo-alt"), "portrait-alt": phrase("portrait-alt")}


def without_words(given: ReportInput, layout: str | None) -> dict[str, str]:
    """The pages of a layout that have nothing to say and will not be printed: name → why, for the agent."""
    made = {name: _made(name, given) for name in pages_of(given, layout)}
    return {name: part.why for name, part in made.items() if isinstance(part, Nothing)}


def _made(name: str, given: ReportInput) -> list[dict[str, Any]] | Nothing:
    """The page of a name, or the several that it stands for, with the agent's comment at their foot."""
    if name.startswith(OWN):
        made: Any = own_pages(given, name)
    elif name == "bulletin" and given.bulletin:
        made = list(given.bulletin)
    else:
        made = PAGES[name](given)
    if isinstance(made, Nothing):
        return made
    pages = list(made) if isinstance(made, list) else [made]
    note = given.paper.notes.get(name, "").strip()
    return [*pages[:-1], {**pages[-1], "note": OwnWords(note)}] if note else pages


def bulletin_document(
    title: str, card: Mapping[str, str], brand: Brand, made_on: dt.date, through: dt.date, pages: list[dict[str, Any]]
) -> dict[str, Any]:
    """The document model of a bulletin. card: the agent's."""
    foot = phrase("bulletin-foot", through=said(through), made=said(made_on))
    model = {
        **_of_every_page(),
        "title": OwnWords(title), "address": title, "by": card.get("name", ""), "by-line": by_line(card), "accent": brand.colour,
        "paper": brand.size, "foot": foot, "pages": [{**pages[0], "logo": brand.logo}, *pages[1:]],
    }  # fmt: skip
    return in_form(model, brand.form)


def by_line(card: Mapping[str, str]) -> str:
    """The agent's name, phone and mail, for every page's foot."""
    return " · ".join(v for k in ("name", "phone", "email", "contact") if (v := card.get(k)))


def as_pdf(model: dict[str, Any]) -> bytes:
    return bytes(compiled(model, "pdf"))


def as_pictures(model: dict[str, Any], form: PictureForm = "png") -> list[bytes]:
    """Every sheet as a picture. SVG is made in a fifth of the time, and sharp on any screen."""
    made = compiled(model, form)
    return [bytes(m) for m in made] if isinstance(made, list) else [bytes(made)]


def pdf(given: ReportInput, layout: str | None = None) -> bytes:
    return as_pdf(document(given, layout))


def page_pictures(given: ReportInput, layout: str | None, number: int, form: PictureForm = "png") -> list[bytes]:
    """One page of a layout, numbered from 1, just as it will print, each of its sheets; as PNG at twice the screen's resolution.
    None for a page that has nothing to say, BadInput for one that is not there."""
    model = page_document(given, layout, number)
    return [] if model is None else as_pictures(model, form)


def page_document(given: ReportInput, layout: str | None, number: int) -> dict[str, Any] | None:
    """The document model of one page of a layout. Alone, it does not know its number among all; a letter names the pages that follow
    it all the same."""
    names = pages_of(given, layout)
    if not 1 <= number <= len(names):
        raise BadInput("page", f"There is no page {number}: the layout has {len(names)}.")
    made = _made(names[number - 1], given)
    if isinstance(made, Nothing):
        return None
    following = _pages(names[number:], given) if names[number - 1] == "letter" else []
    model = _model(given, [*made, *following])
    return {**model, "pages": model["pages"][: len(made)], "sheet": ""}


def html(given: ReportInput, layout: str | None = None) -> bytes:
    return web_page(document(given, layout), document(replace(given, width=ink.NARROW), layout)).encode()


def xlsx(given: ReportInput, layout: str | None = None) -> bytes:
    """The workbook; its sheets are the same for every layout."""
    pages_of(given, layout)
    return workbook(given)


FORMS: Mapping[str, Callable[[ReportInput, str | None], bytes]] = {".pdf": pdf, ".html": html, ".xlsx": xlsx}


def write_report(given: ReportInput, layout: str | None, out: Path) -> int:
    """Write the report as a file; its form follows the ending. Returns the number of its pages that have something to say."""
    make = FORMS.get(out.suffix.lower())
    if make is None:
        raise BadInput("out", f"{out.name}: reports are written as {', '.join(FORMS)}.")
    out.write_bytes(make(given, layout))
    return len(pages_of(given, layout)) - len(without_words(given, layout))
