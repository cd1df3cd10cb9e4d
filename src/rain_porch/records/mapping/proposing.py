"""A mapping proposed for a file: what each column is (core/intake/matching.py), made into the parts of which fields come."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import partial

from ...core.facts.fields import Field, Kind, own_field, own_name
from ...core.facts.people import tells_who_lives_there
from ...core.facts.sizes import SQFT_PER_ACRE
from ...core.facts.words import HOME_CODES, HomeKind, plain, status_of
from ...core.intake.cell_forms import ACRE_CELL, COMPACT, DIMENSIONS, MONTH, SERIAL, date_of
from ...core.intake.cells import Profile, profiles_of
from ...core.intake.heads import words_of
from ...core.intake.matching import SURE, Found, match
from ...core.intake.status_words import meanings, means_status
from ...core.intake.takes import taken_from
from ...core.intake.units import unit_of
from .mapping import Part, takes_own

JOINED = ("part:number", "part:before", "part:street", "part:type", "part:after")
_NOT_SURE = 0.6
_COUNTED = (
    "bedrooms_total",
    "bathrooms_full",
    "bathrooms_half",
    "fireplaces_total",
    "number_of_units_total",
    "entry_level",
    "main_level_bedrooms",
)


@dataclass(frozen=True)
class Guess:
    """One proposed part and how sure it is, from 0 to 1; `why` in a few words."""

    part: Part
    sure: float
    why: str


def propose(
    columns: Sequence[str], fields: Sequence[Field], rows: Sequence[Sequence[str]] = (), kind: str = "listings"
) -> list[Guess]:
    """The best part for each field, surest first. `rows`: the file's first cells."""
    return Proposal(columns, fields, profiles_of(len(columns), rows), kind).guesses()


def taken(guesses: Sequence[Guess]) -> tuple[Part, ...]:
    """The parts that are sure enough to be used unasked."""
    return tuple(g.part for g in guesses if g.sure >= SURE)


def own_of(column: str, profile: Profile) -> str | None:
    """The name under which a column would be kept as a field of the office's own, of the kind that its cells have; None for one that
    would tell who lives somewhere."""
    if tells_who_lives_there(column):
        return None
    words = profile.share(lambda c: c.lower() in ("y", "n", "yes", "no", "true", "false"))
    if profile.empty:
        kind = "words"
    elif words > 0.98:
        kind = "yes"
    elif profile.dated > 0.95:
        kind = "date"
    else:
        kind = "number" if profile.numeric > 0.95 else "words"
    return own_name(kind, column)


