"""The agent's papers: pictures and own pages that can be printed, and those that cannot; colours that can be read."""

from __future__ import annotations

import io
import re
import struct

import pytest
from hypothesis import given as let
from hypothesis import strategies as st
from PIL import Image
from pypdf import PdfReader, PdfWriter

from rain_porch.app.handover import branding
from rain_porch.app.handover.branding import (
    CardDoc,
    WrittenDoc,
    add_own_page,
    keep_picture,
    own_page_picture,
    own_pages,
    pixels,
    set_card,
    take_own_page_away,
    write_own_page,
)
from rain_porch.app.handover.pictures import framed
from rain_porch.app.handover.report_input import report_input
from rain_porch.core.errors import BadInput, NotFound, Refused
from rain_porch.report import papers
from rain_porch.report.pictures.ink import readable
from tests.app.workup.test_changes import begun, change


def picture(form: str = "PNG", size: tuple[int, int] = (300, 100)) -> bytes:
    out = io.BytesIO()
    Image.new("RGB", size, "#3E6A4B").save(out, form)
    return out.getvalue()


def leaves(n: int, password: str = "") -> bytes:
    writer = PdfWriter()
    for _ in range(n):
        writer.add_blank_page(width=300, height=500)
    if password:
        writer.encrypt(password)
    out = io.BytesIO()
    writer.write(out)
    return out.getvalue()


@let(st.from_regex(r"\A#[0-9A-F]{6}\Z"))
def test_every_colour_can_be_read_on_white(colour):
    def part(c: int) -> float:
        c_ = c / 255
        return c_ / 12.92 if c_ <= 0.03928 else ((c_ + 0.055) / 1.055) ** 2.4

    made = readable(colour)
    r, g, b = (part(int(made[i : i + 2], 16)) for i in (1, 3, 5))
    assert 1.05 / (0.2126 * r + 0.7152 * g + 0.0722 * b + 0.05) >= 4.49
    assert readable(made) == made


def test_own_pages_stand_where_they_are_placed(agent):
    n = begun(agent)
    promise = add_own_page(agent, "Our promise", leaves(2))
    card = add_own_page(agent, "A card", picture("JPEG"))
    change(
        agent,
        n,
        change="set_paper",
        paper={"pages": [card.page, "summary", promise.page], "notes": {"summary": "Call me."}},
    )
    made = PdfReader(io.BytesIO(papers.pdf(report_input(agent, n))))
    assert len(made.pages) == 4
    text = [p.extract_text() for p in made.pages]
    assert "630 Hedgerow Terrace" in text[1] and "Call me." in text[1] and not text[0].strip() and not text[3].strip()
    assert papers.html(report_input(agent, n)).count(b"data:image/") >= 5
    take_own_page_away(agent, promise.page)
    assert [p.title for p in own_pages(agent)] == ["A card"]
    assert len(PdfReader(io.BytesIO(papers.pdf(report_input(agent, n)))).pages) == 2
    assert "has been taken away" in papers.without_words(report_input(agent, n), None)[promise.page]
    with pytest.raises(NotFound):
        take_own_page_away(agent, promise.page)


@pytest.mark.parametrize(
    ("data", "why"),
    [
        (b"<svg xmlns='http://www.w3.org/2000/svg'><script>alert(1)</script></svg>", "no PDF and no JPEG"),
        (b"%PDF-1.7 and then nothing", "cannot be read"),
        (leaves(3, "secret"), "locked with a password"),
        (leaves(31), "at most 30"),
        (b"", "no PDF"),
        (
            b"\x89PNG\r\n\x1a\n" + b"\x00\x00\x00\rIHDR" + struct.pack(">II", 12_000, 9_000) + b"\x08\x02\x00\x00\x00",
            "pixels",
        ),
    ],
    ids=["svg", "broken", "locked", "long", "empty", "vast"],
)
def test_what_cannot_be_printed_is_refused(agent, data, why):
    with pytest.raises(Refused, match=why):
        add_own_page(agent, "x", data)
    assert own_pages(agent) == []


@pytest.mark.parametrize("form", ["PNG", "JPEG"])
def test_pictures_tell_their_size(form):
    assert pixels(picture(form, (321, 123))) == (321, 123)
    assert pixels(b"no picture") is None


