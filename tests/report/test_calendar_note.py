"""An appointment as a calendar takes it in: RFC 5545's lines, whatever stands in an address."""

from __future__ import annotations

import datetime as dt

from hypothesis import given
from hypothesis import strategies as st

from rain_porch.report.calendar_note import LONGEST, calendar_note

BEGINS, MADE = dt.datetime(2026, 11, 4, 18, 30), dt.datetime(2026, 11, 2, 19, 30)


def read(note: str) -> list[tuple[str, str]]:
    """Names and values after unfolding and unmarking, as §3.1 and §3.3.11 tell a reader to."""
    out = []
    for line in note.replace("\r\n ", "").split("\r\n")[:-1]:
        name, _, value = line.partition(":")
        plain, marked = "", False
        for c in value:
            plain += ("\n" if c == "n" else c) if marked else "" if c == "\\" else c
            marked = c == "\\" and not marked
        out.append((name, plain))
    return out


def test_the_note_of_an_appointment_line_by_line():
    note = calendar_note(
        "workup-7@rain-porch", MADE, BEGINS, 60, "14 Ferry Lane: what it is worth", "14 Ferry Lane, Brindle Ford"
    )
    assert note == (
        "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//Rain Porch//Appointment//EN\r\nBEGIN:VEVENT\r\nUID:workup-7@rain-porch\r\n"
        "DTSTAMP:20261102T193000Z\r\nDTSTART:20261104T183000\r\nDURATION:PT60M\r\nSUMMARY:14 Ferry Lane: what it is worth\r\n"
        "LOCATION:14 Ferry Lane\\, Brindle Ford\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n"
    )


@given(st.text(max_size=300), st.text(max_size=300), st.text(max_size=300))
def test_nothing_in_a_text_steers_the_calendar_and_no_line_is_too_long(title, where, words):
    note = calendar_note("u", MADE, BEGINS, 45, title, where, words)
    assert all(len(line.encode()) <= LONGEST for line in note.split("\r\n")) and note.endswith("\r\n")
    told = read(note)
    names = [name for name, _ in told]
    assert names.count("BEGIN") == names.count("END") == 2 and names.count("SUMMARY") == 1

    def kept(text: str) -> str:
        return "".join(c for c in text.replace("\r\n", "\n") if c.isprintable() or c in "\t\n")

    held = dict(told)
    assert held["SUMMARY"] == kept(title) and held["LOCATION"] == kept(where)
    assert held.get("DESCRIPTION", "") == kept(words)
