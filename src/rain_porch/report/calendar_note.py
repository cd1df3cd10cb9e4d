"""An appointment as a calendar note that any calendar takes in (iCalendar, RFC 5545)."""

from __future__ import annotations

import datetime as dt

LONGEST = 75  # octets of a line, §3.1; what is longer goes on in the next after a space


def calendar_note(
    uid: str, made: dt.datetime, begins: dt.datetime, minutes: int, title: str, where: str, words: str = ""
) -> str:
    """The text of an .ics file with one event. begins: on the clock of the place, with no time zone (§3.3.5, form 1); made: when the
    note was written, in UTC. Lines end in CRLF, none is longer than 75 octets."""
    lines = [
        "BEGIN:VCALENDAR", "VERSION:2.0", "PRODID:-//Rain Porch//Appointment//EN", "BEGIN:VEVENT", f"UID:{_said(uid)}",
        f"DTSTAMP:{made:%Y%m%dT%H%M%S}Z", f"DTSTART:{begins:%Y%m%dT%H%M%S}", f"DURATION:PT{minutes}M", f"SUMMARY:{_said(title)}",
        f"LOCATION:{_said(where)}", *([f"DESCRIPTION:{_said(words)}"] if words else []), "END:VEVENT", "END:VCALENDAR",
    ]  # fmt: skip
    return "".join(f"{_folded(line)}\r\n" for line in lines)


def _said(text: str) -> str:
    """Text as §3.3.11 has it: backslashes, commas, semicolons and ends of lines marked, nothing else that steers."""
    marked = (
        text.replace("\\", "\\\\").replace(";", "\\;").replace(",", "\\,").replace("\r\n", "\n").replace("\n", "\\n")
    )
    return "".join(c for c in marked if c.isprintable() or c == "\t")


def _folded(line: str) -> str:
    out, length = [], 0
    for c in line:
        size = len(c.encode())
        if length + size > LONGEST:
            out.append("\r\n ")
            length = 1
        out.append(c)
        length += size
    return "".join(out)
