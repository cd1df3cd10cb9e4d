"""Keys made for records that bring none: the same facts make the same key, today and next year."""

from __future__ import annotations

import hashlib


def made_key(*parts: object) -> str:
    """16 hexadecimal digits of the parts' words (BLAKE2b). made_key("a", 1) is the same for ever."""
    return hashlib.blake2b("|".join(str(p) for p in parts).encode("utf-8", "surrogatepass"), digest_size=8).hexdigest()


def number_words(value: object) -> object:
    """A number as files write it: 410000.0 → "410000"; anything else as it is."""
    return f"{value:.0f}" if isinstance(value, float) and value == int(value) else value
