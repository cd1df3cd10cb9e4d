"""Files as rows of text: CSV of any usual delimiter and encoding, JSON lists of objects."""

from __future__ import annotations

import csv
import itertools
import json
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path

from ..core.errors import Refused

MAX_COLUMNS = 2000
csv.field_size_limit(16_000_000)


@dataclass(frozen=True)
class Table:
    """columns, and rows as (row number in the file from 1, cells); a row may have too few or too many cells."""

    columns: list[str]
    rows: Iterator[tuple[int, list[str]]]


def read_table(path: Path) -> Table:
    """Open a CSV or JSON file as a table. Raises Refused for a file that is neither."""
    if not path.is_file():
        raise Refused(f"There is no file {path}.")
    with path.open("rb") as f:
        head = f.read(65_536)
    if not head.strip():
        raise Refused(f"{path.name} is empty.")
    encoding = _encoding(path, head)
    if head.lstrip(b"\xef\xbb\xbf \r\n\t")[:1] in (b"[", b"{"):
        return _json_table(path)
    return _csv_table(path, encoding)


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
    return "utf-8-sig"


def _csv_table(path: Path, encoding: str) -> Table:
    file = path.open(encoding=encoding, errors="replace", newline="")
    first = file.readline()
    file.seek(0)
    delimiter = max(",;\t|", key=first.count)
    reader = csv.reader(file, delimiter=delimiter)
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

    def rows() -> Iterator[tuple[int, list[str]]]:
        with file:
            for number in itertools.count(1):
                try:
                    cells = next(reader)
                except StopIteration:
                    return
                except csv.Error as error:
                    yield number, [f"\x00{error}"]
                    continue
                if cells and any(cells):
                    yield number, cells

    return Table(columns, rows())


def read_json(path: Path) -> object:
    try:
        return json.loads(path.read_text(encoding="utf-8-sig"))
    except (UnicodeDecodeError, json.JSONDecodeError, RecursionError) as error:
        raise Refused(f"{path.name} is no complete JSON file: {error}.") from None


def _json_table(path: Path) -> Table:
    data = read_json(path)
    if isinstance(data, dict):
        data = data.get("value", data.get("records"))
    if not isinstance(data, list) or not all(isinstance(item, dict) for item in data):
        raise Refused(f"{path.name} is JSON, but no list of records.")
    columns = list(dict.fromkeys(key for item in data for key in item))

    def cell(value: object) -> str:
        if value is None:
            return ""
        if isinstance(value, list):
            return ", ".join(str(v) for v in value)
        return str(value)

    return Table(columns, ((i, [cell(item.get(c)) for c in columns]) for i, item in enumerate(data, start=1)))
