"""Files as rows of text: CSV of any usual delimiter and encoding, JSON lists of objects."""

from __future__ import annotations

import csv
import itertools
import json
from collections import Counter
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from pathlib import Path
from typing import Any, TextIO

from ..core.errors import Refused
from .parsing import written

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
    encoding = _encoding(path, head)
    if head.lstrip(b"\xef\xbb\xbf \r\n\t")[:1] in (b"[", b"{"):
        return _json_table(path, chunk_rows)
    return _csv_table(path, encoding, chunk_rows)


def _encoding(path: Path, head: bytes) -> str:
    if head.startswith((b"\xff\xfe", b"\xfe\xff")):
        return "utf-16"
    if head.startswith((b"PK\x03\x04", b"%PDF", b"\x89PNG", b"\xff\xd8", b"SQLite format")) or head.count(b"\x00") > 16:
        raise Refused(f"{path.name} is no CSV or JSON file: it holds binary data. Export it as CSV and bring that in.")
    try:
        with path.open(encoding="utf-8-sig") as f:
            while f.read(1 << 20):
                pass
    except UnicodeDecodeError:
        return "cp1252"
    return "utf-8"


def _csv_table(path: Path, encoding: str, chunk_rows: int) -> Table:
    file = path.open(encoding=encoding, errors="replace", newline="")
    start = 0 if file.read(1) != BYTE_ORDER_MARK else file.tell()
    file.seek(start)
    first = file.readline(MAX_CELL)
    file.seek(start)
    delimiter = max(",;\t|", key=first.count)
    measure = _Measure(file)
    reader = csv.reader(measure, delimiter=delimiter)
    try:
        columns = [c.strip() for c in next(reader)]
    except (StopIteration, csv.Error) as error:
        file.close()
        raise Refused(f"{path.name} is no CSV file: {error or 'it has no header row'}.") from None
    if len(columns) > MAX_COLUMNS:
        file.close()
        raise Refused(f"{path.name} has {len(columns):,} columns, more than {MAX_COLUMNS:,}: leave some out.")
    if len(columns) < 2:
        file.close()
        raise Refused(f"{path.name} is no CSV file: its first line holds no two column names.")

    return Table(_each_its_own(columns), _csv_chunks(file, reader, measure, chunk_rows))


def _each_its_own(columns: Sequence[str]) -> list[str]:
    """Names of columns with each its own: a second “ListPrice” is “ListPrice (2)”, so that it is seen, and mapped or left out."""
    seen: Counter[str] = Counter()
    out = []
    for name in columns:
        seen[name] += 1
        out.append(name if seen[name] == 1 or not name else f"{name} ({seen[name]})")
    return out


def _csv_chunks(
    file: TextIO, reader: Iterator[list[str]], measure: _Measure, chunk_rows: int
) -> Iterator[list[Numbered]]:
    number = 0
    chunk: list[Numbered] = []
    with file:
        while True:
            try:
                for cells in reader:
                    number += 1
                    if cells and (cells[0] or any(cells)):
                        chunk.append((number, cells))
                    if len(chunk) >= chunk_rows or measure.read > CHUNK_CHARACTERS:
                        yield chunk
                        chunk, measure.read = [], 0
                break
            except csv.Error as error:
                number += 1
                why = "a cell of more than a million characters" if "field larger" in str(error) else str(error)
                chunk.append((number, [f"\x00{why}"]))
    if chunk:
        yield chunk


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
