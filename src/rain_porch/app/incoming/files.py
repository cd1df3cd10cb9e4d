"""Files on their way in: kept, previewed, planned by a process of their own, accepted or let go."""

from __future__ import annotations

import datetime as dt
import re
import shutil
import threading
import uuid
from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any

from ...core.errors import NotFound, RainPorchError, Refused
from ...records import importing, unpacking
from ...records.files import kept_files
from ...store.db import Db
from ..side_process import Beside, Step

MAX_BYTES = 4_000_000_000
PATIENT_SECONDS = 4.0  # how long whoever brings a file waits for it to be unpacked
WAITING, RUNNING = ("waiting", "planned"), ("reading", "taking in")


@dataclass
class Incoming:
    """One file. stage: unpacking, waiting, reading, planned, taking in, done, failed or cancelled."""

    file_id: str
    path: Path
    kind: str | None = None  # where what it was unpacked from tells
    shown: str = ""  # what it is called, where that is not its name on the disk
    source: str = ""  # where that is known
    mapping: Mapping[str, Any] | None = None  # by which it was looked at last
    mends: int | None = None  # the import whose kept file this is
    stage: str = "waiting"
    rows: int = 0
    result: dict[str, Any] | None = None
    samples: dict[str, list[dict[str, Any]]] = field(default_factory=dict)
    message: str = ""
    process: Beside | None = None
    fault: BaseException | None = None  # why it could not be unpacked
    run: int = 0  # counts the processes it has had


