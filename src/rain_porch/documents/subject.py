"""A home and its facts, as a document."""

from __future__ import annotations

from .base import Doc, Value


class SubjectDoc(Doc):
    address: str
    parcel_number: str | None
    home_kind: str
    latitude: float
    longitude: float
    facts: dict[str, Value]
    assessed_year: int | None = None
    placed: bool = True  # false: it is not known where the home stands; its place is the middle of its neighbourhood
