"""The one error tree. Each error says what happened, where, and what to do, and carries its values."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any


class RainPorchError(Exception):
    """Base of every error that a person may read.

    message: what happened and the remedy, as a sentence.
    values:  what the message was made from, for programs.
    """

    def __init__(self, message: str, **values: Any) -> None:
        super().__init__(message)
        self.message = message
        self.values: Mapping[str, Any] = values


class BadInput(RainPorchError):
    """A value that was given makes no sense; `field` names it."""

    def __init__(self, field: str, message: str, **values: Any) -> None:
        super().__init__(message, field=field, **values)
        self.field = field


class Odd(BadInput):
    """A value that is possible but strange: the message is a question, and the same again with `sure` is taken."""


class NotFound(RainPorchError):
    """What was named is not in the records; `nearest` may offer what comes close."""


class Ambiguous(RainPorchError):
    """Several things answer to the name; `choices` lists them."""


class Refused(RainPorchError):
    """A file or a change that cannot be taken as it is; nothing was changed."""


class NotEnough(RainPorchError):
    """The records do not carry the answer that was asked for."""


class OutOfDate(RainPorchError):
    """Somebody saved in the meantime; read again and repeat."""


class Clash(OutOfDate):
    """Somebody changed the same part in the meantime; the same again on what is there now takes its place."""


class NotSignedIn(RainPorchError):
    """Whoever asks has not signed in, or not rightly; `wait` says for how many seconds no guess is looked at."""


class NotAllowed(RainPorchError):
    """Whoever asks may not do that."""