class IncomingFiles:
    """The files that wait in one data folder."""

    def __init__(self, folder: Path, now: Callable[[], dt.datetime] = dt.datetime.now) -> None:
        self.folder = folder
        self.now = now
        self.kept = folder / "incoming"
        self._files: dict[str, Incoming] = {}
        shutil.rmtree(self.kept, ignore_errors=True)  # what an earlier run left was never in effect
        importing.clear_staging(folder)

    def place(self, name: str) -> Incoming:
        """A place for a file of this name to be written to."""
        safe = re.sub(r"[^\w .()-]+", "_", Path(name.replace("\\", "/")).name).strip(" .")[:120]
        if not safe:
            raise Refused("The file has no name: give it one with an ending such as .csv.")
        file_id = uuid.uuid4().hex[:12]
        path = self.kept / file_id / safe
        path.parent.mkdir(parents=True)
        self._files[file_id] = made = Incoming(file_id, path)
        return made

    def spread(self, file_id: str) -> Incoming:
        """Take a file apart into the plain files that it holds, each waiting for itself in the order in which they should come
        in; the first in the file's own place. A large one is "unpacking" for a while after. Refused, and let go, for what is
        seen at once to be broken or to hold nothing."""
        whole = self.get(file_id)
        whole.stage = "unpacking"
        work = threading.Thread(target=self._unpack, args=(whole,), daemon=True)
        work.start()
        work.join(PATIENT_SECONDS)
        if not work.is_alive() and whole.fault is not None:
            self.cancel(file_id)
            raise whole.fault
        return whole

    def _unpack(self, whole: Incoming) -> None:
        def tell(done: int) -> None:
            if self._files.get(whole.file_id) is not whole:
                raise Refused("It was let go.")
            whole.message = f"{done / 1e6:,.0f} MB unpacked so far"

        try:
            with unpacking.unpacked([whole.path], self.folder, progress=tell) as found:
                container = whole.path
                for n, piece in enumerate(found):
                    if piece.path == container:
                        whole.kind = piece.kind
                        continue
                    into = whole if n == 0 else self.place(piece.path.name)
                    place = container.parent / "unpacked" / piece.path.name if n == 0 else into.path
                    place.parent.mkdir(exist_ok=True)
                    shutil.move(piece.path, place)
                    into.path, into.kind, into.shown = place, piece.kind, piece.name
                if whole.path != container:
                    container.unlink(missing_ok=True)
            whole.message, whole.stage = "", "waiting"
        except BaseException as error:  # told to whoever waits for it, or looks at it later
            whole.fault = error
            whole.message = (
                error.message if isinstance(error, RainPorchError) else f"It could not be unpacked: {error}."
            )
            whole.stage = "failed"

    def mend(self, db: Db, import_id: int) -> Incoming:
        """The kept file of an import, waiting to be mapped anew. NotFound where it is not kept."""
        path, kind, source, name = kept_files.to_mend(db, self.folder, import_id)
        waits = next((f for f in self._files.values() if f.mends == import_id and f.stage != "done"), None)
        if waits is not None:
            return waits
        made = self.place(path.name)
        try:
            shutil.copyfile(path, made.path)
        except BaseException:
            self.cancel(made.file_id)
            raise
        made.kind, made.source, made.shown, made.mends = kind, source, name, import_id
        return made

    def get(self, file_id: str) -> Incoming:
        if file_id not in self._files:
            raise NotFound("This file is no longer waiting: bring it in again.", file_id=file_id)
        return self._files[file_id]

    def plan(
        self,
        file_id: str,
        kind: str | None,
        source: str,
        mapping: Mapping[str, Any] | None,
        now: dt.datetime,
        places: str = "",
    ) -> Incoming:
        """Start to read the file; what it would do is in `result` once the stage is "planned"."""
        file = self.get(file_id)
        if file.stage == "unpacking" or file.fault is not None:
            raise Refused(f"{file.message}: this file cannot be read yet." if file.fault is None else file.message)
        if file.stage in RUNNING:
            raise Refused("This file is being read already: wait for it, or cancel it first.")
        self._stop(file)
        file.kind, file.source, file.mapping = kind or file.kind, source, mapping
        file.stage, file.rows, file.result, file.message, file.samples = "reading", 0, None, "", {}
        task = {
            "folder": str(self.folder), "path": str(file.path), "now": now.isoformat(), "kind": kind or file.kind,
            "source": source, "mapping": mapping, "places": places, "mends": file.mends,
        }  # fmt: skip
        file.run += 1
        run = file.run
        file.process = Beside(
            "rain_porch.app.incoming.importer", task, lambda step: _told(file, run, step), lambda: _ended(file, run)
        )
        return file

    def accept(self, file_id: str) -> Incoming:
        """Let the planned import take effect."""
        file = self.get(file_id)
        if file.stage != "planned" or file.process is None:
            raise Refused("There is no plan to accept yet: look at what would change first.")
        file.stage = "taking in"
        file.process.say("accept")
        return file

    def cancel(self, file_id: str) -> None:
        """Let the file go; nothing of it was in effect unless it was done."""
        file = self.get(file_id)
        if file.stage == "taking in":
            raise Refused("It is taking effect now; undo the import when it is done.")
        self._stop(file)
        del self._files[file_id]
        shutil.rmtree(self.kept / file_id, ignore_errors=True)

    def waiting(self) -> list[Incoming]:
        return list(self._files.values())

    def close(self) -> None:
        for file in self.waiting():
            self._stop(file)

    def _stop(self, file: Incoming) -> None:
        process, file.process = file.process, None
        file.run += 1
        if process is not None:
            process.stop()
        importing.clear_staging(self.folder)


def _told(file: Incoming, run: int, step: Step) -> None:
    """Keep a file's state as its process tells it; what an earlier run still says is not heard."""
    if file.run != run:
        return
    file.rows = step.get("rows", file.rows)
    file.result = step.get("result", file.result)
    file.samples = step.get("samples", file.samples)
    file.message = step.get("message", file.message)
    file.stage = step["stage"]


def _ended(file: Incoming, run: int) -> None:
    if file.run == run and file.stage not in ("done", "failed"):
        file.stage, file.message = "failed", "Reading stopped before it was done; nothing has changed. Try again."
