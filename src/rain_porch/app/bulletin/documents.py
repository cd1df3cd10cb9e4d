"""What is kept of a bulletin: its parts in their order, its readers and its day; no figure, so that it always tells the newest."""

from __future__ import annotations

from collections.abc import Sequence
from typing import ClassVar, Literal

from pydantic import Field

from ...documents.base import Doc, StoredDoc
from ..market.views import ViewDoc

PartKind = Literal["headline", "prices", "price_ways", "bands", "pace", "flow", "shares", "places", "years", "heat", "sold", "came_on",
                   "market_conditions", "since_last", "so_far", "changed", "view", "words"]  # fmt: skip
Ready = Literal["one_page", "four_pages", "year_in_review", "appraiser", "this_home"]


class BulletinPartDoc(Doc):
    """One part of a bulletin. table: the figures of a view, of so many periods, or homes as a list without pictures; days: how far
    back what changed looks; figures: how many key figures under the headline; page_break: whether it begins a page."""

    kind: PartKind = "view"
    title: str = Field(default="", max_length=120)
    comment: str = Field(default="", max_length=4000)
    view: ViewDoc
    table: bool = True
    periods: int = Field(default=4, ge=1, le=120)
    days: int = Field(default=30, ge=1, le=366)
    figures: Literal[4, 6] = 4
    page_break: bool = False


class ReaderDoc(Doc):
    name: str = Field(default="", max_length=200)
    email: str = Field(max_length=254)


class BulletinDoc(StoredDoc):
    """A bulletin as it is kept. readers: to whom it goes; words: the message to them; day_of_month: on which it is made and sent
    by itself, none where only by hand."""

    form: ClassVar[str] = "bulletin"

    title: str = Field(min_length=1, max_length=120, pattern=r"\S")
    comment: str = Field(default="", max_length=8000)
    parts: list[BulletinPartDoc] = Field(default=[], max_length=24)
    readers: list[ReaderDoc] = Field(default=[], max_length=500)
    words: str = Field(default="", max_length=10_000)
    day_of_month: int | None = Field(default=None, ge=1, le=28)


_PLAIN = {"figures": 4, "table": False}
# layout → its parts: kind, whether it begins a page, what differs from the usual
READY: dict[Ready, Sequence[tuple[PartKind, bool, dict[str, object]]]] = {
    "one_page": (("headline", False, {}), ("prices", False, {}), ("pace", False, {}), ("sold", False, {})),
    "four_pages": (("headline", False, {"figures": 6}), ("places", False, {}),
                   ("prices", True, {}), ("price_ways", False, {}), ("bands", False, {}),
                   ("pace", True, {}), ("flow", False, {}), ("shares", False, {}),
                   ("sold", True, {}), ("came_on", False, {"table": True}), ("words", False, {})),
    "year_in_review": (("headline", False, {"figures": 6}), ("years", False, {}), ("heat", False, {}),
                       ("prices", True, {}), ("heat", False, {"measure": "closings"}), ("places", False, {})),
    "appraiser": (("market_conditions", False, {}), ("prices", False, {}), ("words", False, {})),
    "this_home": (("headline", False, {}), ("prices", False, {}), ("pace", False, {}), ("bands", False, {})),
}  # fmt: skip


def ready_parts(layout: Ready, view: ViewDoc) -> list[BulletinPartDoc]:
    """The parts of a ready layout for a view."""
    out = []
    for kind, begins, more in READY[layout]:
        rest = dict(more)
        of = rest.pop("measure", None)
        seen = view.model_copy(update={"measures": [of]}) if of else view
        out.append(BulletinPartDoc.model_validate({**_PLAIN, **rest, "kind": kind, "view": seen, "page_break": begins}))
    return out
