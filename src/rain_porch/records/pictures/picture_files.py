"""Pictures as files: whether one can be read at all, and one read no larger than it is needed."""

from __future__ import annotations

import io
import warnings

from PIL import Image, ImageOps

MOST_PIXELS = 60_000_000
FORMATS = ("JPEG", "PNG", "WEBP")
_UNREADABLE = (
    OSError, ValueError, SyntaxError, EOFError, IndexError, TypeError, Image.DecompressionBombError, Image.DecompressionBombWarning,
)  # fmt: skip


def fault_of(data: bytes) -> str | None:
    """Why a picture cannot be kept, told from its frame without decoding it: damaged, cut off, of too many pixels; None where it
    looks whole."""
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("ignore", Image.DecompressionBombWarning)
            picture = Image.open(io.BytesIO(data), formats=FORMATS)
    except _UNREADABLE:
        return "a damaged picture"
    if picture.width * picture.height > MOST_PIXELS:
        return f"a picture of {picture.width:,} × {picture.height:,} pixels: save it smaller"
    ends = {
        "JPEG": b"\xff\xd9" in data[-4096:],
        "PNG": b"IEND" in data[-64:],
        "WEBP": len(data) >= 8 + int.from_bytes(data[4:8], "little"),
    }
    return None if ends[str(picture.format)] else "a picture that is cut off"


def opened_picture(data: bytes, within: tuple[int, int] | None = None) -> Image.Image | None:
    """A JPEG, PNG or WebP, turned upright as its camera held it, decoded whole; None for one that is damaged, no such picture, or
    of more pixels than MOST_PIXELS. within: made smaller until it just covers so many pixels (width, height)."""
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("error", Image.DecompressionBombWarning)
            picture = Image.open(io.BytesIO(data), formats=FORMATS)
            if picture.width * picture.height > MOST_PIXELS:
                return None
            if within:
                picture.draft("RGB", (within[0], within[0]))
            picture.load()
            upright = ImageOps.exif_transpose(picture)
    except _UNREADABLE:
        return None
    if within:
        share = max(within[0] / upright.width, within[1] / upright.height)
        if share < 1:
            upright = upright.resize((max(1, round(upright.width * share)), max(1, round(upright.height * share))))
    return upright
