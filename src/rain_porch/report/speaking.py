"""Of which homes a page speaks, and how it says so."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from ..core.phrases import phrase
from .model import ReportInput

Home = Mapping[str, Any]
CHOSEN, FOUND = "chosen", "found"
SOLD = ("sold", "deed_sale")
KINDS = (*SOLD, "under_contract", "for_sale", "failed")


@dataclass(frozen=True)
class Spoken:
    """The homes that a page speaks of, chosen ones first in the order of their numbers. found: how many of these kinds the
    search finds without what was set aside; beyond: how many of the chosen it does not find any more. are: CHOSEN or FOUND."""

    homes: Sequence[Home]
    found: int
    are: str
    beyond: int = 0

    @property
    def words(self) -> str:
        """ "the 3 chosen, of 14 found", "all 14 found", "the 9 chosen; the search as it is now finds 5"."""
        n = len(self.homes)
        if self.are == CHOSEN:
            if self.beyond:
                return phrase("spoken-chosen-beyond", n=n, found=self.found)
            return phrase("spoken-chosen-of-found" if self.found > n else "spoken-chosen", n=n, found=self.found)
        if n - self.beyond < self.found:
            return phrase("spoken-most-alike", n=n, found=self.found)
        return phrase(
            "spoken-found-and-chosen" if self.beyond else "spoken-found", found=self.found, beyond=self.beyond
        )


_OF_PAGE: Mapping[str, Sequence[str]] = {
    "beside": SOLD, "sold": SOLD, "strategy": ("under_contract", "for_sale", "failed"),
    **{kind: (kind,) for kind in ("under_contract", "for_sale", "failed")},
}  # fmt: skip


def spoken_of(given: ReportInput, page: str, kinds: Sequence[str] | None = None) -> Spoken:
    """The homes that a page speaks of, or those of some kinds among them: the chosen, or all found where the agent says so, or
    where none of these kinds is chosen."""
    kinds = kinds or _OF_PAGE.get(page, KINDS)
    chosen = [c for c in given.chosen if c["kind"] in kinds]
    known = {c["listing_id"] for c in chosen}
    around = [c for c in given.around if c["kind"] in kinds]
    found = sum(n for k, n in given.counts.items() if k in kinds)
    beyond = len(known - {c["listing_id"] for c in around})
    if chosen and given.paper.speaks_of.get(page, CHOSEN) == CHOSEN:
        return Spoken(chosen, found, CHOSEN, beyond)
    return Spoken([*chosen, *(c for c in around if c["listing_id"] not in known)], found, FOUND, beyond)
