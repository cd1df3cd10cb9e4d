"""What every document stands on: closed models, lines of text, numbers that end."""

from __future__ import annotations

import unicodedata
from typing import Annotated, Any, ClassVar, TypeVar

from pydantic import AfterValidator, BaseModel, ConfigDict, Field, PrivateAttr, ValidationError

from ..core.errors import BadInput

Value = float | str


def _line(text: str) -> str:
    if any(unicodedata.category(c) in ("Cc", "Cs") for c in text):
        raise ValueError("has signs that no key writes: type it anew")
    return text


Line = Annotated[str, AfterValidator(_line)]
"""One line of text that is sent, such as a name: without control characters. In a document that is kept it stands as text, so
that one of earlier days is read: there `check_line` is asked before it is kept."""


class _Ours:
    """The mark of a text that the service writes: with figures in it that people read in a form of their own."""


OURS = _Ours()
Worded = Annotated[str, OURS]
"""A sentence or words of ours. Where they leave the service for people, they are told in the office's form of figures
(telling.py); names, what people wrote and what programs read are plain texts."""
FiniteNumber = Annotated[float, Field(allow_inf_nan=False)]


def check_line(field: str, text: str) -> None:
    """Raises BadInput for a text that is no one line."""
    try:
        _line(text)
    except ValueError as error:
        raise BadInput(field, f"{field}: {error}.") from None


class Doc(BaseModel):
    model_config = ConfigDict(extra="forbid")


M = TypeVar("M", bound=BaseModel)


def as_known(model: type[M], held: Any) -> M:
    """A choice as it is kept, as far as this program knows it: what a newer one has written beside it is passed over, and where
    the rest makes no sense here, all is as usual."""
    try:
        return model(**{k: v for k, v in held.items() if k in model.model_fields}) if held else model()
    except ValidationError:
        return model()


class StoredDoc(Doc):
    """A document that is kept in porch.db: see versions.py. form: what it is called where it cannot be read."""

    form: ClassVar[str]
    _carried: list[tuple[tuple[str, ...], Any]] = PrivateAttr(default_factory=list)
