"""The agent's workups: made from a home, changed step by step, computed afresh from the records, undone."""

from __future__ import annotations

import datetime as dt
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from ..core.carrying import carried
from ..core.errors import BadInput, Odd, Refused
from ..core.fields import BY_NAME, Kind
from ..core.grid import Own
from ..core.homes import Subject
from ..core.improvements import returned
from ..core.oddness import odd_fact, odd_price
from ..core.search import Search, check, unknown_mask
from ..core.sentence import sentence
from ..report.model import ReportInput
from ..store import choices, kept
from ..store import clients as people
from ..store import db as database
from ..store import deliveries as delivered
from ..store import searches as kept_searches
from ..store import views as saved
from ..store import workups as store
from . import changes
from .changes import Change
from .documents import PriceDoc, SearchDoc
from .handing import report_input
from .homes import Home, HomeRef, read_home
from .pricing import Decided, Pricing, Setting, candidates, most_alike, price
from .records import Records
from .stored import DecisionDoc, HomeRefDoc, PaperDoc, SavedSearchDoc, WorkupDoc
from .views import ViewDoc

OWNER = 1
NO_ROWS = np.zeros(0, dtype=np.int64)


@dataclass(frozen=True)
class Opened:
    """A workup with what it stands on."""

    workup_id: int
    revision: int
    state: WorkupDoc
    home: Home
    subject: Subject
    setting: Setting


