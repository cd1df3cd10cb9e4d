"""Small pictures that are what they say, each unlike the next."""

from __future__ import annotations

import hashlib
import io

from PIL import Image


def picture(form: str = "JPEG", mark: str = "", size: tuple[int, int] = (24, 16)) -> bytes:
    """A JPEG, PNG or WebP whose colour comes from the mark."""
    out = io.BytesIO()
    Image.new("RGB", size, tuple(hashlib.blake2b(mark.encode(), digest_size=3).digest())).save(out, form)
    return out.getvalue()