def test_logo_colour_and_paper_come_onto_the_cover(agent):
    n = begun(agent)
    logo = keep_picture(agent, picture())
    set_card(agent, CardDoc(name="Perrin Vale", colour="#FFD700", logo=logo, portrait=logo, size="a4"))
    change(agent, n, change="set_paper", paper={"pages": ["cover"], "cover_price": False})
    given = report_input(agent, n)
    made = PdfReader(io.BytesIO(papers.pdf(given))).pages[0]
    assert [round(float(v)) for v in made.mediabox[2:]] == [595, 842]
    assert given.brand.colour == readable("#FFD700") and branding.brand(agent).logo.startswith("<svg")
    assert papers.document(given, None)["pages"][0]["price"] is None
    with pytest.raises(BadInput, match="add it again"):
        set_card(agent, CardDoc(logo="../../etc/passwd"))


def test_a_page_is_written_here_and_written_anew(agent):
    n = begun(agent)
    shown = keep_picture(agent, picture())
    page = write_own_page(
        agent, WrittenDoc(title="How I work", words="I answer.\n\nI come along.", pictures=[shown])
    ).page
    change(agent, n, change="set_paper", paper={"pages": ["summary", page]})
    text = PdfReader(io.BytesIO(papers.pdf(report_input(agent, n)))).pages[1].extract_text()
    assert "How I work" in text and "I answer." in text and "I come along." in text
    write_own_page(agent, WrittenDoc(title="How we work", words="We answer."), page)
    assert "We answer." in PdfReader(io.BytesIO(papers.pdf(report_input(agent, n)))).pages[1].extract_text()
    assert [p.title for p in own_pages(agent)] == ["How we work"]
    for wrong, why in (
        (WrittenDoc(title="x"), "Nothing stands"),
        (WrittenDoc(title="x", pictures=["0" * 32 + ".png"]), "no picture"),
    ):
        with pytest.raises((Refused, BadInput), match=why):
            write_own_page(agent, wrong)
    with pytest.raises(NotFound):
        write_own_page(agent, WrittenDoc(title="x", words="y"), "own:" + "0" * 32 + ".page")
    take_own_page_away(agent, page)


def test_a_file_s_pages_are_seen_before_they_are_printed(agent):
    promise = add_own_page(agent, "Our promise", leaves(2))
    data, media = own_page_picture(agent, promise.page, 2)
    assert media == "image/png" and data.startswith(b"\x89PNG")
    for page, number in ((promise.page, 3), ("own:nothing", 1)):
        with pytest.raises(NotFound):
            own_page_picture(agent, page, number)
    take_own_page_away(agent, promise.page)


def test_a_damaged_picture_is_refused_and_one_that_is_there_holds_nothing_up(agent):
    n = begun(agent)
    good = picture("JPEG", (900, 600))
    for bad, why in (
        (good[:-2], "cut off"),
        (good[:400], "damaged|cut off"),
        (good[:300] + bytes(200) + good[500:], None),
    ):
        try:
            keep_picture(agent, bad)
            assert why is None, "it was to be refused"
        except Refused as told:
            assert why is None or re.search(why, told.message)
    file = keep_picture(agent, good)
    change(agent, n, change="set_photos", photos=[{"file": file, "caption": "Front"}])
    (agent.records.folder / "photos" / file).write_bytes(good[: len(good) // 3])
    given = report_input(agent, n)
    assert "" not in given.pictures and given.damaged == ["630 Hedgerow Terrace"]
    assert "630 Hedgerow Terrace" in PdfReader(io.BytesIO(papers.pdf(given))).pages[0].extract_text()


def test_a_large_photo_is_no_larger_on_paper_than_it_need_be():
    noisy = Image.effect_noise((4000, 3000), 90).convert("RGB")
    out = io.BytesIO()
    noisy.save(out, "JPEG", quality=92, exif=Image.Exif())
    drawn = framed(out.getvalue(), "image/jpeg")
    assert drawn.startswith("<svg") and len(drawn) < len(out.getvalue()) / 3
    assert framed(b"\xff\xd8\xff nothing", "image/jpeg") == ""
