"""Starting the server."""

from __future__ import annotations

import datetime as dt
from pathlib import Path

import uvicorn
from threadpoolctl import threadpool_limits

from ..settings import setting
from ..store.folder_lock import held
from . import journal
from .app import create_app


def serve(folder: Path, host: str | None = None, port: int | None = None) -> None:
    """Run until stopped, on the given address or the settings'."""
    host = host or setting("RAIN_PORCH_HOST")
    port = port or int(setting("RAIN_PORCH_PORT"))
    with held(folder, "serving", dt.datetime.now()):
        _served(folder, host, port)


def _served(folder: Path, host: str, port: int) -> None:
    app = create_app(folder, hosts=[host, *setting("RAIN_PORCH_HOSTS").split(",")])
    journal.keep_in(folder)
    app.state.porch.records.snapshot()
    print(f"Rain Porch is open at http://{host}:{port}", flush=True)
    app.state.porch.schedule.start()
    # many requests at once are worth more than one on all processors: each computes on one
    with threadpool_limits(1, user_api="blas"):
        uvicorn.run(app, host=host, port=port, log_level="warning")
    app.state.porch.close()
