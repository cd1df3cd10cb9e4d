"""A disk whose power can be cut: SQLite writes through a layer that notes every write and every sync, and from the notes the
disk is made as it may be found after a cut at any of them. Nothing that was not synced need be there, in whole or in part.
"""

from __future__ import annotations

import random
from collections.abc import Iterator, Sequence
from pathlib import Path
from typing import Any

import apsw

Note = tuple[str, str, int, bytes]  # (write | truncate | sync | delete, file's name, offset or size, data)


class Disk(apsw.VFS):
    """The machine's own files, with `notes` of what was done to them in order."""

    def __init__(self) -> None:
        self.notes: list[Note] = []
        super().__init__("noted", "")

    def xOpen(self, name: Any, flags: list[int]) -> apsw.VFSFile:
        return _File(self, name, flags)

    def xDelete(self, filename: str, syncdir: bool) -> None:
        super().xDelete(filename, syncdir)
        self.notes.append(("delete", Path(filename).name, 0, b""))


class _File(apsw.VFSFile):
    def __init__(self, disk: Disk, name: Any, flags: list[int]) -> None:
        self.disk = disk
        self.name = Path(name.filename() if hasattr(name, "filename") else str(name)).name
        super().__init__("", name, flags)

    def xWrite(self, data: bytes, offset: int) -> None:
        super().xWrite(data, offset)
        self.disk.notes.append(("write", self.name, offset, bytes(data)))

    def xTruncate(self, size: int) -> None:
        super().xTruncate(size)
        self.disk.notes.append(("truncate", self.name, size, b""))

    def xSync(self, flags: int) -> None:
        super().xSync(flags)
        self.disk.notes.append(("sync", self.name, 0, b""))


def found_after(notes: Sequence[Note], how: str, rng: random.Random) -> dict[str, bytes]:
    """What each file holds after a cut behind the last note. how: "none" of what was not synced is there, "all" of it, or "some",
    the last of it torn."""
    synced: dict[str, int] = {}
    for i, (act, name, _, _) in enumerate(notes):
        if act == "sync":
            synced[name] = i
    files: dict[str, bytearray] = {}
    for i, (act, name, at, data) in enumerate(notes):
        # a folder's entries are kept in the file system's one journal: any later sync takes them along
        durable = i <= (max(synced.values(), default=-1) if act == "delete" else synced.get(name, -1))
        if not durable and (how == "none" or (how == "some" and rng.random() < 0.5)):
            continue
        file = files.setdefault(name, bytearray())
        if act == "write":
            if not durable and how == "some" and rng.random() < 0.5:
                data = data[: len(data) // 2]
            if len(file) < at:
                file.extend(bytes(at - len(file)))
            file[at : at + len(data)] = data
        elif act == "truncate":
            del file[at:]
        elif act == "delete":
            files.pop(name, None)
    return {name: bytes(data) for name, data in files.items()}


class Row:
    def __init__(self, names: Sequence[str], values: Sequence[Any]) -> None:
        self._values = dict(zip(names, values, strict=True))

    def __getitem__(self, key: Any) -> Any:
        return list(self._values.values())[key] if isinstance(key, int) else self._values[key]

    def keys(self) -> Iterator[str]:
        return iter(self._values)


class Answer:
    def __init__(self, connection: apsw.Connection, rows: list[Row]) -> None:
        self._rows = iter(rows)
        self.lastrowid, self.rowcount = connection.last_insert_rowid(), connection.changes()

    def __iter__(self) -> Iterator[Row]:
        return self._rows

    def fetchone(self) -> Row | None:
        return next(self._rows, None)

    def fetchall(self) -> list[Row]:
        return list(self._rows)


class Connection:
    """A connection on such a disk, as the store's functions want one."""

    def __init__(self, path: Path, synchronous: str) -> None:
        self._held = apsw.Connection(str(path), vfs="noted")
        for pragma in ("locking_mode = EXCLUSIVE", "journal_mode = WAL", "foreign_keys = ON", "wal_autocheckpoint = 12",
                       f"synchronous = {synchronous}"):  # fmt: skip
            self._held.execute(f"PRAGMA {pragma}")

    @property
    def in_transaction(self) -> bool:
        return self._held.in_transaction

    def execute(self, sql: str, parameters: Any = ()) -> Answer:
        cursor = self._held.cursor()
        cursor.execute(sql, parameters)
        try:
            names = [d[0] for d in cursor.get_description()]
        except apsw.ExecutionCompleteError:
            return Answer(self._held, [])
        return Answer(self._held, [Row(names, values) for values in cursor])

    def executemany(self, sql: str, many: Any) -> Answer:
        for parameters in many:
            self.execute(sql, parameters)
        return Answer(self._held, [])

    def close(self) -> None:
        self._held.close()
