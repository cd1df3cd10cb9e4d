"""Lists of pictures by their addresses: a table with a listing's number, the place and an address, as feeds and photographers hand out.

The columns are those of the RESO Data Dictionary's Media: ListingId (or ResourceRecordID), Order, MediaURL, ShortDescription.
"""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path

from ...core.errors import Refused
from ...core.facts.words import plain
from ..files import readers

LISTING, ADDRESS = ("listingid", "resourcerecordid"), ("mediaurl",)
PLACE, CAPTION, KIND = ("order",), ("shortdescription", "longdescription"), ("mediacategory", "mediatype")
MOST_ROWS, LONGEST, LAST_PLACE = 5_000_000, 2_000, 999
SCHEMES = ("http://", "https://", "drawn:")  # the last: pictures of the stand-in for the photographer
_OF_LISTINGS = {"listprice", "closeprice", "standardstatus", "unparsedaddress", "parcelnumber"}
_OTHER_MEDIA = re.compile(r"video|tour|document|pdf|floor ?plan", re.IGNORECASE)


@dataclass(frozen=True)
class Listed:
    """One row of a list. place: from 1, 0 for one that cannot be read. fault: why it cannot be taken in."""

    row: int
    listing: str
    place: int
    address: str
    caption: str | None
    fault: str


def is_list(path: Path) -> bool:
    """Whether a file is a list of pictures: it has their addresses, and nothing of what listings themselves have."""
    if not path.is_file():
        return False
    with path.open("rb") as f:
        if b"mediaurl" not in re.sub(rb"[^a-z]", b"", f.read(65_536).lower()):
            return False
    try:
        have = {plain(c) for c in readers.read_table(path, 1).columns}
    except Refused:
        return False
    return bool(have & {*LISTING}) and bool(have & {*ADDRESS}) and not have & _OF_LISTINGS


def listed(path: Path) -> Iterator[Listed]:
    """The rows of a list; those without an order come in that of the file. Refused for a file without the columns it needs."""
    table = readers.read_table(path)
    heads = [plain(c) for c in table.columns]

    def at(names: tuple[str, ...], wanted: str = "") -> int | None:
        found = next((heads.index(n) for n in names if n in heads), None)
        if found is None and wanted:
            raise Refused(
                f"{path.name} has no column {wanted}, which a list of pictures needs: {', '.join(table.columns[:20])}."
            )
        return found

    listing, address = at(LISTING, "ListingId"), at(ADDRESS, "MediaURL")
    place, caption, kind = at(PLACE), at(CAPTION), at(KIND)
    last: Counter[str] = Counter()
    for chunk in table.chunks:
        for row, cells in chunk:
            if row > MOST_ROWS:
                raise Refused(f"{path.name} holds more than {MOST_ROWS:,} rows: bring it in in parts.")

            def cell(i: int | None, cells: list[str] = cells) -> str:
                return cells[i].strip() if i is not None and i < len(cells) else ""

            if len(cells) == 1 and cells[0].startswith("\x00"):
                yield Listed(row, "", 0, "", None, cells[0][1:])
                continue
            number, told = cell(listing), cell(place)
            last[number] += 1
            where = last[number] if place is None else _place(told)
            url, other = cell(address), _OTHER_MEDIA.search(cell(kind))
            fault = (
                "no listing's number" if not number
                else f"no picture but a {other[0].lower()}" if other
                else "" if 1 <= where <= LAST_PLACE else f"Order is not a number from 1 to {LAST_PLACE}"
            ) or _fault_of(url)  # fmt: skip
            yield Listed(row, number, where, url, cell(caption)[:200] or None, fault)


def _place(told: str) -> int:
    return int(float(told)) if re.fullmatch(r"\d{1,4}(\.0*)?", told) else 0


def _fault_of(url: str) -> str:
    if not url:
        return "no MediaURL"
    if len(url) > LONGEST or not url.startswith(SCHEMES) or re.search(r"[\x00-\x20\x7f]", url):
        return f"MediaURL is no address that begins with http:// or https:// and has at most {LONGEST:,} letters"
    return ""
