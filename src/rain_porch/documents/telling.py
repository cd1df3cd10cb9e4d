"""Documents as they leave the service for people: whatever of them is ours to word (Worded) in a local form of figures."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from functools import cache
from types import UnionType
from typing import Annotated, Any, Union, get_args, get_origin, get_type_hints

from pydantic import BaseModel

from ..core.facts.local_form import USUAL, LocalForm, told
from .base import OURS

Teller = Callable[[Any, LocalForm], Any]


def told_document(answer: Any, form: LocalForm) -> Any:
    """A document, or a list or mapping of such, in a local form; the one that was given stays as it is."""
    if form == USUAL:
        return answer
    if isinstance(answer, BaseModel):
        return _told_model(answer, form)
    if isinstance(answer, list):
        return [told_document(a, form) for a in answer]
    if isinstance(answer, Mapping):
        return {k: told_document(v, form) for k, v in answer.items()}
    return answer


def _told_model(doc: BaseModel, form: LocalForm) -> BaseModel:
    tellers = _tellers(type(doc))
    return doc.model_copy(update={k: tell(getattr(doc, k), form) for k, tell in tellers.items()}) if tellers else doc


@cache
def _tellers(model: type[BaseModel]) -> dict[str, Teller]:
    """How each field of a model is told; those alone in which there is something to tell."""
    hints = get_type_hints(model, include_extras=True)
    found = {k: _teller(hints[k], frozenset((model,))) for k in model.model_fields}
    return {k: tell for k, tell in found.items() if tell is not None}


def _teller(hint: Any, within: frozenset[type]) -> Teller | None:
    """How a value of an annotation is told; None for one that has nothing of ours. within: the models that hold it."""
    origin, of = get_origin(hint), get_args(hint)
    if origin is Annotated:
        return _told_text if OURS in of[1:] else _teller(of[0], within)
    if isinstance(hint, type) and issubclass(hint, BaseModel):
        return _told_model_or_none if hint in within or _has_ours(hint, within) else None
    if origin in (Union, UnionType):
        return next((tell for part in of if (tell := _teller(part, within)) is not None), None)
    if origin in (list, tuple):
        each = next((tell for part in of if (tell := _teller(part, within)) is not None), None)
        return (
            None
            if each is None
            else lambda v, form: type(v)(each(x, form) for x in v) if isinstance(v, list | tuple) else v
        )
    if origin in (dict, Mapping):
        value = _teller(of[1], within)
        return (
            None
            if value is None
            else lambda v, form: {k: value(x, form) for k, x in v.items()} if isinstance(v, dict) else v
        )
    return None


def _has_ours(model: type[BaseModel], within: frozenset[type]) -> bool:
    hints = get_type_hints(model, include_extras=True)
    return any(_teller(hints[k], within | {model}) is not None for k in model.model_fields)


def _told_text(value: Any, form: LocalForm) -> Any:
    return told(value, form) if isinstance(value, str) else value


def _told_model_or_none(value: Any, form: LocalForm) -> Any:
    return _told_model(value, form) if isinstance(value, BaseModel) else value
