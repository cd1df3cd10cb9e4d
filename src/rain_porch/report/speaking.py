"""Of which homes a page speaks, and how it says so."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from .model import ReportInput

Home = Mapping[str, Any]
CHOSEN, FOUND = "chosen", "found"
SOLD = ("sold", "deed_sale")
KINDS = (*SOLD, "under_contract", "for_sale", "failed")


@dataclass(frozen=True)
class Spoken:
    """The homes that a page speaks of, chosen ones first in the order of their numbers. found: how many of these kinds the
    search finds without what was set aside. are: whether these are the chosen."""

    homes: Sequence[Home]
    found: int
    are: str

    @property
    def words(self) -> str:
        """ "the 3 chosen, of 14 found", "all 14 found", "the one that was chosen"."""
        n = len(self.homes)
        if self.are == FOUND:
            if n < self.found:
                return f"the {n:,} most alike of {self.found:,} found"
            return f"all {self.found:,} found" if self.found > 1 else "the one found"
        of = f", of {self.found:,} found" if self.found > n else ""
        return (f"the {n:,} chosen" if n > 1 else "the one chosen") + of


_OF_PAGE: Mapping[str, Sequence[str]] = {
    "beside": SOLD, "sold": SOLD, "strategy": ("under_contract", "for_sale", "failed"),
    **{kind: (kind,) for kind in ("under_contract", "for_sale", "failed")},
}  # fmt: skip


def kinds_of(page: str) -> Sequence[str]:
    """The kinds of record that a page speaks of."""
    return _OF_PAGE.get(page, KINDS)


def spoken_of(given: ReportInput, page: str, kinds: Sequence[str] = KINDS) -> Spoken:
    """The homes of some kinds that a page speaks of: the chosen, or all found where the agent says so, or where none of these
    kinds is chosen."""
    chosen = [c for c in given.chosen if c["kind"] in kinds]
    found = sum(n for k, n in given.counts.items() if k in kinds)
    known = {c["listing_id"] for c in chosen}
    others = [c for c in given.around if c["kind"] in kinds and c["listing_id"] not in known]
    # a chosen home that the search does not find any more is spoken of all the same
    found += len(known - {c["listing_id"] for c in given.around})
    if chosen and given.paper.speaks_of.get(page, CHOSEN) == CHOSEN:
        return Spoken(chosen, found, CHOSEN)
    return Spoken([*chosen, *others], found, FOUND)