class Workups:
    """porch.db of the same folder as the records. `now` is the only clock."""

    def __init__(self, records: Records, now: Callable[[], dt.datetime] = dt.datetime.now) -> None:
        self.records = records
        self.now = now
        self.db = database.open_database(records.folder, database.PORCH)
        # workup → (revision and version of the records, where it stood then)
        self.standings: dict[int, tuple[tuple[int, int], Any]] = {}

    def __enter__(self) -> Workups:
        return self

    def __exit__(self, *_: object) -> None:
        self.db.close()

    def _stamp(self) -> str:
        return self.now().isoformat(timespec="seconds")

    # --- making and changing

    def create(self, ref: HomeRef, as_of: dt.date | None = None) -> int:
        """A workup with the proposed search, as of the records' newest day unless another is given."""
        if as_of is not None:
            self._not_to_come(as_of)
        home = read_home(self.records, ref)
        setting = Setting.at(self.records, home.subject, self.records.effective_day(as_of))
        state = WorkupDoc(
            home=HomeRefDoc.model_validate({"kind": ref.kind, "key": ref.key}),
            address=home.subject.address or ref.key,
            effective_date=as_of or self.records.through(),
            search=SearchDoc.of(setting.proposed()),
        )
        return store.create(self.db, OWNER, state.address, state.model_dump_json(), "workup begun", self._stamp())

    def save_priced(self, home: Home, doc: PriceDoc, comps: list[str]) -> int:
        """A workup of a price found on the command line, with its comps kept."""
        state = WorkupDoc(
            home=HomeRefDoc.model_validate({"kind": home.ref.kind, "key": home.ref.key}),
            address=home.subject.address or home.ref.key,
            effective_date=doc.effective_date,
            search=doc.search,
            decisions={key: DecisionDoc(choice="kept") for key in comps},
        )
        return store.create(self.db, OWNER, state.address, state.model_dump_json(), "priced", self._stamp())

    def change(self, workup_id: int, revision: int, change: Change) -> tuple[int, str]:
        """Apply one change to the revision that was read; returns the new revision and what was done."""
        if isinstance(change, changes.SetDate):
            self._not_to_come(change.effective_date)
        held = store.read(self.db, OWNER, workup_id)
        before = WorkupDoc.model_validate_json(held["document"])
        state, what = changes.apply(before, change)
        if isinstance(change, changes.CorrectFact):
            home = read_home(self.records, HomeRef(state.home.kind, state.home.key)).subject
            _ask_about_fact(change, home, state.effective_date.year)
            state = self._search_follows(home, before, state)
        if isinstance(change, changes.SetListPrice):
            self._ask_about_price(change, state)
        if isinstance(change, changes.SetSearch):
            self._check_search(state.search.search())
        number = store.save(
            self.db, OWNER, workup_id, revision, held["title"], state.model_dump_json(), what, self._stamp()
        )
        return number, what

    def _ask_about_price(self, change: changes.SetListPrice, state: WorkupDoc) -> None:
        """Raises Odd for a list price far from the comps', unless the agent is sure."""
        if change.sure or change.list_price is None:
            return
        if question := odd_price(change.list_price, self._usual_price(state)):
            raise Odd("list_price", f"{question} Is it so?")

    def _usual_price(self, state: WorkupDoc) -> float | None:
        """The middle of what the kept comps cost; None before any is kept."""
        columns = self.records.columns()
        rows = [row for key in state.kept() if (row := columns.row_of.get(key)) is not None]
        prices = columns.as_of(self.records.effective_day(state.effective_date)).price[rows]
        prices = prices[np.isfinite(prices)]
        return float(np.median(prices)) if prices.size else None

    def _search_follows(self, home: Subject, before: WorkupDoc, state: WorkupDoc) -> WorkupDoc:
        """A search that is still the proposed one is proposed anew when the home's facts change."""
        day = self.records.effective_day(state.effective_date)

        def proposed(of: WorkupDoc) -> SearchDoc:
            return SearchDoc.of(Setting.at(self.records, home.corrected(of.corrections), day).proposed())

        if before.search != proposed(before):
            return state
        return state.model_copy(update={"search": proposed(state)})

    def _check_search(self, search: Search) -> None:
        """Raises BadInput or NotFound for a search that could not be run."""
        check(search)
        self.records.masks_of(search)
        for c in (c for c in search.criteria if BY_NAME[c.field].kind != Kind.TEXT):
            unknown_mask(c, self.records.columns(), NO_ROWS)

    def _not_to_come(self, day: dt.date) -> None:
        if day > self.records.today():
            raise BadInput("effective_date", f"{day} is still to come: choose today or an earlier day.")

    def undo(self, workup_id: int) -> str | None:
        return store.undo(self.db, OWNER, workup_id, self._stamp())

    def history(self, workup_id: int) -> list[dict[str, Any]]:
        store.read(self.db, OWNER, workup_id)
        return store.history(self.db, OWNER, workup_id)

    def delete(self, workup_id: int) -> None:
        store.delete(self.db, OWNER, workup_id)

    def rows(self) -> list[dict[str, Any]]:
        """Every workup with where it stands, newest change first."""
        out = []
        given: dict[int, str] = {}
        for d in delivered.listed(self.db, OWNER):
            to = f" to {d['client'] or d['email']}" if d["client"] or d["email"] else ""
            given.setdefault(d["workup_id"], f"delivered{to} on {d['made_at'][:10]}")
        for row in store.listed(self.db, OWNER):
            state = WorkupDoc.model_validate_json(row.pop("document"))
            out.append({**row, "kept": len(state.kept()), "list_price": state.list_price,
                        "effective_date": state.effective_date.isoformat(), "client": state.client,
                        "delivered": given.get(row["workup_id"])})  # fmt: skip
        return out

    # --- computing

    def open(self, workup_id: int) -> Opened:
        """Raises NotFound for a workup, or a home of one, that is not there any more."""
        held = store.read(self.db, OWNER, workup_id)
        state = WorkupDoc.model_validate_json(held["document"])
        home = read_home(self.records, HomeRef(state.home.kind, state.home.key))
        subject = home.subject.corrected(state.corrections)
        if state.place is not None:
            subject = replace(subject, longitude=state.place[0], latitude=state.place[1])
        setting = Setting.at(self.records, subject, self.records.effective_day(state.effective_date))
        return Opened(workup_id, int(held["revision"]), state, home, subject, setting)

    def priced(self, opened: Opened) -> Pricing:
        """Grid and worth of the kept comps, in the order in which they were kept."""
        columns = opened.setting.columns
        rows = [columns.row_of[key] for key in opened.state.kept() if key in columns.row_of]
        found = {c.listing_id: c for c in candidates(opened.setting, np.array(rows, dtype=np.int64))}
        kept = [found[key] for key in opened.state.kept() if key in found]
        state = opened.state
        decided = Decided(rates=state.rates, cells=state.cells, weights=state.weights, conditions=state.conditions,
                          own=own_lines(state))  # fmt: skip
        return price(opened.setting, kept, decided=decided)

    def suggested(self, opened: Opened) -> list[str]:
        """The most alike sales of the search as it stands: what Rain Porch would keep."""
        return [c.listing_id for c in most_alike(opened.setting, opened.state.search.search())]

    def report_input(self, workup_id: int) -> ReportInput:
        return report_input(self, workup_id)

    def views(self) -> list[dict[str, Any]]:
        """Saved market views by name."""
        rows = saved.listed(self.db, OWNER)
        return [
            {"view_id": r["view_id"], "name": r["name"], "pinned": bool(r["pinned"]),
             "view": ViewDoc.model_validate_json(r["document"])}
            for r in rows
        ]  # fmt: skip

    def save_view(self, name: str, view: ViewDoc, pinned: bool, replace_it: bool = False) -> int:
        """Refused where another view has the name, unless that one is to be replaced."""
        if not replace_it:
            self._free_name(name)
        return saved.keep(self.db, OWNER, name, view.model_dump_json(), pinned)

    def _free_name(self, name: str, besides: int | None = None) -> None:
        if any(v["name"] == name and v["view_id"] != besides for v in self.views()):
            raise Refused(f"A view is called “{name}” already: give another name, or replace it.", field="name")

    def change_view(self, view_id: int, name: str, view: ViewDoc, pinned: bool) -> None:
        """Raises Refused where another view has the name, NotFound where there is no such view."""
        self._free_name(name, besides=view_id)
        saved.change(self.db, OWNER, view_id, name, view.model_dump_json(), pinned)

    def delete_view(self, view_id: int) -> None:
        saved.delete(self.db, OWNER, view_id)

    def searches(self) -> list[tuple[int, str, str]]:
        """Saved searches: (number, name, sentence)."""
        return [
            (n, name, sentence(SavedSearchDoc.model_validate_json(held).search.search()))
            for n, name, held in kept_searches.listed(self.db, OWNER)
        ]

    def save_search(self, workup_id: int, name: str) -> int:
        """Keep a workup's search under a name, with the home it lies about."""
        opened = self.open(workup_id)
        doc = SavedSearchDoc(
            search=opened.state.search, facts=dict(opened.subject.facts), home_kind=opened.subject.home_kind.value
        )
        return kept_searches.keep(self.db, OWNER, name, doc.model_dump_json())

    def carried_search(self, workup_id: int, search_id: int) -> tuple[Search, list[str]]:
        """A saved search about this workup's home, and what stayed behind."""
        held = SavedSearchDoc.model_validate_json(kept_searches.read(self.db, OWNER, search_id))
        return carried(held.search.search(), held.facts, held.home_kind, self.open(workup_id).subject)

    def delete_search(self, search_id: int) -> None:
        kept_searches.delete(self.db, OWNER, search_id)

    # --- layouts of reports

    def layouts(self) -> list[tuple[int, str, PaperDoc]]:
        """Layouts kept by name: (number, name, paper)."""
        held = kept.listed(self.db, OWNER, kept.LAYOUT)
        return [(k.kept_id, k.name, PaperDoc.model_validate_json(k.document)) for k in held]

    def keep_layout(self, name: str, paper: PaperDoc) -> int:
        """Keep pages, order and options; what belongs to one home (title, letter, comments) stays behind."""
        document = paper.model_copy(update={"title": "", "letter": "", "notes": {}}).model_dump_json()
        for k in kept.listed(self.db, OWNER, kept.LAYOUT):
            if k.name == name:
                kept.write(self.db, OWNER, kept.LAYOUT, k.kept_id, name, document)
                return k.kept_id
        return kept.add(self.db, OWNER, kept.LAYOUT, name, document)

    def delete_layout(self, layout_id: int) -> None:
        kept.delete(self.db, OWNER, kept.LAYOUT, layout_id)

    # --- whom it is for

    def clients(self) -> list[dict[str, Any]]:
        return people.listed(self.db, OWNER)

    def add_clients(self, given: Sequence[Mapping[str, str]]) -> list[int]:
        return people.add(self.db, OWNER, given)

    def change_client(self, client_id: int, person: Mapping[str, str]) -> None:
        people.change(self.db, OWNER, client_id, person)

    def delete_client(self, client_id: int) -> None:
        people.delete(self.db, OWNER, client_id)

    def let_wait(self) -> None:
        """When the service starts, no message is on its way any more: what was being sent waits for another try."""
        delivered.let_wait(self.db)

    def deliveries(self, workup_id: int | None = None) -> list[dict[str, Any]]:
        return delivered.listed(self.db, OWNER, workup_id)

    def delivered_paper(self, delivery_id: int, form: str) -> bytes:
        return delivered.paper(self.db, OWNER, delivery_id, form)

    def card(self) -> dict[str, Any]:
        """The agent's name, licence and contact, as they go on paper."""
        held: dict[str, Any] = choices.read(self.db, OWNER, choices.AGENT_CARD) or {}
        return held

    def set_card(self, card: dict[str, Any]) -> None:
        choices.write(self.db, OWNER, choices.AGENT_CARD, card)

    def chosen_columns(self) -> tuple[list[str], list[str]]:
        """Columns of the table of homes, and of the table of land; none where none were chosen."""
        built, land = (choices.read(self.db, OWNER, name) or [] for name in (choices.COLUMNS, choices.LAND_COLUMNS))
        return built, land

    def choose_columns(self, built: list[str], land: list[str]) -> None:
        choices.write(self.db, OWNER, choices.COLUMNS, built)
        choices.write(self.db, OWNER, choices.LAND_COLUMNS, land)


def _ask_about_fact(change: changes.CorrectFact, home: Subject, year: int) -> None:
    """Raises Odd for a fact that is possible but strange, unless the agent is sure."""
    if change.sure or not isinstance(change.value, float):
        return
    if question := odd_fact(change.field, change.value, home.number(change.field), year):
        raise Odd(change.field, f"{question} Is it so?")


def own_lines(state: WorkupDoc) -> list[Own]:
    """Lines of the grid for the home's own features and for what its improvements return."""
    out = [
        Own(
            changes.OWN + f.label,
            f.amount,
            "left to judgement: type an amount" if f.amount is None else "as the agent says",
        )
        for f in state.features
    ]
    if state.improvements:
        year = state.effective_date.year
        parts = [returned(x.improvement(), year) for x in state.improvements]
        out.append(Own("improvements", sum(value for value, _ in parts), "; ".join(words for _, words in parts)))
    return out
