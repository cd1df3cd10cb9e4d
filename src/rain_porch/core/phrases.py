"""The language of answers and papers, apart from the program: each phrase stands by its key in language/en, with its plural forms.

The files are a part of the program, read once when the first phrase is asked for; nothing of a user's is ever read here.
"""

from __future__ import annotations

import re
import threading
from collections.abc import Mapping
from functools import cache, lru_cache
from importlib.resources import files
from pathlib import Path
from typing import TYPE_CHECKING, Any

if TYPE_CHECKING:
    from fluent.runtime import FluentBundle
    from fluent.runtime.resolver import Message

LANGUAGE = "en"
FOLDER = Path(str(files("rain_porch"))) / "language"


def sentence_case(words: Any) -> str:
    """Words that begin a sentence: "sold in May" → "Sold in May"."""
    return f"{str(words)[:1].upper()}{str(words)[1:]}"


def continued(words: Any) -> str:
    """A sentence that goes on within another: "Buyers compare" → "buyers compare"."""
    return f"{str(words)[:1].lower()}{str(words)[1:]}"


def within(label: Any) -> str:
    """A label as it stands within a sentence: "Full baths" → "full baths"."""
    return str(label).lower()


_FUNCTIONS: Mapping[str, Any] = {"BEGIN": sentence_case, "CONTINUE": continued, "WITHIN": within}
"""What a phrase may do to words that come into it."""

# requests run side by side: all of them are to see one bundle, with what a phrase refers to
_adding = threading.RLock()
_ENTRY = re.compile(r"^([a-zA-Z][\w-]*) =(?:.*\n)(?:[ }].*\n|\n(?=[ }]))*", re.MULTILINE)
_REFERRED = re.compile(r"\{ *([a-z][\w-]*) *\}|\(([a-z][\w-]*)\)")


@cache
def _written() -> Mapping[str, str]:
    """The text of each phrase (Project Fluent, syntax 1.0) by its name; read from the files once."""
    files_of = sorted((FOLDER / LANGUAGE).glob("*.ftl"))
    return {m[1]: m[0] for file in files_of for m in _ENTRY.finditer(f"{file.read_text(encoding='utf-8')}\n")}


@cache
def _bundle() -> FluentBundle:
    from fluent.runtime import FluentBundle

    return FluentBundle([LANGUAGE], functions=dict(_FUNCTIONS), use_isolating=False)


@cache
def _message(name: str) -> Message:
    """A phrase, parsed when it is first asked for, with those that it refers to: all of them take longer than most commands.
    KeyError where no file has it."""
    from fluent.runtime import FluentResource

    with _adding:
        text = _written()[name]
        for referred in _REFERRED.findall(text):
            _message(referred[0] or referred[1])
        _bundle().add_resource(FluentResource(text))
        return _bundle().get_message(name)


@lru_cache(1 << 15, typed=True)  # an answer tells hundreds of homes in the same few thousand phrases
def phrase(key: str, /, **values: str | int | float) -> str:
    """The phrase of this key with its values in their places; "field-living_area.short" is a part of a phrase. Whole numbers choose
    the plural form and are written with marks between thousands; all else comes as it is to stand there. KeyError for a key
    that no file has, and for a value that is missing.

    >>> phrase("count-homes", n=1), phrase("count-homes", n=1204)
    ('1 home', '1,204 homes')
    """
    name, _, part = key.partition(".")
    message = _message(name)
    pattern = message.attributes[part] if part else message.value
    if pattern is None:
        raise KeyError(key)
    said, faults = _bundle().format_pattern(pattern, values)
    if faults:
        raise KeyError(f"{key}: {faults[0]}")
    return str(said)


@cache
def has_phrase(key: str) -> bool:
    """Whether a file has this phrase, or this part of one."""
    name, _, part = key.partition(".")
    return name in _written() and (not part or part in _message(name).attributes)


def joined(*parts: str) -> str:
    """Sentences one after the other, without those that have nothing to say."""
    return " ".join(p for p in parts if p)


def listed(items: list[str]) -> str:
    """Some things in one row: "a", "a and b", "a, b and c"."""
    return items[0] if len(items) == 1 else phrase("list-and", before=", ".join(items[:-1]), last=items[-1])


def phrases_of(*keys: str) -> list[str]:
    """The phrases of several keys, as they stand over columns; "" stays empty."""
    return [phrase(key) if key else "" for key in keys]
