"""A stand-in for a listing feed: JSON pages in the manner of the RESO Web API, over a file of listings.

    GET  /Property?$filter=ModificationTimestamp ge 2026-01-01T00:00:00Z&$top=200&$skip=0   newest changes last
         $select=ListingId: the numbers alone; $expand=Media: with the addresses of pictures
    GET  /Media/NUMBER/1.png                                                                a picture
    POST /tomorrow                                                                          a day passes

All want `Authorization: Bearer TOKEN`. A real feed of the kind is set up by its own address and token.
"""

from __future__ import annotations

import csv
import datetime as dt
import hashlib
import re
import socket
import struct
import threading
import zlib
from pathlib import Path
from typing import Annotated, Any

import numpy as np
import uvicorn
from fastapi import FastAPI, Header, HTTPException, Query, Request, Response

TOKEN = "rain-porch-demo"
PAGE = 200
PICTURES, RECENT = 2, 30  # of each listing that changed within so many days
_FILTER = re.compile(r"^ModificationTimestamp (?P<op>g[et]) (?P<since>\S+)$")
_NUMBERS = re.compile(r"^-?\d+(\.\d+)?$")
_TEXT = {"ListingId", "ParcelNumber", "PostalCode", "UnitNumber"}


class Day:
    """The listings as they stand on one day; `pass_one` moves the day on and some listings with it."""

    def __init__(self, file: Path) -> None:
        with file.open(newline="", encoding="utf-8") as f:
            self.rows = [dict(r) for r in csv.DictReader(f)]
        newest = max(r["ModificationTimestamp"] for r in self.rows)
        self.today = dt.date.fromisoformat(newest[:10])

    def pass_one(self) -> int:
        """Tomorrow: of the homes for sale some cut their price, some find a buyer; of those sold some close."""
        self.today += dt.timedelta(days=1)
        changed = 0
        for row in self.rows:
            draw = hashlib.blake2b(f"{row['ListingId']} {self.today}".encode(), digest_size=2).digest()
            if self._moved(row, int.from_bytes(draw) % 100):
                row["ModificationTimestamp"] = f"{self.today}T12:00:00Z"
                changed += 1
        return changed

    def take_away(self, listing: str) -> None:
        """A listing that was a slip: the source has it no more."""
        self.rows = [r for r in self.rows if r["ListingId"] != listing]

    def _moved(self, row: dict[str, str], draw: int) -> bool:
        day = self.today.isoformat()
        if row["StandardStatus"] == "Active" and draw < 12:
            if draw < 5:
                row["ListPrice"] = str(round(float(row["ListPrice"]) * 0.97 / 1000) * 1000)
            elif draw < 9:
                row.update(StandardStatus="Pending", MlsStatus="Pending", PurchaseContractDate=day)
            else:
                row.update(StandardStatus="Withdrawn", MlsStatus="Withdrawn", OffMarketDate=day)
            return True
        if row["StandardStatus"] == "Pending" and draw < 15:
            paid = str(round(float(row["ListPrice"]) * 0.985 / 100) * 100)
            row.update(StandardStatus="Closed", MlsStatus="Sold", CloseDate=day, OffMarketDate=day, ClosePrice=paid)
            return True
        return False


