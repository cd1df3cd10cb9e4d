"""The service that docs/screenshots are made from: the demo's records, pinned views, one of them watched, an older workup."""

from __future__ import annotations

import datetime as dt
import socket
import threading
import time
from pathlib import Path

import httpx
import uvicorn

from rain_porch.api.app import create_app
from rain_porch.app.market.saved_views import save_view
from rain_porch.app.office.agent import FOLDERS_OWNER, Agent
from rain_porch.app.watching import look, watch
from rain_porch.demo.town import VIEWS
from rain_porch.store.porch import choices

NOW = dt.datetime(2026, 11, 2, 19, 30)


def serve(folder: Path) -> str:
    with socket.socket() as s:
        s.bind(("127.0.0.1", 0))
        port = s.getsockname()[1]
    app = create_app(folder, now=lambda: NOW)
    for name, view in VIEWS.items():
        number = save_view(app.state.porch.agent_of(FOLDERS_OWNER), name, view, pinned=True)
    with_news(app.state.porch.agent_of(FOLDERS_OWNER), number)
    server = uvicorn.Server(uvicorn.Config(app, host="127.0.0.1", port=port, log_level="error"))
    threading.Thread(target=server.run, daemon=True).start()
    while not server.started:
        time.sleep(0.05)
    return f"http://127.0.0.1:{port}"


def with_news(agent: Agent, number: int) -> None:
    """The last view is watched, and a few of the newest things that happened in it have not been told yet."""
    watch(agent, "view", number, 24 * 60)
    name = f"watched view {number}"
    held = choices.read(agent.porch, agent.owner, name)
    choices.write(agent.porch, agent.owner, name, {**held, "seen": held["seen"][4:]})
    look(agent, {"of": "view", "number": number})


def earlier(base: str) -> None:
    """Another workup, two months old, with its most alike sales kept."""
    ask = httpx.Client(base_url=f"{base}/api", timeout=60)
    hit = ask.get("/lookup", params={"text": "305 Hedgerow Terrace"}).json()["hits"][0]
    home = {"kind": hit["kind"], "key": hit["key"], "as_of": "2026-08-31"}
    made = ask.post("/workups", json=home).json()["workup_id"]
    found = ask.get(f"/workups/{made}/candidates").json()["candidates"]
    keys = [c["listing_id"] for c in found if c["kind"] in ("sold", "under_contract")][:9]
    kept = {"change": "decide", "listing_ids": keys, "choice": "kept"}
    ask.post(f"/workups/{made}/changes", json={"revision": 1, "change": kept}).raise_for_status()
