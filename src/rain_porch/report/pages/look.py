"""Pages of a look with nothing kept: one page for a kerb, or a packet: figures, map, one line a home, a sheet a home."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any

from ...core.facts.local_form import USUAL, LocalForm, Quantity
from ...core.facts.money import dollars, half_up, priced
from ...core.facts.words import TOLD_APART, Status, status_words
from ...core.phrases import joined, phrase, phrases_of, sentence_case
from ..blocks import Block, figures, heading, page, para, picture, table
from ..pictures.maps import map_svg
from ..pictures.size import size_svg
from ..speaking import KINDS, SOLD
from ..wording import day, distance, fact, facts_line, label, per_sqft_alone
from .readings import one_or_two

Doc = Mapping[str, Any]
ON_ONE_PAGE, ROWS, SHEETS = 14, 23, 40  # homes on the one page at most; its rows in all; sheets
FEW = 12  # lines that go under the page before, where it has the room
SHEET_FACTS = ("living_area", "below_grade_finished_area", "bedrooms_total", "bathrooms", "garage_spaces", "basement", "lot_size_square_feet",
               "year_built", "stories", "architectural_style", "property_condition", "fireplaces_total", "heating", "cooling",
               "pool_private_yn", "association_fee", "tax_annual_amount", "subdivision_name")  # fmt: skip


def kind_said(kind: str) -> str:
    """ "sold", "sold by deed", "all"; a kind that has no phrase as it is."""
    return phrase(f"kind-{kind or 'all'}") if kind in ("", *KINDS) else kind


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
        return phrase("look-whose-chosen" if self.chosen else "look-whose-found", n=n, found=self.found)


def one_page(given: LookInput) -> list[dict[str, Any]]:
    """What a buyer is handed at the kerb: the figures, the map, the homes; as many of them as one page holds."""
    told = _figure_table(given, ("price", "price_per_sqft", "days_on_market"), ("low", "mean", "median", "high"))
    return [
        page(
            "look", given.title, _key_figures(given), _ask(given),
            picture(_map(given, 160, ON_ONE_PAGE), phrase("look-map-alt")) if _placed(given) else None,
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
        page("look lines", phrase("look-lines-title"), _line_table(given), lead=phrase("of-homes", whose=given.whose), flow=len(given.homes) <= FEW),
        *([page("look map", phrase("look-map-title"), picture(_map(given, 330), phrase("look-map-alt"), phrase("look-map-key")),
                *([heading(phrase("look-size-title")), picture(drawn, phrase("by-size-alt"))] if drawn else ()))] if _placed(given) else ()),
        *(_sheet(given, n, home) for n, home in enumerate(given.homes[:SHEETS], 1)),
    ]  # fmt: skip


def _lead(given: LookInput) -> str:
    return joined(given.sentence, f"{sentence_case(given.whose)}.")


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
    return (kind_said(kind), parts[kind]) if kind in parts else None


def _key_figures(given: LookInput) -> Block | None:
    told = _best(given, "price")
    if told is None:
        return None
    what, s = told
    return figures(
        [
            (phrase("look-median", n=s["count"], kind=what), priced(half_up(s["median"], 100)), "moss"),
            (phrase("look-lowest"), priced(s["low"]), "slate"),
            (phrase("look-mean"), priced(half_up(s["mean"], 100)), "slate"),
            (phrase("look-highest"), priced(s["high"]), "slate"),
        ]
    )


def _ask(given: LookInput) -> Block | None:
    """The home's own list price against what was paid around it."""
    price, per = given.asks.get("list_price"), given.asks.get("list_price_per_sqft")
    told, told_per = _best(given, "price"), _best(given, "price_per_sqft")
    if price is None or told is None:
        return None
    what, s = told
    words = {"price": priced(price), "against": _against(price, s), "n": s["count"], "kind": what}
    if per is None or told_per is None:
        return para(phrase("look-offered", **words))
    return para(phrase("look-offered-with-size", **words, per=f"{per:,.2f}", against_per=_against(per, told_per[1])))


def _against(value: float, s: Doc) -> str:
    """ "4.1 % above the mean"."""
    pct = 100 * (value - s["mean"]) / s["mean"]
    if abs(pct) < 0.05:
        return phrase("look-at-the-mean")
    return phrase(f"look-{'above' if pct > 0 else 'below'}-the-mean", pct=f"{abs(pct):.1f}")


_SHOW: dict[str, Callable[[float], str]] = {
    "money": dollars,
    "per": lambda v: Quantity(v, "$/sq ft", 2),
    "number": lambda v: f"{v:,.0f}",
    "share": lambda v: f"{100 * v:.1f} %",
    "living_area": lambda v: Quantity(v, "sq ft"),
}


def _figure_table(given: LookInput, names: Sequence[str], ways: Sequence[str]) -> Block | None:
    rows = []
    for f in given.summaries["fields"]:
        parts = f["chosen"] if given.chosen else f["kinds"]
        for k in parts if f["field"] in names else ():
            if not k["kind"]:
                continue  # what was paid and what is asked make no one figure
            show = _SHOW.get(f["field"]) or _SHOW[f["show"]]
            cells = [
                (one_or_two([show(m) for m in k["modes"]], given.form) or "—") if way == "mode" else show(k[way])
                for way in ways
            ]
            rows.append([f["label"], kind_said(k["kind"]), f"{k['count']:,}", *cells])
    if not rows:
        return None
    for before, row in zip(reversed(rows[:-1]), reversed(rows[1:]), strict=True):
        if row[0] == before[0]:
            row[0] = ""
    return table(
        phrases_of("", "", "head-homes", *(f"head-{way}" for way in ways)),
        rows,
        words=2,
        widths=(1.7, 1.2, 0.7, *([1.1] * len(ways))),
    )


