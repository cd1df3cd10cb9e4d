"""A workup with what it stands on, and what follows from both: its price, computed once however many parts ask for it."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property, partial

import numpy as np

from ...core.errors import BadInput, NotFound
from ...core.facts.fields import OWN_LINE
from ...core.facts.homes import Candidate, Subject
from ...core.facts.house_rules import HouseRules, share_returned
from ...core.facts.improvements import returned
from ...core.market.columns import FAILED, FOR_SALE, UNDER_CONTRACT, Ints
from ...core.price.evidence import Evidence, evidence
from ...core.price.grid import Own
from ...core.search.matching import Found
from ...documents.search import SearchDoc
from ...documents.stored import WorkupDoc
from ..home.homes import Home
from .candidates import candidates, most_alike
from .pricing import Decided, Pricing, price
from .standpoint import Standpoint
from .wide_models import market_fit, wide_model


@dataclass(frozen=True)
class Opened:
    """document: the text of the state, which with the house's rules names all that is computed from it on one snapshot of the
    records."""

    workup_id: int
    revision: int
    document: str
    state: WorkupDoc
    home: Home
    subject: Subject
    standpoint: Standpoint

    @cached_property
    def sought(self) -> tuple[object, ...]:
        """The key of all that depends on the home, its day and its search, and on nothing that was decided since."""
        return self.seeking(self.state.search)

    def seeking(self, search: SearchDoc) -> tuple[object, ...]:
        """The same for another search than its own."""
        return (*self.stands, "sought", search.model_dump_json())

    @cached_property
    def decided(self) -> tuple[object, ...]:
        """The key of all that depends on anything of the workup: its text, and the house's rules."""
        return (self.document, self.standpoint.rules.changed)

    @cached_property
    def stands(self) -> tuple[object, ...]:
        """The key of all that depends on the home and its day alone."""
        told = self.state.model_dump_json(include={"home", "corrections", "place", "effective_date"})
        return ("stands", told, self.standpoint.rules.changed)


def found(opened: Opened) -> Found:
    """What the search finds. BadInput, NotFound for one that cannot be run."""
    key = (*opened.sought, "found")
    return opened.standpoint.records.tables.get(key, lambda: opened.standpoint.run(opened.state.search.search()))


def found_rows(opened: Opened) -> Ints:
    """What the search finds; nothing where it can no longer be run, its area having gone, say: what is kept stays all the same."""
    try:
        return found(opened).rows
    except (BadInput, NotFound):
        return np.zeros(0, dtype=np.int64)


def found_candidates(opened: Opened) -> list[Candidate]:
    """The homes that the search finds, the most alike 2,000."""
    key = (*opened.sought, "candidates")
    return opened.standpoint.records.tables.get(key, lambda: candidates(opened.standpoint, found_rows(opened)))


def priced(opened: Opened) -> Pricing:
    """Grid and worth of the kept comps, in the order in which they were kept."""
    return opened.standpoint.records.fits.get(("price", *opened.decided), lambda: _priced(opened))


def _priced(opened: Opened) -> Pricing:
    columns, state = opened.standpoint.columns, opened.state
    rows = [columns.row_of[key] for key in state.kept() if key in columns.row_of]
    by_key = {c.listing_id: c for c in candidates(opened.standpoint, np.array(rows, dtype=np.int64))}
    kept = [by_key[key] for key in state.kept() if key in by_key]
    decided = Decided(rates=state.rates, cells=state.cells, weights=state.weights, conditions=state.conditions,
                      own=own_lines(state, opened.standpoint.rules))  # fmt: skip
    return price(opened.standpoint, kept, decided=decided, evidence_of=partial(_evidence, opened))


def kept_unsold(opened: Opened) -> list[Candidate]:
    """The kept homes that are no sale: under contract, for sale, failed, each kind in the order in which it was kept."""
    columns, view = opened.standpoint.columns, opened.standpoint.view
    rows = [columns.row_of[key] for key in opened.state.kept() if key in columns.row_of]
    wanted = [row for kind in (UNDER_CONTRACT, FOR_SALE, FAILED) for row in rows if view.kind[row] == kind]
    by_row = {c.row: c for c in candidates(opened.standpoint, np.array(wanted, dtype=np.int64))}
    return [by_row[row] for row in wanted if row in by_row]


def rival_rows(opened: Opened) -> Ints:
    """The homes for sale that this one competes with: those found and those kept, without what was set aside."""
    columns, view = opened.standpoint.columns, opened.standpoint.view
    decided = {choice: [columns.row_of[k] for k, made in opened.state.decisions.items() if made.choice == choice and k in columns.row_of]
               for choice in ("kept", "set_aside")}  # fmt: skip
    rows = np.union1d(found_rows(opened), np.array(decided["kept"], dtype=np.int64))
    stands: Ints = rows[(view.kind[rows] == FOR_SALE) & ~np.isin(rows, decided["set_aside"])]
    return stands


def _evidence(opened: Opened, days: int) -> Evidence | None:
    """What the sales around the home tell, by so many days: the same whichever comps are kept."""
    s, kept, stands = opened.standpoint, opened.standpoint.records.fitted, opened.stands
    wide = market_fit(s)
    if wide is None:
        return None
    model = wide_model(s.records, s.subject, s.view.day)
    return kept(
        (*stands, "evidence", days), lambda: evidence(s.columns, s.view, s.subject, days, shared=wide, model=model)
    )


def suggested(opened: Opened) -> list[str]:
    """The most alike sales of the search as it stands: what Rain Porch would keep."""
    here = found_candidates(opened)
    if len(found(opened).rows) > len(here):
        return [c.listing_id for c in most_alike(opened.standpoint, opened.state.search.search())]
    return [c.listing_id for c in here if c.kind == "sold"][: opened.standpoint.rules.whole("search.taken")]


def own_lines(state: WorkupDoc, rules: HouseRules) -> list[Own]:
    """Lines of the grid for the home's own features and for what its improvements return."""
    out = [
        Own(
            OWN_LINE + f.label,
            f.amount,
            "left to judgement: type an amount" if f.amount is None else "as the agent says",
        )
        for f in state.features
    ]
    if state.improvements:
        parts = improvements_return(state, rules)
        out.append(Own("improvements", sum(value for value, _ in parts), "; ".join(words for _, words in parts)))
    return out


def improvements_return(state: WorkupDoc, rules: HouseRules) -> list[tuple[float, str]]:
    """What each improvement adds, in dollars, with the sum behind it."""
    year = state.effective_date.year
    return [returned(x.improvement(), year, share_returned(x.kind, rules)) for x in state.improvements]
