"""Files sent as the body of a request, read no further than they may be large."""

from __future__ import annotations

from fastapi import Request

from ..core.errors import Refused
from .limits import parts_of_file


async def read_body(
    request: Request, most_bytes: int, what: str = "file", remedy: str = "make it smaller first"
) -> bytes:
    """The whole body. Refused beyond `most_bytes`."""
    data = bytearray()
    async for part in parts_of_file(request):
        data += part
        if len(data) > most_bytes:
            raise Refused(f"The {what} has more than {most_bytes // 1_000_000} MB: {remedy}.")
    return bytes(data)