def _homes(given: LookInput, most: int) -> list[Block]:
    rows = [
        [
            _numbered(n, h), phrase("look-status-on", status=_status(h), day=day(h["date"])) if h["date"] else _status(h), dollars(h["price"]) if h["price"] else "—",
            per_sqft_alone(h["price_per_sqft"]) or "—", fact(h["facts"], "living_area"), fact(h["facts"], "bedrooms_total"),
            _before(h),
        ]
        for n, h in enumerate(given.homes[: min(most, ON_ONE_PAGE)], 1)
    ]  # fmt: skip
    left = len(given.homes) - len(rows)
    over = phrases_of(
        "head-home", "", "head-price", "head-per-square-foot", "head-square-feet", "look-beds", "look-paid-before"
    )
    out = [table(over, rows, words=2, widths=(2.1, 2.5, 0.9, 0.7, 0.6, 0.5, 1.2))]
    return [*out, para(phrase("and-more", n=left), small=True)] if left > 0 else out


def _numbered(n: int, home: Doc) -> str:
    return phrase("numbered-home", number=str(n), home=home["address"] or home["listing_id"])


def _status(home: Doc) -> str:
    told = home["status"] in TOLD_APART
    return status_words(Status(home["status"])) if told else kind_said(home["kind"])


def _before(home: Doc) -> str:
    paid = home["prices"].get("paid_before")
    if paid is None:
        return "—"
    return phrase("look-paid-in", price=dollars(paid), year=str(home["paid_before_on"])[:4])


def _money(value: float | None) -> str:
    return "—" if value is None else dollars(value)


def _share(value: float | None) -> str:
    return "—" if value is None else f"{100 * value:.1f} %"


def _line_table(given: LookInput) -> Block:
    rows = [
        [
            _numbered(n, h), _status(h), _money(h["facts"].get("original_list_price")), _money(h["list_price"]),
            _money(h["price"]) if h["kind"] in ("sold", "deed_sale") else "—", _share(h["prices"].get("share_of_original")), _share(h["prices"].get("share_of_list")),
            _count(h["days_on_market"]), _count(h["prices"].get("cumulative_days_on_market")),
        ]
        for n, h in enumerate(given.homes, 1)
    ]  # fmt: skip
    over = phrases_of(
        "head-home", "", "look-first-list", "look-last-list", "head-sold", "look-of-first", "look-of-last", "head-days", "look-all-days"
    )  # fmt: skip
    return table(over, rows, words=2, widths=(2.4, 1.1, 1, 1, 1, 0.8, 0.8, 0.6, 0.7))


def _count(value: float | None) -> str:
    return "—" if value is None else f"{value:,.0f}"


def _sheet(given: LookInput, number: int, home: Doc) -> dict[str, Any]:
    """One home whole; nobody's name is on it."""
    front, prices, sold = given.pictures.get(home["listing_id"]), home["prices"], home["kind"] in SOLD
    before = prices.get("paid_before")
    shares = {"first": _share(prices.get("share_of_original")), "last": _share(prices.get("share_of_list"))}
    days = {"days": _count(home["days_on_market"]), "all": _count(prices.get("cumulative_days_on_market"))}
    steps = [
        ["line-first-list-price", _money(home["facts"].get("original_list_price"))],
        ["line-last-list-price", _money(home["list_price"])],
        *([["line-sold-for", phrase("look-paid-on", price=_money(home["price"]), day=day(home["date"]))],
           ["look-shares", phrase("look-two-shares", **shares)]] if sold else []),
        ["line-price-per-square-foot", per_sqft_alone(home["price_per_sqft"]) or "—"],
        ["look-days", phrase("look-two-days", **days)],
        ["look-paid-time-before", "—" if before is None else phrase("look-paid-on", price=_money(before), day=day(home["paid_before_on"]))],
    ]  # fmt: skip
    named = [[phrase(key), value] for key, value in steps]
    known = [[label(n), fact(home["facts"], n)] for n in SHEET_FACTS if fact(home["facts"], n) != "—"]
    return page(
        f"look sheet {number}", _numbered(number, home),
        picture(front, phrase("front-of", home=home["address"]), width=0.62) if front else None,
        table(["", ""], named, widths=(2, 1.4)), heading(phrase("home-title")), table(["", ""], known, widths=(2, 1.4)) if known else None,
        lead=_sheet_lead(given, home),
    )  # fmt: skip


def _sheet_lead(given: LookInput, home: Doc) -> str:
    """What became of it and when, how far away it stands, and its facts in a line."""
    away = home["distance_miles"] is not None and given.subject.get("placed")
    return phrase(
        f"look-lead{'-on' if home['date'] else ''}{'-away' if away else ''}", status=sentence_case(_status(home)),
        day=day(home["date"]), miles=distance(home["distance_miles"]), facts=facts_line(home["facts"]),
    )  # fmt: skip
