"""What a workup's search finds, as the interface shows it: kept as long as the home, its day and the search stay."""

from __future__ import annotations

from ...core.search.matching import Found
from ...documents.finding import CandidatesDoc, CountsDoc
from ...documents.search import SearchDoc
from . import finding
from .find_document import candidate_docs
from .opened import Opened, found, found_candidates, suggested


def counts(opened: Opened, search: SearchDoc, run: Found | None = None) -> CountsDoc:
    """What a search would find; kept, since it is counted and looked for in one moment. run: where it was run already. BadInput,
    NotFound for one that cannot be run."""
    return opened.standpoint.records.counts.get(
        opened.seeking(search), lambda: finding.counts_of(opened.standpoint, search.search(), run)
    )


def found_table(opened: Opened) -> CandidatesDoc:
    """All of what its own search finds that no decision changes. BadInput, NotFound for a search that cannot be run."""
    return opened.standpoint.records.tables.get((*opened.sought, "table"), lambda: _table(opened))


def _table(opened: Opened) -> CandidatesDoc:
    standpoint, search = opened.standpoint, opened.state.search
    return CandidatesDoc(
        **counts(opened, search, found(opened)).model_dump(),
        candidates=candidate_docs(standpoint, found_candidates(opened)),
        kept_elsewhere=[],
        suggested=suggested(opened),
        sold_within=finding.sold_within(standpoint, search.search()),
    )
