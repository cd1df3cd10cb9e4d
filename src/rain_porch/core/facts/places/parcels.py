"""Parcel numbers in a search: compared part by part as numbers, a part alone being a whole block."""

from __future__ import annotations

import re

from ...errors import BadInput

Span = tuple[str, str]  # first and last number or block, both inside
Part = tuple[int, int, str]

_PARTS = re.compile(r"\d+|[A-Za-z]+")
_BETWEEN = re.compile(r"\s+(?:to|through|-|–|—)\s+|\s*(?:\.\.\.?|…|–|—)\s*")
_CALLED = re.compile(r"^(?:(blocks?)|parcels?|numbers?|nos?\.?)\s+(?=\S*\d)", re.IGNORECASE)
MOST_SPANS = 60


def parts(number: str) -> tuple[Part, ...]:
    """A number's parts, digits as numbers: "07-0012" → 7, 12; "A-3b" → a, 3, b. Signs between them do not matter."""
    return tuple((0, int(p), "") if p.isdigit() else (1, 0, p.casefold()) for p in _PARTS.findall(number[:200]))


def plain(number: str) -> str:
    """Letters and digits alone: how a number typed without its dashes is known again."""
    return "".join(_PARTS.findall(number)).casefold()


def read_spans(text: str) -> tuple[Span, ...]:
    """What people type: "07 to 08" two blocks; "08" a block; "03-0012, 03-0015" two numbers; "01-0001 to 01-0099" a range;
    "blocks 1-5" five blocks, as they are called so: "1-5" alone is a number."""
    out: list[Span] = []
    of_blocks = False
    for piece in re.split(r"[,;\n]+", text):
        if not piece.strip():
            continue
        piece = piece.strip()
        if called := _CALLED.match(piece):
            of_blocks, piece = bool(called[1]), piece[called.end() :]
        ends = [e.strip() for e in _BETWEEN.split(piece) if e.strip()]
        if of_blocks and len(ends) == 1 and re.fullmatch(r"\w+\s*-\s*\w+", piece):
            ends = [e.strip() for e in piece.split("-")]
        if len(ends) > 2:
            raise BadInput("parcels", f"“{piece}” has more than two ends: give one number, or a first and a last.")
        if not ends:
            raise BadInput("parcels", f"“{piece}” is no parcel number: type one like 07-0123, a block, or a range.")
        out.append((ends[0], ends[-1]))
    return tuple(out)


def words(spans: tuple[Span, ...]) -> str:
    """Spans as they are typed and read back: "07 to 08, 03-0012"."""
    return ", ".join(first if first == last else f"{first} to {last}" for first, last in spans)


def check_spans(spans: tuple[Span, ...]) -> None:
    """Raises BadInput where there are too many, or one runs backwards."""
    if len(spans) > MOST_SPANS:
        raise BadInput("parcels", f"{len(spans)} parcel numbers and ranges are more than {MOST_SPANS}: leave some out.")
    for first, last in spans:
        for end in (first, last):
            if not parts(end):
                raise BadInput(
                    "parcels", f"“{end[:60]}” is no parcel number: give one, a block, or a first and a last."
                )
        n = min(len(parts(first)), len(parts(last)))
        if parts(first)[:n] > parts(last)[:n] or (len(parts(first)) == len(parts(last)) and parts(first) > parts(last)):
            raise BadInput("parcels", f"Parcels {first} to {last} are upside down; swap the two.")


def inside(number: str, spans: tuple[Span, ...]) -> bool:
    """Whether a number lies in one of the spans: each end compared over the parts that it has, so that "08 to 08" is the
    whole block 08 and "07 to 08" ends with the last of it."""
    held = parts(number)
    for first, last in spans:
        low, high = parts(first), parts(last)
        if low <= held[: len(low)] and held[: len(high)] <= high and len(held) >= len(low):
            return True
        if first == last and plain(first) == plain(number):
            return True
    return False