class Proposal:
    """What the columns of one file make together."""

    def __init__(self, columns: Sequence[str], fields: Sequence[Field], profiles: Sequence[Profile], kind: str) -> None:
        self.columns, self.profiles = columns, profiles
        self.fields = {f.name: f for f in fields}
        own = {c for c in columns if own_field(c) is not None} if takes_own(fields) else set()
        heads = ["" if c in own else c for c in columns]
        self.found: dict[str, Found] = {f.target: f for f in match(heads, profiles, kind)}
        self.own = [c for c in columns if c in own]
        self._made: dict[str, Guess] = {}

    def guesses(self) -> list[Guess]:
        for target, found in self.found.items():
            if target in self.fields:
                self._add(self._one(target, found), found.sure, found.why)
        for column in self.own:
            self._made[column] = Guess(Part(column, (column,)), 1.0, "a field of your own")
        self._place()
        self._baths()
        self._lot()
        self._dates()
        self._rest()
        return sorted(self._made.values(), key=lambda g: -g.sure)

    # one column, one field

    def _one(self, name: str, found: Found) -> Part:
        head, p = self.columns[found.column], self.profiles[found.column]
        f = self.fields[name]
        take = self._take(f, p)
        times = 1.0 if take == "lot" else unit_of(head, name, p)
        return Part(name, (head,), times=times, take=take, values=self._values(name, p))

    def _take(self, f: Field, p: Profile) -> str:
        if p.empty:
            return ""
        name, numeric = f.name, p.numeric >= 0.985
        if name == "garage_spaces":
            return "" if numeric else "garage"
        if name == "stories":
            return "" if numeric else "stories"
        if name in ("pool_private_yn", "waterfront_yn"):
            plain_yes = p.share(lambda c: c.lower() in ("y", "n", "yes", "no", "0", "1", "true", "false")) > 0.98
            return "" if plain_yes else "has"
        if name == "lot_size_square_feet" and p.share(lambda c: ACRE_CELL.search(c) or DIMENSIONS.match(c)) > 0.02:
            return "lot"
        if name == "postal_code":
            odd = p.share(lambda c: c.endswith(".0") or (c.isdigit() and len(c) in (4, 9)))
            return "postal_code" if odd > 0.02 else ""
        if name == "unparsed_address" and p.share(lambda c: taken_from("city", c)) > 0.6:
            return "street"
        if f.kind == Kind.DATE:
            return self._date_take(p)
        if name in _COUNTED and not numeric:
            return "count" if p.share(lambda c: c.lower() in ("y", "n", "yes", "no")) > 0.5 else "first_number"
        if f.kind in (Kind.NUMBER, Kind.YEAR) and p.numeric < 0.9 and p.within(f.low or 0, f.high or 1e9) > 0.9:
            return "first_number"
        return ""

    def _date_take(self, p: Profile) -> str:
        if p.share(lambda c: COMPACT.match(c) or SERIAL.match(c)) > 0.95:
            return "compact_date"
        months = p.share(lambda c: MONTH.match(c) and date_of(c) is None)
        return "month_date" if months > 0.5 else ""

    def _values(self, name: str, p: Profile) -> dict[str, str]:
        """{word in the file: word to take} for words that are short for others; those that are plain already are left."""
        if name == "standard_status":
            return self._status_values(p)
        if name == "property_sub_type":
            codes = {c: _KIND_WORDS[HOME_CODES[plain(c)]] for c in p.counts if plain(c) in HOME_CODES}
            return {c: to for c, to in codes.items() if to != c}
        if name == "special_listing_conditions":
            out = {c: _MANNERS[plain(c)] for c in p.counts if plain(c) in _MANNERS}
            return {**_MANNERS, **out} if out else {}
        return {}

    def _status_values(self, p: Profile) -> dict[str, str]:
        def known(*names: str) -> list[bool]:
            told = [self.profiles[self.found[n].column] for n in names if n in self.found]
            return [any(bool(q.cells[i]) for q in told) for i in range(len(p.cells))]

        closed, off = known("close_date", "close_price"), known("off_market_date", "part:withdrawn", "part:canceled")
        contract = known("purchase_contract_date")
        told = meanings([c if c in p.counts else "" for c in p.cells], closed, off, contract)
        return {
            m.word: m.status.value
            for m in told
            if m.status is not None and status_of(m.word) is None and m.status != means_status(m.word)
        }

    # several columns, or several facts in one

    def _place(self) -> None:
        if "unparsed_address" in self.fields:
            parts = [self.found[t] for t in JOINED if t in self.found]
            whole = self.found.get("unparsed_address")
            if {"part:number", "part:street"} <= {f.target for f in parts} and (whole is None or whole.sure < 0.9):
                self._add(
                    Part("unparsed_address", self._heads(parts)),
                    min(f.sure for f in parts if f.target in ("part:number", "part:street")),
                    "the parts of an address",
                    True,
                )
            elif (
                whole is None
                and "part:street" in self.found
                and self._profile("part:street").share(lambda c: c[:1].isdigit()) > 0.7
            ):
                found = self.found["part:street"]
                self._add(Part("unparsed_address", self._heads([found])), found.sure, found.why)
        whole = self.found.get("unparsed_address")
        if whole is not None and (p := self.profiles[whole.column]).share(lambda c: taken_from("city", c)) > 0.6:
            for name, take in (("city", "city"), ("postal_code", "postal")):
                if name not in self.found and p.share(partial(taken_from, take)) > 0.5:
                    self._add(Part(name, (self.columns[whole.column],), take=take), whole.sure, "stands in the address")
        if (point := self.found.get("part:point")) is not None and "latitude" not in self._made:
            for name in ("latitude", "longitude"):
                self._add(Part(name, (self.columns[point.column],), take=name), point.sure, "stands in the place")

    def _baths(self) -> None:
        baths, full, half = (self.found.get(t) for t in ("part:baths", "bathrooms_full", "bathrooms_half"))
        both = self.found.get("part:beds_baths")
        if both is not None:
            heads = (self.columns[both.column],)
            for name, take in (
                ("bedrooms_total", "bed"),
                ("bathrooms_full", "bed_full_baths"),
                ("bathrooms_half", "bed_half_baths"),
            ):
                if name not in self.found:
                    self._add(Part(name, heads, take=take), both.sure, "beds and baths in one column")
        if baths is not None and not (full and half):
            head, p = self.columns[baths.column], self.profiles[baths.column]
            mixed = p.share(lambda c: not c.replace(".0", "").isdigit() and not c.removesuffix(".00").isdigit()) > 0.01
            if full is None:
                if mixed:
                    self._add(
                        Part("bathrooms_full", (head,), take="full_baths"), baths.sure, "full and half in one column"
                    )
                elif half is not None and "total" in words_of(head):
                    self._add(
                        Part("bathrooms_full", (head, self.columns[half.column]), "difference"),
                        baths.sure,
                        "all less the half ones",
                    )
                else:
                    self._add(Part("bathrooms_full", (head,)), baths.sure, baths.why)
            if half is None:
                if mixed:
                    self._add(
                        Part("bathrooms_half", (head,), take="half_baths"), baths.sure, "full and half in one column"
                    )
                elif full is not None:
                    self._add(
                        Part("bathrooms_half", (head, self.columns[full.column]), "difference"),
                        baths.sure,
                        "all less the full ones",
                    )
        three = self.found.get("part:three_quarter")
        if (
            three is not None
            and (made := self._made.get("bathrooms_full")) is not None
            and made.part.how == "join"
            and not made.part.take
        ):
            self._add(
                Part("bathrooms_full", (*made.part.columns, self.columns[three.column]), "sum"),
                made.sure,
                "full and three-quarter baths",
                True,
            )

    def _lot(self) -> None:
        name = "lot_size_square_feet"
        acres, dimensions = self.found.get("part:acres"), self.found.get("part:dimensions")
        if name not in self.fields:
            return
        lot = self.found.get(name)
        if acres is not None and (
            lot is None or self.profiles[lot.column].filled < self.profiles[acres.column].filled - 0.1
        ):
            p = self.profiles[acres.column]
            units = p.share(ACRE_CELL.search) > 0.5
            times = 1.0 if units else SQFT_PER_ACRE * unit_of(self.columns[acres.column], "part:acres", p)
            self._add(
                Part(name, (self.columns[acres.column],), times=times, take="lot" if units else ""),
                acres.sure,
                "acres",
                True,
            )
        elif lot is None and dimensions is not None:
            self._add(
                Part(name, (self.columns[dimensions.column],), take="lot"), dimensions.sure, "its sides multiplied"
            )
        if dimensions is not None and "frontage_length" not in self.found and "frontage_length" in self.fields:
            self._add(
                Part("frontage_length", (self.columns[dimensions.column],), take="side"),
                dimensions.sure * 0.9,
                "the first side",
            )
        total, unfinished = self.found.get("part:basement_total"), self.found.get("part:basement_unfinished")
        finished = self.found.get("below_grade_finished_area")
        if total and unfinished and (finished is None or finished.sure < 0.9):
            self._add(
                Part("below_grade_finished_area", self._heads([total, unfinished]), "difference"),
                min(total.sure, unfinished.sure),
                "the basement less what is unfinished",
                True,
            )

    def _dates(self) -> None:
        if "off_market_date" in self.fields:
            several = [self.found[t] for t in ("off_market_date", "part:withdrawn", "part:canceled") if t in self.found]
            if several and (len(several) > 1 or several[0].target != "off_market_date"):
                take = self._date_take(self.profiles[several[0].column])
                self._add(
                    Part("off_market_date", self._heads(several), "first" if len(several) > 1 else "join", take=take),
                    min(f.sure for f in several),
                    "the first of them that is known",
                    True,
                )
        year, month = self.found.get("part:close_year"), self.found.get("part:close_month")
        if year and month and "close_date" in self.fields and "close_date" not in self.found:
            self._add(
                Part("close_date", self._heads([year, month]), "date"),
                min(year.sure, month.sure),
                "year and month; the 15th is taken",
            )

    def _rest(self) -> None:
        garage = self.found.get("garage_spaces")
        if garage is not None and "attached_garage_yn" in self.fields and "attached_garage_yn" not in self.found:
            p = self.profiles[garage.column]
            if p.share(lambda c: taken_from("attached", c)) > 0.1:
                self._add(
                    Part("attached_garage_yn", (self.columns[garage.column],), take="attached"),
                    garage.sure,
                    "beside the spaces",
                )
        status = self.found.get("standard_status")
        if status is not None and "local_status" in self.fields and "local_status" not in self.found:
            p = self.profiles[status.column]
            if p.share(lambda c: (s := means_status(c)) is not None and s.value != c) > 0:
                self._add(Part("local_status", (self.columns[status.column],)), status.sure, "the source's own words")
        fee = self.found.get("association_fee")
        if (
            fee is not None
            and "association_fee_frequency" in self.fields
            and "association_fee_frequency" not in self.found
        ):
            words = words_of(self.columns[fee.column])
            said = next(
                (
                    to
                    for w, to in (
                        ("month", "Monthly"),
                        ("monthly", "Monthly"),
                        ("year", "Annually"),
                        ("annual", "Annually"),
                        ("quarterly", "Quarterly"),
                        ("qtr", "Quarterly"),
                    )
                    if w in words
                ),
                None,
            )
            if said:
                self._add(
                    Part("association_fee_frequency", constant=said), fee.sure, f"“{self.columns[fee.column]}” says so"
                )

    # helpers

    def _profile(self, target: str) -> Profile:
        return self.profiles[self.found[target].column]

    def _heads(self, found: Sequence[Found]) -> tuple[str, ...]:
        return tuple(self.columns[f.column] for f in found)

    def _add(self, part: Part, sure: float, why: str, instead: bool = False) -> None:
        if part.field in self.fields and (instead or part.field not in self._made):
            self._made[part.field] = Guess(part, sure, why)


# words that are plain by themselves ("Family", "Short Sale") stay as they are
_MANNERS = {
    "adjland": "Not Arms Length", "alloca": "Not Arms Length", "reo": "Real Estate Owned", "ss": "Short Sale", "bo": "Real Estate Owned", "fc": "Foreclosure",
    "fcl": "Foreclosure", "auc": "Auction", "std": "Standard", "sht": "Short Sale", "shortsl": "Short Sale", "bank": "Real Estate Owned",
}  # fmt: skip
_KIND_WORDS = {
    HomeKind.DETACHED: "Single Family Residence", HomeKind.ATTACHED: "Townhouse", HomeKind.CONDOMINIUM: "Condominium",
    HomeKind.COOPERATIVE: "Stock Cooperative", HomeKind.MANUFACTURED: "Manufactured Home", HomeKind.SMALL_MULTI_FAMILY: "Duplex",
    HomeKind.LAND: "Unimproved Land", HomeKind.ACREAGE: "Farm",
}  # fmt: skip
