"""Starting the server."""

from __future__ import annotations

import datetime as dt
import gc
import ipaddress
import re
from pathlib import Path

import uvicorn

from ..app.handover.paper_process import PaperProcess
from ..app.memory import keep_little
from ..app.office.accounts import somebody_signs_in
from ..app.office.agent import FOLDERS_OWNER
from ..app.processors import on_one_processor
from ..app.schedule import plan_daily_backup
from ..core.errors import BadInput
from ..settings import setting
from ..store.folder_lock import held
from . import journal
from .app import create_app
from .state import State

KEEP_ALIVE_SECONDS = 75  # that an idle connection stays open: as long as a proxy in front keeps it


def serve(folder: Path, host: str | None = None, port: int | None = None) -> None:
    """Run until stopped, on the given address or the settings'."""
    host = host or setting("RAIN_PORCH_HOST")
    port = port or int(setting("RAIN_PORCH_PORT"))
    keep_little()
    with held(folder, "serving", dt.datetime.now()):
        _served(folder, host, port)


def _served(folder: Path, host: str, port: int) -> None:
    names, path = setting("RAIN_PORCH_HOSTS"), setting("RAIN_PORCH_PATH").rstrip("/")
    if path and not re.fullmatch(r"(/[A-Za-z0-9._~-]+)+", path):
        raise BadInput("RAIN_PORCH_PATH", f"“{path}” is no path: write it like /porch.")
    app = create_app(
        folder, hosts=[host, *names.split(",")], is_open_here=is_of_this_machine(host) and not names, path=path
    )
    journal.keep_in(folder)
    app.state.porch.records.snapshot()
    print(f"Rain Porch is open at http://{host}:{port}", flush=True)
    print(said_of_accounts(app.state.porch), end="", flush=True)
    app.state.porch.papers = PaperProcess()
    plan_daily_backup(app.state.porch.agent_of(FOLDERS_OWNER))
    app.state.porch.schedule.start()
    # what is there now stays: only what requests leave behind is looked through
    gc.collect()
    gc.freeze()
    # many requests at once are worth more than one on all processors: each computes on one
    with on_one_processor():
        uvicorn.run(app, host=host, port=port, log_level="warning", timeout_keep_alive=KEEP_ALIVE_SECONDS)
    app.state.porch.close()


def is_of_this_machine(host: str) -> bool:
    """Whether nobody but this machine reaches a service that listens at the address."""
    try:
        return ipaddress.ip_address(host).is_loopback
    except ValueError:
        return host == "localhost"


def said_of_accounts(state: State) -> str:
    """What the service prints at its start, where nobody has an account yet."""
    if somebody_signs_in(state.porch):
        return ""
    if not state.is_open_here:
        return (
            "Nobody has an account yet, and others may reach this address: only the page that makes the first account "
            f"answers. Its code: {state.first_code}\n"
        )
    return (
        "Whoever sits at this machine works as the folder's owner. To let colleagues in, make the first account in the "
        f"settings with the code {state.first_code}\n"
    )
