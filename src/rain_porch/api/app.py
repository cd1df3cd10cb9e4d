"""The application as a web service: one folder's records and workups, JSON under /api, the interface elsewhere."""

from __future__ import annotations

import datetime as dt
from collections.abc import Callable, Iterable
from importlib.resources import files
from pathlib import Path

from fastapi import FastAPI
from fastapi.responses import FileResponse, HTMLResponse, Response
from fastapi.staticfiles import StaticFiles
from starlette.exceptions import HTTPException
from starlette.middleware.gzip import GZipMiddleware

from ..app.office.map_sources import tile_hosts
from ..app.records import Records
from . import docs, errors
from .journal import Journal
from .limits import BodyLimits
from .office import (
    accounts,
    around,
    bulletins,
    clients,
    desk,
    due_work,
    house_rules,
    links,
    local_form,
    map_sources,
    market,
    searches,
    session,
    watches,
)
from .records import conclusions, imports, incoming, listings, mappings
from .state import State
from .web_safety import NONCE, WebSafety, new_nonce, page_policy
from .workup import asking, backtests, candidates, choices, home, paper, shares, since, workups, worth

PATH = 'name="service-path" content=""'  # what of the built page says under which path it lies
WEB = Path(str(files("rain_porch"))) / "web"


def create_app(
    folder: Path,
    now: Callable[[], dt.datetime] = dt.datetime.now,
    hosts: Iterable[str] = (),
    is_open_here: bool = True,
    path: str = "",
    records: Records | None = None,
) -> FastAPI:
    """The application on one data folder; `now` is its only clock, `hosts` the names under which it is asked, `is_open_here` as
    State has it. path: under which a proxy offers the service, and which it takes off, such as "/porch". records: as State has them."""
    app = FastAPI(title="Rain Porch", version="0.1.0", docs_url=None, redoc_url=None, openapi_url=None)
    app.state.porch = State(folder, now, is_open_here, path, records)
    errors.install(app)
    app.add_middleware(GZipMiddleware, minimum_size=2000, compresslevel=4)
    app.add_middleware(BodyLimits)
    app.add_middleware(WebSafety, hosts=tuple(hosts))
    app.add_middleware(Journal, now=now)
    docs.install(app)
    for part in (
        desk,
        workups,
        candidates,
        around,
        searches,
        watches,
        map_sources,
        house_rules,
        local_form,
        choices,
        worth,
        home,
        asking,
        since,
        backtests,
        listings,
        market,
        bulletins,
        imports,
        mappings,
        incoming,
        conclusions,
        paper,
        clients,
        due_work,
        session,
        accounts,
        shares,
        links,
    ):
        app.router.routes.extend(part.router.routes)
    _interface(app, path)
    return app


def _interface(app: FastAPI, path: str) -> None:
    """The built front end; every other path opens the page, which finds its own way."""
    index = WEB / "index.html"
    if not index.is_file():
        return
    beside = {p.name for p in WEB.iterdir() if p.is_file() and p != index}
    app.mount("/assets", StaticFiles(directory=WEB / "assets"), name="assets")

    @app.get("/{asked:path}", include_in_schema=False)
    def page(asked: str) -> Response:
        if asked.split("/", 1)[0] == "api":
            raise HTTPException(404)
        if asked in beside:
            return FileResponse(WEB / asked)
        nonce = new_nonce()
        state: State = app.state.porch
        headers = {
            "Cache-Control": "no-cache",
            "Content-Security-Policy": page_policy(nonce, tile_hosts(state.porch)),
        }
        # read anew: a build that takes the place of another names other files
        text = index.read_text(encoding="utf-8").replace(NONCE, nonce).replace('="./', f'="{path}/')
        return HTMLResponse(text.replace(PATH, PATH.replace('""', f'"{path}"')), headers=headers)
