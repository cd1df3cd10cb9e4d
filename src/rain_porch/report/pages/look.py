"""Pages of a look with nothing kept: one page for a kerb, or a packet: figures, map, one line a home, a sheet a home."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any

from ...core.facts.local_form import USUAL, LocalForm
from ...core.facts.money import dollars, half_up, priced
from ..blocks import Block, figures, heading, page, para, picture, table
from ..pictures.maps import map_svg
from ..pictures.size import size_svg
from ..wording import day, distance, fact, facts_line, label, per_sqft_alone

Doc = Mapping[str, Any]
SAID = {
    "sold": "sold",
    "deed_sale": "sold by deed",
    "under_contract": "under contract",
    "for_sale": "for sale",
    "failed": "failed",
    "": "all",
}
ON_ONE_PAGE, ROWS, SHEETS = 14, 23, 40  # homes on the one page at most; its rows in all; sheets
FEW = 12  # lines that go under the page before, where it has the room
SHEET_FACTS = ("living_area", "below_grade_finished_area", "bedrooms_total", "bathrooms", "garage_spaces", "basement", "lot_size_square_feet",
               "year_built", "stories", "architectural_style", "property_condition", "fireplaces_total", "heating", "cooling",
               "pool_private_yn", "association_fee", "tax_annual_amount", "subdivision_name")  # fmt: skip


@dataclass(frozen=True)
class LookInput:
    """homes: the documents of the homes spoken of, in their order; summaries: the figures' document; chosen: whether these are
    the ticked of more that were found. subject: its document, placed None where there is no home. asks: the home's own list price
    and the like, where it is now for sale. pictures: SVG by listing number. form: in which sizes are drawn."""

    title: str
    sentence: str
    subject: Doc
    homes: Sequence[Doc]
    found: int
    chosen: bool
    summaries: Doc
    asks: Mapping[str, float]
    search: Doc
    base_map: Doc
    pictures: Mapping[str, str] = field(default_factory=dict)
    form: LocalForm = USUAL

    @property
    def whose(self) -> str:
        """Of which homes a page speaks."""
        n = len(self.homes)
        return f"the {n} chosen of {self.found:,} found" if self.chosen else f"all {n:,} found"


def one_page(given: LookInput) -> list[dict[str, Any]]:
    """What a buyer is handed at the kerb: the figures, the map, the homes; as many of them as one page holds."""
    told = _figure_table(given, ("price", "price_per_sqft", "days_on_market"), ("low", "mean", "median", "high"))
    return [
        page(
            "look", given.title, _key_figures(given), _ask(given),
            picture(_map(given, 160, ON_ONE_PAGE), "Map of the homes") if _placed(given) else None,
            told, *_homes(given, max(5, ROWS - (len(told["rows"]) if told else 0))), lead=_lead(given),
        )
    ]  # fmt: skip


def packet(given: LookInput) -> list[dict[str, Any]]:
    """Figures and criteria, one line a home, the map, and a sheet for each."""
    names = [f["field"] for f in given.summaries["fields"]]
    drawn = size_svg(
        list(enumerate(given.homes, 1)), given.asks.get("living_area"), given.asks.get("list_price"), form=given.form
    )
    return [
        page("look", given.title, _key_figures(given), _ask(given),
             _figure_table(given, names, ("low", "mean", "median", "high", "mode")),
             lead=_lead(given)),
        page("look lines", "One line a home", _line_table(given), lead=f"Of {given.whose}.", flow=len(given.homes) <= FEW),
        *([page("look map", "Where they stand", picture(_map(given, 330), "Map of the homes", "Numbered as in the lines and on the sheets."),
                *([heading("Price against size"), picture(drawn, "Each home by its size and price")] if drawn else ()))] if _placed(given) else ()),
        *(_sheet(given, n, home) for n, home in enumerate(given.homes[:SHEETS], 1)),
    ]  # fmt: skip


def _lead(given: LookInput) -> str:
    return f"{given.sentence} {given.whose[0].upper()}{given.whose[1:]}."


def _placed(given: LookInput) -> bool:
    return any(h["latitude"] is not None for h in given.homes)


def _map(given: LookInput, height: float, numbered: int = 24) -> str:
    """The first homes by their numbers, the others as marks."""
    homes = given.homes
    return map_svg(given.subject, homes[numbered:], homes[:numbered], given.base_map, given.search, height=height)


def _parts(given: LookInput, name: str) -> list[Doc]:
    of = next((f for f in given.summaries["fields"] if f["field"] == name), None)
    return [] if of is None else list(of["chosen"] if given.chosen else of["kinds"])


def _best(given: LookInput, name: str) -> tuple[str, Doc] | None:
    """The figures of the sold, else of all: (of what, figures)."""
    parts = {k["kind"]: k for k in _parts(given, name)}
    kind = "sold" if "sold" in parts else ""
    return (SAID[kind], parts[kind]) if kind in parts else None


def _key_figures(given: LookInput) -> Block | None:
    told = _best(given, "price")
    if told is None:
        return None
    what, s = told
    return figures(
        [
            (f"Median, {s['count']} {what}", priced(half_up(s["median"], 100)), "moss"),
            ("Lowest", priced(s["low"]), "slate"),
            ("Mean", priced(half_up(s["mean"], 100)), "slate"),
            ("Highest", priced(s["high"]), "slate"),
        ]
    )


def _ask(given: LookInput) -> Block | None:
    """The home's own list price against what was paid around it."""
    price, per = given.asks.get("list_price"), given.asks.get("list_price_per_sqft")
    told, told_per = _best(given, "price"), _best(given, "price_per_sqft")
    if price is None or told is None:
        return None
    what, s = told
    words = [f"This home is offered at {priced(price)}, {_against(price, s)} of the {s['count']} {what}"]
    if per is not None and told_per is not None:
        words.append(f"at {per:,.2f} per sq ft, {_against(per, told_per[1])}")
    return para(f"{'; '.join(words)}.")


