"""The language of the papers, apart from the program: each phrase stands by its key in language/en, with its plural forms."""

from __future__ import annotations

from functools import cache
from importlib.resources import files
from pathlib import Path

from fluent.runtime import FluentBundle, FluentResource

LANGUAGE = "en"
FOLDER = Path(str(files("rain_porch.report"))) / "language"


@cache
def _bundle() -> FluentBundle:
    """All phrases, read from their files once (Project Fluent, syntax 1.0)."""
    bundle = FluentBundle([LANGUAGE], use_isolating=False)
    for file in sorted((FOLDER / LANGUAGE).glob("*.ftl")):
        bundle.add_resource(FluentResource(file.read_text(encoding="utf-8")))
    return bundle


def phrase(key: str, /, **values: str | int) -> str:
    """The phrase of this key with its values in their places. Whole numbers choose the plural form and are written with marks
    between thousands; all else comes as it is to stand there. KeyError for a key that no file has, and for a value that is missing.

    >>> phrase("count-homes", n=1), phrase("count-homes", n=1204)
    ('1 home', '1,204 homes')
    """
    pattern = _bundle().get_message(key).value  # LookupError where there is none
    if pattern is None:
        raise KeyError(key)
    said, faults = _bundle().format_pattern(pattern, values)
    if faults:
        raise KeyError(f"{key}: {faults[0]}")
    return str(said)


def joined(*parts: str) -> str:
    """Sentences one after the other, without those that have nothing to say."""
    return " ".join(p for p in parts if p)


def phrases_of(*keys: str) -> list[str]:
    """The phrases of several keys, as they stand over columns; "" stays empty."""
    return [phrase(key) if key else "" for key in keys]