def create_feed(file: Path, token: str = TOKEN, failures: int = 0) -> FastAPI:
    """The feed over a listings file; the first `failures` requests are answered with 503."""
    app = FastAPI(title="Listing feed stand-in", docs_url=None, redoc_url=None)
    day = app.state.day = Day(file)
    left = {"failures": failures}

    def let_in(authorization: str | None) -> None:
        if authorization != f"Bearer {token}":
            raise HTTPException(401, "The token is missing or wrong.")
        if left["failures"]:
            left["failures"] -= 1
            raise HTTPException(503, "Busy; try again.")

    @app.get("/Property")
    def properties(
        request: Request,
        filters: Annotated[str | None, Query(alias="$filter")] = None,
        top: Annotated[int, Query(alias="$top", ge=1, le=1000)] = PAGE,
        skip: Annotated[int, Query(alias="$skip", ge=0)] = 0,
        select: Annotated[str | None, Query(alias="$select")] = None,
        expand: Annotated[str | None, Query(alias="$expand")] = None,
        authorization: Annotated[str | None, Header()] = None,
    ) -> dict[str, Any]:
        let_in(authorization)
        rows = sorted(day.rows, key=lambda r: (r["ModificationTimestamp"], r["ListingId"]))
        if filters is not None:
            match = _FILTER.match(filters)
            if match is None:
                raise HTTPException(400, "$filter: ModificationTimestamp ge or gt a time is all that this feed knows.")
            since, after = match["since"], match["op"] == "gt"
            rows = [
                r
                for r in rows
                if r["ModificationTimestamp"] > since or (not after and r["ModificationTimestamp"] == since)
            ]
        page = [_typed(r) for r in rows[skip : skip + top]]
        if select is not None:
            page = [{name: row.get(name) for name in select.split(",")} for row in page]
        if expand == "Media":
            base = str(request.base_url).rstrip("/")
            for row in page:
                recent = row["ModificationTimestamp"][:10] >= (day.today - dt.timedelta(days=RECENT)).isoformat()
                shown = range(1, PICTURES + 1) if recent else ()
                row["Media"] = [{"Order": n, "MediaURL": f"{base}/Media/{row['ListingId']}/{n}.png"} for n in shown]
        out: dict[str, Any] = {"@odata.context": "$metadata#Property", "value": page}
        if skip + top < len(rows):
            out["@odata.nextLink"] = str(request.url.include_query_params(**{"$skip": skip + top, "$top": top}))
        return out

    @app.get("/Media/{listing}/{number}.png")
    def media(listing: str, number: int, authorization: Annotated[str | None, Header()] = None) -> Response:
        let_in(authorization)
        if number > PICTURES or not any(r["ListingId"] == listing for r in day.rows):
            raise HTTPException(404, "No such picture.")
        return Response(_drawn(listing, number), media_type="image/png")

    @app.post("/tomorrow")
    def tomorrow(authorization: Annotated[str | None, Header()] = None) -> dict[str, Any]:
        let_in(authorization)
        return {"changed": day.pass_one(), "today": day.today.isoformat()}

    return app


def serve_beside(file: Path, port: int) -> str:
    """Serve the stand-in from a thread of its own as long as the program runs; its address, "" where the port is taken."""
    with socket.socket() as probe:
        if probe.connect_ex(("127.0.0.1", port)) == 0:
            return ""
    config = uvicorn.Config(create_feed(file), host="127.0.0.1", port=port, log_level="error")
    threading.Thread(target=uvicorn.Server(config).run, daemon=True).start()
    return f"http://127.0.0.1:{port}"


def _drawn(listing: str, number: int) -> bytes:
    """A house of few lines, of a colour of its own: what a photographer would send, as small as can be (a PNG)."""
    hue = hashlib.blake2b(f"{listing} {number}".encode(), digest_size=3).digest()
    y, x = np.mgrid[0:240, 0:320]
    image = np.full((240, 320, 3), (226, 233, 235), dtype=np.uint8)
    image[170:] = (176, 190, 160)
    image[(y > 44) & (y < 102) & (abs(x - 160) < 1.62 * (y - 44))] = (104, 84, 74)
    image[100:190, 80:240] = [150 + hue[0] % 90, 140 + hue[1] % 90, 130 + hue[2] % 90]
    image[140:190, 150:176] = (84, 62, 50)
    for left in (96, 196):
        image[118:146, left : left + 30] = (240, 244, 246)
    lines = np.hstack([np.zeros((240, 1), dtype=np.uint8), image.reshape(240, -1)]).tobytes()

    def chunk(name: bytes, data: bytes) -> bytes:
        return struct.pack(">I", len(data)) + name + data + struct.pack(">I", zlib.crc32(name + data))

    head = struct.pack(">IIBBBBB", 320, 240, 8, 2, 0, 0, 0)
    return b"\x89PNG\r\n\x1a\n" + chunk(b"IHDR", head) + chunk(b"IDAT", zlib.compress(lines)) + chunk(b"IEND", b"")


def _typed(row: dict[str, str]) -> dict[str, Any]:
    """Numbers as numbers, what is empty left out."""
    return {k: float(v) if k not in _TEXT and _NUMBERS.match(v) else v for k, v in row.items() if v != ""}