def _against(value: float, s: Doc) -> str:
    """ "4.1 % above the mean"."""
    pct = 100 * (value - s["mean"]) / s["mean"]
    return "at the mean" if abs(pct) < 0.05 else f"{abs(pct):.1f} % {'above' if pct > 0 else 'below'} the mean"


_SHOW: dict[str, Callable[[float], str]] = {
    "money": dollars,
    "per": lambda v: f"{v:,.2f}",
    "number": lambda v: f"{v:,.0f}",
    "share": lambda v: f"{100 * v:.1f} %",
}
_HEADS = {"low": "low", "mean": "mean", "median": "median", "high": "high", "mode": "mode"}


def _figure_table(given: LookInput, names: Sequence[str], ways: Sequence[str]) -> Block | None:
    rows = []
    for f in given.summaries["fields"]:
        parts = f["chosen"] if given.chosen else f["kinds"]
        for k in parts if f["field"] in names else ():
            if not k["kind"]:
                continue  # what was paid and what is asked make no one figure
            show = _SHOW[f["show"]]
            cells = [
                (" or ".join(show(m) for m in k["modes"]) if 0 < len(k["modes"]) < 3 else "—")
                if way == "mode"
                else show(k[way])
                for way in ways
            ]
            rows.append([f["label"], SAID.get(k["kind"], k["kind"]), f"{k['count']:,}", *cells])
    if not rows:
        return None
    for before, row in zip(reversed(rows[:-1]), reversed(rows[1:]), strict=True):
        if row[0] == before[0]:
            row[0] = ""
    return table(
        ["", "", "homes", *(_HEADS[w] for w in ways)], rows, words=2, widths=(1.7, 1.2, 0.7, *([1.1] * len(ways)))
    )


