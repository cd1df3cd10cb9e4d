"""How the agent's papers look, and the pages of their own that go into them."""

from __future__ import annotations

import base64
import hashlib
import io
import re
import secrets
import struct
from typing import Annotated, Any, Literal

from pydantic import Field

from ...core.errors import BadInput, NotFound, Refused
from ...documents.base import Doc, as_known, check_line
from ...records.pictures.photos import kind_of
from ...report.model import Brand, OwnPages
from ...report.pages.own import OWN
from ...report.pictures.ink import readable
from ...report.typesetting import own_picture
from ...store.porch import choices
from ..home import photos
from ..office import sharing
from ..office.agent import Agent
from ..office.choices import agent_card, set_agent_card
from ..office.local_form import local_form
from .mail import check_address
from .pictures import kept_picture

MOST_PAGES, MOST_BYTES, MOST_PIXELS, MOST_FILES = 30, 20_000_000, 60_000_000, 40
FileName = re.compile(r"^[0-9a-f]{32}\.(jpg|png|webp|pdf)$")


class CardDoc(Doc):
    """The agent on paper. colour: the accent, darkened on paper as far as reading needs; logo, portrait: kept pictures."""

    name: str = Field(default="", max_length=100)
    licence: str = Field(default="", max_length=60)
    phone: str = Field(default="", max_length=60)
    email: str = Field(default="", max_length=254)
    contact: str = Field(default="", max_length=200)
    colour: str = Field(default="", pattern=r"^(#[0-9A-Fa-f]{6})?$")
    size: Literal["us-letter", "a4"] = "us-letter"
    logo: str = Field(default="", max_length=60)
    portrait: str = Field(default="", max_length=60)


class WrittenDoc(Doc):
    """A page that the agent writes: paragraphs parted by empty lines, and pictures that were added before."""

    title: str = Field(min_length=1, max_length=80, pattern=r"\S")
    words: str = Field(default="", max_length=8000)
    pictures: list[Annotated[str, Field(pattern=FileName.pattern)]] = Field(default=[], max_length=6)


class OwnPageDoc(Doc):
    """A page or pages of the agent's own: `page` is its name among those of a report. written: what stands on one that was
    written here; None for a file."""

    page: str
    title: str
    pages: int
    written: WrittenDoc | None = None


def set_card(agent: Agent, card: CardDoc) -> None:
    """Keep the card. Raises BadInput for a picture that has not been added, and for what is no line of text."""
    for field in ("name", "licence", "phone", "contact"):
        check_line(field, getattr(card, field))
    if card.email:
        check_address(card.email)
    for field in ("logo", "portrait"):
        file = getattr(card, field)
        if file and not (FileName.match(file) and (agent.records.folder / "photos" / file).is_file()):
            raise BadInput(field, f"There is no picture {file}: add it again.")
    set_agent_card(agent, card.model_dump())


def brand(agent: Agent) -> Brand:
    card = as_known(CardDoc, agent_card(agent))
    return Brand(
        colour=readable(card.colour) if card.colour else Brand().colour,
        logo=_fitted(agent, card.logo, 360, 120, "xMaxYMid"),
        portrait=_fitted(agent, card.portrait, 300, 360, "xMidYMid"),
        size=card.size,
        form=local_form(agent).form(),
    )


def _fitted(agent: Agent, file: str, width: int, height: int, align: str) -> str:
    """A kept picture as SVG, whole, in a box; nothing where it is gone."""
    if not file:
        return ""
    try:
        data, media = photos.own_picture(agent.records.folder, file)
    except NotFound:
        return ""
    inside = f"data:{media};base64,{base64.b64encode(data).decode()}"
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {width} {height}" width="{width}" height="{height}">'
        f'<image href="{inside}" width="{width}" height="{height}" preserveAspectRatio="{align} meet"/></svg>'
    )


def keep_picture(agent: Agent, data: bytes) -> str:
    """Keep a logo or portrait, which is the agent's; its file's name. Refused for what is no JPEG, PNG or WebP, or out of all measure."""
    size = pixels(data)
    if size is not None and size[0] * size[1] > MOST_PIXELS:
        raise Refused(
            f"The picture has {size[0]:,} × {size[1]:,} pixels: save it smaller, a few thousand a side are plenty."
        )
    return sharing.note_file(agent, photos.keep_own(agent.records.folder, data))


def pixels(data: bytes) -> tuple[int, int] | None:
    """Width and height that a PNG, JPEG or WebP says it has; None where it does not say."""
    if data[:8] == b"\x89PNG\r\n\x1a\n" and len(data) >= 24:
        width, height = struct.unpack(">II", data[16:24])
        return int(width), int(height)
    if data[:4] == b"RIFF" and data[12:16] == b"VP8X" and len(data) >= 30:
        return 1 + int.from_bytes(data[24:27], "little"), 1 + int.from_bytes(data[27:30], "little")
    at = 2
    while data[:2] == b"\xff\xd8" and at + 9 < len(data):
        if data[at] != 0xFF:
            at += 1
            continue
        kind = data[at + 1]
        if 0xC0 <= kind <= 0xCF and kind not in (0xC4, 0xC8, 0xCC):
            height, width = struct.unpack(">HH", data[at + 5 : at + 9])
            return int(width), int(height)
        at += 2 + (int.from_bytes(data[at + 2 : at + 4], "big") if kind not in (0xD8, 0x01, 0xFF) else 0)
    return None


