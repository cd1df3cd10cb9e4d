"""An account of the office as a document."""

from __future__ import annotations

from typing import Literal

from .base import Doc


class AccountDoc(Doc):
    """may_import: may bring records in, take imports back, say what is wrong with a record. signs_in: has a password."""

    account_id: int
    name: str
    role: Literal["agent", "manager"]
    may_import: bool
    disabled: bool
    signs_in: bool