def _homes(given: LookInput, most: int) -> list[Block]:
    rows = [
        [
            f"{n}. {h['address'] or h['listing_id']}", f"{_status(h)}{', ' + day(h['date']) if h['date'] else ''}", dollars(h["price"]) if h["price"] else "—",
            per_sqft_alone(h["price_per_sqft"]) or "—", fact(h["facts"], "living_area"), fact(h["facts"], "bedrooms_total"),
            _before(h),
        ]
        for n, h in enumerate(given.homes[: min(most, ON_ONE_PAGE)], 1)
    ]  # fmt: skip
    left = len(given.homes) - len(rows)
    out = [
        table(
            ["home", "", "price", "$/sq ft", "sq ft", "beds", "paid before"],
            rows,
            words=2,
            widths=(2.1, 2.5, 0.9, 0.7, 0.6, 0.5, 1.2),
        )
    ]
    return [*out, para(f"And {left:,} more.", small=True)] if left > 0 else out


def _status(home: Doc) -> str:
    return str(home["status"] or SAID.get(home["kind"], home["kind"])).lower()


def _before(home: Doc) -> str:
    paid = home["prices"].get("paid_before")
    return "—" if paid is None else f"{dollars(paid)}, {str(home['paid_before_on'])[:4]}"


def _money(value: float | None) -> str:
    return "—" if value is None else dollars(value)


def _share(value: float | None) -> str:
    return "—" if value is None else f"{100 * value:.1f} %"


def _line_table(given: LookInput) -> Block:
    rows = [
        [
            f"{n}. {h['address'] or h['listing_id']}", _status(h), _money(h["facts"].get("original_list_price")), _money(h["list_price"]),
            _money(h["price"]) if h["kind"] in ("sold", "deed_sale") else "—", _share(h["prices"].get("share_of_original")), _share(h["prices"].get("share_of_list")),
            _count(h["days_on_market"]), _count(h["prices"].get("cumulative_days_on_market")),
        ]
        for n, h in enumerate(given.homes, 1)
    ]  # fmt: skip
    heads = ["home", "", "first list", "last list", "sold", "of first", "of last", "days", "all days"]
    return table(heads, rows, words=2, widths=(2.4, 1.1, 1, 1, 1, 0.8, 0.8, 0.6, 0.7))


def _count(value: float | None) -> str:
    return "—" if value is None else f"{value:,.0f}"


def _sheet(given: LookInput, number: int, home: Doc) -> dict[str, Any]:
    """One home whole; nobody's name is on it."""
    front = given.pictures.get(home["listing_id"])
    steps = [
        ["First list price", _money(home["facts"].get("original_list_price"))],
        ["Last list price", _money(home["list_price"])],
        *([["Sold for", f"{_money(home['price'])}, {day(home['date'])}"]] if home["kind"] in ("sold", "deed_sale") else []),
        *([["Share of the first and last list price", f"{_share(home['prices'].get('share_of_original'))}, {_share(home['prices'].get('share_of_list'))}"]]
          if home["kind"] in ("sold", "deed_sale") else []),
        ["Price per sq ft", per_sqft_alone(home["price_per_sqft"]) or "—"],
        ["Days on the market; with the listings before", f"{_count(home['days_on_market'])}; {_count(home['prices'].get('cumulative_days_on_market'))}"],
        ["Paid for it the time before", _before(home) if home["prices"].get("paid_before") is None else f"{_money(home['prices']['paid_before'])}, {day(home['paid_before_on'])}"],
    ]  # fmt: skip
    known = [[label(n), fact(home["facts"], n)] for n in SHEET_FACTS if fact(home["facts"], n) != "—"]
    where = (
        f", {distance(home['distance_miles'])} mi away"
        if home["distance_miles"] is not None and given.subject.get("placed")
        else ""
    )
    return page(
        f"look sheet {number}", f"{number}. {home['address'] or home['listing_id']}",
        picture(front, f"Front of {home['address']}", width=0.62) if front else None,
        table(["", ""], steps, widths=(2, 1.4)), heading("The home"), table(["", ""], known, widths=(2, 1.4)) if known else None,
        lead=f"{_status(home).capitalize()}{', ' + day(home['date']) if home['date'] else ''}{where}. {facts_line(home['facts'])}",
    )  # fmt: skip