def own_pages(agent: Agent) -> list[OwnPageDoc]:
    held: list[dict[str, Any]] = choices.read(agent.porch, agent.owner, choices.OWN_PAGES) or []
    return [OwnPageDoc(**p) for p in held]


def add_own_page(agent: Agent, title: str, data: bytes) -> OwnPageDoc:
    """Keep a PDF or picture as pages of the agent's own. Refused for what cannot be printed."""
    if len(data) > MOST_BYTES:
        raise Refused(
            f"The file has {len(data) / 1e6:.0f} MB, more than {MOST_BYTES // 1_000_000}: make it smaller first."
        )
    held = own_pages(agent)
    if len(held) >= MOST_FILES:
        raise Refused(f"There are {MOST_FILES} files already: take one away first.")
    folder = agent.records.folder
    if data[:5] == b"%PDF-":
        count, name = _pages_of(data), hashlib.blake2b(data, digest_size=16).hexdigest() + ".pdf"
        target = folder / "photos" / name
        target.parent.mkdir(parents=True, exist_ok=True)
        target.write_bytes(data)
        sharing.note_file(agent, name)
    elif kind_of(data[:16]):
        count, name = 1, keep_picture(agent, data)
    else:
        raise Refused("This is no PDF and no JPEG, PNG or WebP picture: save it as one of these and add it again.")
    made = OwnPageDoc(page=OWN + name, title=" ".join(title.split())[:80] or "A page of my own", pages=count)
    kept = [p for p in held if p.page != made.page]
    choices.write(agent.porch, agent.owner, choices.OWN_PAGES, [p.model_dump() for p in [*kept, made]])
    return made


def write_own_page(agent: Agent, written: WrittenDoc, page: str | None = None) -> OwnPageDoc:
    """Keep a page that was written, a new one or in place of `page`. Refused where it is empty, BadInput for a picture that has
    not been added, NotFound for a page that is none."""
    check_line("title", written.title)
    if not written.words.strip() and not written.pictures:
        raise Refused("Nothing stands on this page yet: write something, or add a picture.")
    for file in written.pictures:
        if not (agent.records.folder / "photos" / file).is_file():
            raise BadInput("pictures", f"There is no picture {file}: add it again.")
    held = own_pages(agent)
    if page is not None and page not in [p.page for p in held if p.written]:
        raise NotFound(f"There is no written page {page}.", page=page)
    if page is None and len(held) >= MOST_FILES:
        raise Refused(f"There are {MOST_FILES} pages already: take one away first.")
    made = OwnPageDoc(
        page=page or f"{OWN}{secrets.token_hex(16)}.page", title=written.title.strip(), pages=1, written=written
    )
    kept = [made if p.page == made.page else p for p in held] if page else [*held, made]
    choices.write(agent.porch, agent.owner, choices.OWN_PAGES, [p.model_dump() for p in kept])
    return made


def own_page_picture(agent: Agent, page: str, number: int) -> tuple[bytes, str]:
    """One of the pages of a file as a picture, and its media type. NotFound."""
    held = own_files(agent).get(page)
    if held is None or held.words is not None or not 1 <= number <= held.pages:
        raise NotFound(f"There is no page {number} of {page}.", page=page)
    return own_picture(held.path, number)


def _pages_of(data: bytes) -> int:
    from pypdf import PdfReader  # large, and needed on this occasion alone
    from pypdf.errors import PyPdfError

    try:
        reader = PdfReader(io.BytesIO(data))
        if reader.is_encrypted:
            raise Refused("The PDF is locked with a password: save it without one and add it again.")
        count = len(reader.pages)
    except (PyPdfError, ValueError, KeyError, TypeError, AttributeError, RecursionError) as error:
        raise Refused("The PDF cannot be read: save or print it to PDF anew and add it again.") from error
    if not 1 <= count <= MOST_PAGES:
        raise Refused(f"The PDF has {count:,} pages; at most {MOST_PAGES} go into a report: split it.")
    return count


def take_own_page_away(agent: Agent, page: str) -> None:
    held = own_pages(agent)
    if page not in [p.page for p in held]:
        raise NotFound(f"There is no page {page}.", page=page)
    choices.write(agent.porch, agent.owner, choices.OWN_PAGES, [p.model_dump() for p in held if p.page != page])


def own_files(agent: Agent) -> dict[str, OwnPages]:
    """Page name → its file; those whose file is gone are left out."""
    out = {}
    for p in own_pages(agent):
        if p.written is not None:
            shown = [svg for file in p.written.pictures if (svg := kept_picture(agent.records, file))]
            out[p.page] = OwnPages(p.title, "", 1, p.written.words, shown)
            continue
        path = agent.records.folder / "photos" / p.page.removeprefix(OWN)
        if path.is_file():
            out[p.page] = OwnPages(p.title, str(path.resolve()), p.pages)
    return out
