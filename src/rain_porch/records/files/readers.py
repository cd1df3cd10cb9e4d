"""Files as rows of text: CSV of any usual delimiter and encoding, JSON lists of objects."""

from __future__ import annotations

import csv
import itertools
import json
import re
from collections import Counter
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from pathlib import Path
from typing import Any, TextIO

from ...core.errors import Refused
from ...core.intake.parsing import written

MAX_COLUMNS = 2000
MAX_CELL = 1_000_000  # characters; a longer one makes its row unreadable
MAX_JSON = 400_000_000  # bytes; JSON is read whole
CHUNK_ROWS, CHUNK_CHARACTERS = 4_000, 24_000_000
BYTE_ORDER_MARK = "\ufeff"
csv.field_size_limit(MAX_CELL)


Numbered = tuple[int, list[str]]


@dataclass(frozen=True)
class Table:
    """columns, and rows as (row number in the file from 1, cells); a row may have too few or too many cells.

    A row that cannot be read has one cell that starts with NUL and says why. `chunks` are lists of rows, bounded in
    rows and in characters, so that no file can fill the memory.
    """

    columns: list[str]
    chunks: Iterator[list[Numbered]]


def read_table(path: Path, chunk_rows: int = CHUNK_ROWS) -> Table:
    """Open a CSV or JSON file as a table, `chunk_rows` at a time. Raises Refused for a file that is neither."""
    if not path.is_file():
        raise Refused(f"There is no file {path}.")
    with path.open("rb") as f:
        head = f.read(65_536)
    if not head.strip():
        raise Refused(f"{path.name} is empty.")
    encoding = encoding_of(path, head)
    if head.lstrip(b"\xef\xbb\xbf \r\n\t")[:1] in (b"[", b"{"):
        return _json_table(path, chunk_rows)
    return _csv_table(path, encoding, chunk_rows)


def encoding_of(path: Path, head: bytes) -> str:
    """The encoding of a text file, of which `head` are the first bytes. Refused for one that holds binary data."""
    if head.startswith((b"\xff\xfe", b"\xfe\xff")):
        return "utf-16"
    if head[1::2].count(b"\x00") > 0.4 * len(head) // 2 and head[::2].count(b"\x00") < 4:
        return "utf-16-le"
    if head.startswith((b"PK\x03\x04", b"%PDF", b"\x89PNG", b"\xff\xd8", b"SQLite format")) or head.count(b"\x00") > 16:
        raise Refused(f"{path.name} is no CSV or JSON file: it holds binary data. Export it as CSV and bring that in.")
    try:
        with path.open(encoding="utf-8-sig") as f:
            while f.read(1 << 20):
                pass
    except UnicodeDecodeError:
        return _told_by_letters(path)
    return "utf-8"


_EIGHT_BIT = ["cp1252", "cp1250", "mac_roman", "cp850", "cp1251", "iso8859_15"]


def _told_by_letters(path: Path) -> str:
    """Which of the old encodings makes words of the bytes beyond ASCII; Western Windows where none is better."""
    from charset_normalizer import from_bytes

    with path.open("rb") as f:
        lines = [line for line in itertools.islice(f, 200_000) if not line.isascii()][:400]
    told = from_bytes(b"".join(lines), cp_isolation=_EIGHT_BIT).best()
    if told is None or told.encoding not in _EIGHT_BIT:
        return "cp1252"
    first = from_bytes(b"".join(lines), cp_isolation=["cp1252"]).best()
    return "cp1252" if first is not None and first.chaos <= told.chaos + 0.02 else told.encoding


HEAD_LINES = 40
_UNITS = frozenset(
    {"sq ft", "sqft", "$", "usd", "acres", "ac", "ft", "feet", "date", "text", "years", "year", "#", "number", "y/n", "yes/no", "mm/dd/yyyy",
     "yyyy-mm-dd", "mi", "miles", "string", "integer", "decimal", "days", "count", "deg", "degrees", "(sq ft)", "($)", "sq. ft.", "us$", "char", "numeric"}
)  # fmt: skip
_TOTALS = re.compile(
    r"^\W*(?:grand |sub|page )?(?:totals?|sum|averages?|avg|means?|medians?|min(?:imum)?|max(?:imum)?|counts?|high|low|records?|rows?|end of|printed|page|report|number of|"
    r"source|note|copyright|information|generated|exported|\d+ (?:records|listings|rows|results|parcels))\b",
    re.IGNORECASE,
)


