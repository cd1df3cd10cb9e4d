"""Files that the service hands out: their media types, and a name that any disk takes."""

from __future__ import annotations

import re

from fastapi import Response

MEDIA = {
    "pdf": "application/pdf",
    "html": "text/html; charset=utf-8",
    "xlsx": "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
    "csv": "text/csv; charset=utf-8",
    "eml": "message/rfc822",
    "json": "application/json",
    "ics": "text/calendar; charset=utf-8",
    "square.png": "image/png",
    "wide.png": "image/png",
}


def attached(data: bytes | str, title: str, form: str) -> Response:
    """A file to be kept, called after its title: "What was found" → What-was-found.pdf."""
    name = re.sub(r"[^A-Za-z0-9]+", "-", title).strip("-")[:60] or "paper"
    head = {"Content-Disposition": f'attachment; filename="{name}.{form}"'}
    return Response(data, media_type=MEDIA[form], headers=head)
