"""One import as a process of its own, so that the application stays quick meanwhile: `python -m` this module.

It reads one JSON line with what to do, writes a JSON line for each step, and waits for "accept" before anything of the
records changes. When whoever started it goes away, it stops and leaves nothing behind.
"""

from __future__ import annotations

import datetime as dt
import json
import sys
from pathlib import Path

from ...core.errors import RainPorchError
from ...records.importing import prepare
from ...store import db as database
from ...store.records.incoming.imports import sampled_places, staged_rows
from ..side_process import say
from .outcomes import import_doc

OUTCOMES = ("new", "changed", "same", "suspect", "rejected", "blanked")


def main() -> None:
    task = json.loads(sys.stdin.readline())
    folder = Path(task["folder"])
    db = database.open_database(folder, database.RECORDS)
    try:
        with prepare(
            db,
            Path(task["path"]),
            folder=folder,
            now=dt.datetime.fromisoformat(task["now"]),
            kind=task["kind"],
            source=task["source"],
            columns=task["mapping"],
            places=task["places"],
            mends=task["mends"],
            progress=lambda rows: say(stage="reading", rows=rows),
        ) as made:
            samples = {o: staged_rows(db, o, made.columns) for o in OUTCOMES} if made.columns else {}
            if {"latitude", "longitude"} <= {*made.columns}:
                samples["places"] = sampled_places(db)
            say(stage="planned", result=import_doc(made.result).model_dump(mode="json"), samples=samples)
            if sys.stdin.readline().strip() == "accept":
                say(stage="taking in")
                say(stage="done", result=import_doc(made.accept()).model_dump(mode="json"))
    except RainPorchError as error:
        say(stage="failed", message=error.message)
    finally:
        db.close()


if __name__ == "__main__":
    main()