def _delimiter(lines: Sequence[str]) -> str:
    """The sign that divides the columns: the one that most of the lines have most of."""
    known = [line for line in lines if line.strip()]

    def usual(sign: str) -> tuple[float, int]:
        counts = sorted(line.count(sign) for line in known)
        return (counts[len(counts) // 4] if counts else 0, max(counts, default=0))

    return max(",;\t|", key=usual)


def _head_at(rows: Sequence[Sequence[str]]) -> int:
    """Which of the first rows holds the heads: the first that is nearly as wide as the table is; titles stand above it."""
    filled = [sum(bool(c.strip()) for c in row) for row in rows]
    wide = sorted(filled)[len(filled) * 3 // 4] if len(filled) > 3 else max(filled, default=0)
    for i, (row, n) in enumerate(zip(rows, filled, strict=True)):
        names = sum(any(x.isalpha() for x in c) or c.strip() in ("#", "$") for c in row)
        if n >= max(2, 0.6 * min(wide, max(filled[i:], default=0))) and names >= 0.6 * n:
            return i
    return 0


def _csv_table(path: Path, encoding: str, chunk_rows: int) -> Table:
    file = path.open(encoding=encoding, errors="replace", newline="")
    start = 0 if file.read(1) != BYTE_ORDER_MARK else file.tell()
    file.seek(start)
    first = [line for line in (file.readline(MAX_CELL) for _ in range(HEAD_LINES)) if line]
    if first and first[0].lower().startswith("sep="):
        start += len(first.pop(0).encode(encoding if encoding != "utf-16" else "utf-16-le"))
    file.seek(start)
    measure = _Measure(file)
    reader = csv.reader(measure, delimiter=_delimiter(first))
    top: list[list[str]] = []
    try:
        while len(top) < HEAD_LINES and (row := next(reader, None)) is not None:
            top.append(row)
    except csv.Error as error:
        if not top:
            file.close()
            raise Refused(f"{path.name} is no CSV file: {error}.") from None
        top, reader, measure = _again(file, start, len(top), _delimiter(first))
    at = _head_at(top)
    columns = [c.strip() for c in top[at]] if top else []
    while (
        columns
        and not columns[-1]
        and all(len(r) < len(columns) or not r[len(columns) - 1].strip() for r in top[at + 1 :])
    ):
        columns.pop()  # a sign too many at the end of each line
    if len(columns) > MAX_COLUMNS:
        file.close()
        raise Refused(f"{path.name} has {len(columns):,} columns, more than {MAX_COLUMNS:,}: leave some out.")
    if len(columns) < 2:
        file.close()
        raise Refused(f"{path.name} is no CSV file: its first line holds no two column names.")
    named = [c or f"Column {i}" for i, c in enumerate(columns, start=1)]
    rest = itertools.chain(top[at + 1 :], reader)
    return Table(_each_its_own(named), _csv_chunks(file, rest, reader, measure, chunk_rows, columns))


_MAY_BE_NONE = re.compile(rf"\s|{_TOTALS.pattern}", re.IGNORECASE)  # a first cell that calls for a closer look


def _again(file: TextIO, start: int, rows: int, delimiter: str) -> tuple[list[list[str]], Any, _Measure]:
    """The file from its start, with so many rows read: what could not be read comes next."""
    file.seek(start)
    measure = _Measure(file)
    reader = csv.reader(measure, delimiter=delimiter)
    return [next(reader) for _ in range(rows)], reader, measure


def _each_its_own(columns: Sequence[str]) -> list[str]:
    """Names of columns with each its own: a second “ListPrice” is “ListPrice (2)”, so that it is seen, and mapped or left out."""
    seen: Counter[str] = Counter()
    out = []
    for name in columns:
        seen[name] += 1
        out.append(name if seen[name] == 1 or not name else f"{name} ({seen[name]})")
    return out


def _csv_chunks(
    file: TextIO,
    rows: Iterator[list[str]],
    reader: Iterator[list[str]],
    measure: _Measure,
    chunk_rows: int,
    heads: Sequence[str],
) -> Iterator[list[Numbered]]:
    number, head, odd = 0, heads[0], _MAY_BE_NONE.match
    chunk: list[Numbered] = []
    with file:
        while True:
            try:
                for cells in rows:
                    number += 1
                    if (
                        cells
                        and (cells[0] or any(cells))
                        and not (
                            (number == 1 or not cells[0] or cells[0] == head or odd(cells[0]))
                            and _is_no_record(cells, heads, number)
                        )
                    ):
                        chunk.append((number, cells))
                    if len(chunk) >= chunk_rows or measure.read > CHUNK_CHARACTERS:
                        yield chunk
                        chunk, measure.read = [], 0
                break
            except csv.Error as error:
                number += 1
                why = "a cell of more than a million characters" if "field larger" in str(error) else str(error)
                chunk.append((number, [f"\x00{why}"]))
                rows = reader
    if chunk:
        yield chunk


def _is_no_record(cells: Sequence[str], heads: Sequence[str], number: int) -> bool:
    """Whether a row is a total, the heads once more, or the units under the heads."""
    first = cells[0].strip()
    if first == heads[0] and [c.strip() for c in cells[: len(heads)]] == list(heads):
        return True
    if number == 1 and all(not c.strip() or c.strip().lower() in _UNITS for c in cells):
        return True
    told = first or next((c.strip() for c in cells if c.strip()), "")
    return (
        len(heads) > 3
        and _TOTALS.match(told) is not None
        and sum(bool(c.strip()) for c in cells) <= max(2, 0.5 * len(heads))
    )


class _Measure:
    """The lines of a file, with the characters read since it was last set to 0."""

    def __init__(self, file: TextIO) -> None:
        self.file, self.read = file, 0

    def __iter__(self) -> Iterator[str]:
        for line in self.file:
            self.read += len(line)
            yield line


def read_json(path: Path) -> object:
    """The document of a JSON file. Raises Refused for one that is cut short, too deep or too large."""
    if path.stat().st_size > MAX_JSON:
        raise Refused(f"{path.name} is larger than {MAX_JSON // 1_000_000} MB: bring it in as CSV, or in parts.")
    try:
        text = path.read_text(encoding="utf-8-sig")
        data: object = json.loads(text)
    except (ValueError, RecursionError) as error:  # of what is no UTF-8, cut short, or a number of 5,000 digits
        raise Refused(f"{path.name} is no complete JSON file: {error}.") from None
    return _whole(data) if "\\ud" in text.lower() else data


def _whole(data: Any) -> Any:
    """The same with a mark in the place of each half of a pair of surrogates, which JSON can name and no text can hold."""
    if isinstance(data, str):
        return data.encode("utf-16", "surrogatepass").decode("utf-16", "replace")
    if isinstance(data, list):
        return [_whole(x) for x in data]
    return {_whole(k): _whole(v) for k, v in data.items()} if isinstance(data, dict) else data


def _json_table(path: Path, chunk_rows: int) -> Table:
    data = read_json(path)
    if isinstance(data, dict):
        data = data.get("value", data.get("records"))
    if not isinstance(data, list) or not all(isinstance(item, dict) for item in data):
        raise Refused(f"{path.name} is JSON, but no list of records.")
    columns = list(dict.fromkeys(key for item in data for key in item))
    if len(columns) > MAX_COLUMNS:
        raise Refused(f"{path.name} has {len(columns):,} names, more than {MAX_COLUMNS:,}: leave some out.")

    def cell(value: object) -> str:
        if value is None:
            return ""
        if isinstance(value, list):
            return ", ".join(str(v) for v in value)
        return written(value) if isinstance(value, float) else str(value)

    rows = ((i, [cell(item.get(c)) for c in columns]) for i, item in enumerate(data, start=1))
    return Table(columns, iter(lambda: list(itertools.islice(rows, chunk_rows)), []))
