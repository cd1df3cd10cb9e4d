from __future__ import annotations

import io
import re
from dataclasses import replace

import formulas
import openpyxl
import pytest
from pypdf import PdfReader

from rain_porch.app.bulletin.documents import BulletinDoc, BulletinPartDoc
from rain_porch.app.bulletin.kept import add_bulletin, delete_bulletin
from rain_porch.app.handover.report_input import report_input
from rain_porch.app.handover.saved_layouts import delete_layout, save_layout, saved_layouts
from rain_porch.app.market.views import ViewDoc
from rain_porch.app.pricing.opened import suggested
from rain_porch.app.workup.workups import open_workup
from rain_porch.core.errors import BadInput
from rain_porch.core.facts.money import dollars, half_up, priced
from rain_porch.documents.stored import PaperDoc
from rain_porch.report.layouts import LAYOUTS, PAGES
from rain_porch.report.model import Paper
from rain_porch.report.papers import document, html, page_pictures, pdf, without_words, write_report
from rain_porch.report.pictures.maps import map_svg
from rain_porch.report.workbooks.workbook import workbook
from tests.app.workup.test_changes import begun, change
from tests.pdf_text import words_on_pages


def test_the_three_pages_hold_the_workups_numbers(given):
    pages = words_on_pages(pdf(given, "three_pages"))
    first, second, third = pages  # twelve comps, and as many sheets as its name says
    price = given.price
    for words in (
        "630 Hedgerow Terrace",
        "Orla Grayle",
        dollars(price["indicated_value"]),
        "309,900",
        "not yet measured",
        price["sentence"][:40],
        f"{len(given.comps)} homes like this one sold",
        "not an appraisal",
        "Effective Oct 31, 2026",
    ):
        assert words in first, words
    for c, told in zip(given.comps, price["comps"], strict=True):
        assert dollars(c["price"]) in second and dollars(told["adjusted_price"]) in third
        assert dollars(half_up(told["close_price"])) in third
    told = " ".join(words_on_pages(pdf(given, "short")))
    for m in price["methods"]:
        assert m["label"] in told and dollars(half_up(m["value"], 100)) in told
    assert "Records: Demo" in first and "newest Oct 31, 2026" in first
    assert f"1 / {len(pages)}" in first and f"3 / {len(pages)}" in third


def test_the_pdf_has_a_title_tags_and_its_fonts_inside(given):
    reader = PdfReader(io.BytesIO(pdf(given, "three_pages")))
    assert reader.metadata.title == "630 Hedgerow Terrace: market analysis"
    assert reader.trailer["/Root"]["/MarkInfo"]["/Marked"]
    fonts = {f.get_object()["/BaseFont"] for p in reader.pages for f in p["/Resources"]["/Font"].values()}
    assert any("Figtree" in f for f in fonts) and any("Serif" in f for f in fonts)


def test_what_a_workup_lacks_is_told_to_the_agent_and_never_printed(agent):
    told = report_input(agent, begun(agent))
    text = " ".join(words_on_pages(pdf(told, "full")))
    why = without_words(told, "full")
    assert set(why) >= {"grid", "strategy", "net"} and all(len(w) > 20 for w in why.values())
    assert "20 homes found here sold" in text
    for words in (
        "kept yet",
        "not yet known",
        "No list price",
        "No scenario",
        "keep some",
        "Nothing",
        r"None\b(?! of| is)",
        r"\bnan\b",
    ):
        assert not re.search(words, text), words
    with pytest.raises(BadInput, match="No scenario"):
        document(replace(told, paper=Paper(pages=("net",))), None)
    assert "grid" not in without_words(replace(told, paper=Paper(pages=("cover",))), None)


def test_many_comps_long_words_and_markup_stay_text_on_their_pages(given):
    odd = "*bold* #eval(1) $x$ <b>x</b> ©  שלום 🏠 " + "Verylongstreetname " * 14
    comps = [
        {**given.comps[0], "listing_id": f"L{i}", "address": odd if i == 0 else f"{i} Long Street"} for i in range(15)
    ]
    priced = [{**given.price["comps"][0], "listing_id": f"L{i}", "address": c["address"]} for i, c in enumerate(comps)]
    full = replace(
        given, title=odd[:300], comps=comps, grid=[given.grid[0]] * 15, price={**given.price, "comps": priced}
    )
    pages = words_on_pages(pdf(full, "three_pages"))
    assert "#eval(1)" in pages[0] and "*bold*" in " ".join(pages)
    assert all(f"{i} Long Street" in " ".join(pages) for i in range(1, 15))


def test_no_private_field_can_reach_a_page(given):
    assert all(
        set(c["facts"]) & {"list_agent_full_name", "private_remarks", "list_office_name"} == set() for c in given.around
    )
    leaking = {**given.comps[0], "facts": {"list_agent_full_name": "Orla Grayle"}}
    with pytest.raises(ValueError, match="private"):
        replace(given, comps=[leaking])


OPTIONS = [
    Paper(pages=("summary",)), Paper(pages=("summary",), price="hidden"), Paper(pages=("summary",), price="blank"),
    Paper(pages=("summary",), formulas=False, pictures=False, cover_price=False), Paper(pages=("summary",), facts=("year_built",), statistics=("list_price",)),
]  # fmt: skip


@pytest.mark.parametrize("paper", OPTIONS, ids=["shown", "hidden", "blank", "bare", "chosen"])
def test_no_agent_or_owner_is_named_on_any_page_with_any_option(given, agent, paper):
    names = {r[0] for r in agent.records.db.execute("SELECT DISTINCT list_agent_full_name FROM listings")}
    names |= {r[0] for r in agent.records.db.execute("SELECT DISTINCT list_office_name FROM listings")}
    names |= {r[0] for r in agent.records.db.execute("SELECT DISTINCT grantee FROM transfers")}
    told = replace(given, client="", paper=replace(paper, pages=tuple(PAGES)))
    for page in document(told, None)["pages"]:
        text = str(page)
        assert not [n for n in names if n and n in text], page["page"]
    whole = html(told).decode()
    assert not [n for n in names if n and n in whole]


def test_pages_are_pictures_and_files_are_pdf(given, tmp_path):
    assert page_pictures(given, "three_pages", 2)[0].startswith(b"\x89PNG")
    with pytest.raises(BadInput, match="no page 4"):
        page_pictures(given, "three_pages", 4)
    with pytest.raises(BadInput, match="no layout"):
        document(given, "coffee_table")
    with pytest.raises(BadInput, match=r"\.pdf"):
        write_report(given, "one_page", tmp_path / "r.txt")
    assert write_report(given, "one_page", tmp_path / "r.pdf") == len(LAYOUTS["one_page"])
    assert (tmp_path / "r.pdf").read_bytes().startswith(b"%PDF")


def test_every_page_of_the_full_report_says_what_it_is_for(given):
    full = replace(
        given, paper=Paper(pages=LAYOUTS["full"]), agent={"name": "Perrin Vale", "licence": "L-7", "contact": "555 0100"},
        sheets=[[("Price", "309900.00"), ("Net proceeds", "98123.45")], [("Price", "300000.00"), ("Net proceeds", "90000.10")]],
    )  # fmt: skip
    reader = PdfReader(io.BytesIO(pdf(full)))
    pages = words_on_pages(pdf(full))
    text = " ".join(pages)
    for words in (
        "What this home competes with", "What buyers refused", "Its story", "The market here", "The homes beside yours",
        "What each difference is worth", "What would be left", "About $90,000 to $98,123 would be left", "98,123.45", "90,000.10", "Perrin Vale", "It is not an appraisal", "Dear Orla Grayle,",
        f"The sales brought {priced(min(c['price'] for c in given.comps))} to {priced(max(c['price'] for c in given.comps))}",
        given.recommendation[:60],
    ):  # fmt: skip
        assert words in text, words
    assert f"1 / {len(reader.pages)}" in text and len(reader.outline) >= 10
    assert all(len(words) > 150 for words in pages), "no page stands nearly empty"
    assert len(pdf(full)) < 5_000_000
    bare = replace(full, around=[], comps=[], chosen=[], counts={}, grid=[], pictures={}, past=[], asking=None, market=[], sheets=[],
                   price={**given.price, "comps": [], "methods": [], "indicated_value": None, "range": None})  # fmt: skip
    assert "No home like this one was found" in " ".join(words_on_pages(pdf(bare)))


@pytest.mark.parametrize("layout", list(LAYOUTS))
@pytest.mark.parametrize("price", ["hidden", "blank"])
def test_a_price_that_is_not_shown_stands_nowhere(given, layout, price):
    quiet = replace(given, paper=Paper(pages=LAYOUTS[layout], price=price))
    for page in document(quiet, layout)["pages"]:
        told = str(page)
        assert "309,900" not in told, page.get("name", page["page"])
        assert dollars(given.price["indicated_value"]) not in told, page.get("name")
    text = " ".join(words_on_pages(pdf(quiet, layout)))
    assert "309,900" not in text
    for hidden in (given.price["indicated_value"], *(c["adjusted_price"] for c in given.price["comps"])):
        assert dollars(hidden) not in text


def test_ways_to_the_number_are_the_agents_choice(given):
    chosen = replace(given, paper=Paper(pages=LAYOUTS["full"], ways_left_out=("high_price_per_sqft", "assessed_value")))
    names = [m["name"] for m in given.price["methods"]]
    assert len(chosen.ways()) == len(names) - len({"high_price_per_sqft", "assessed_value"} & {*names})
    text = " ".join(words_on_pages(pdf(chosen, "full")))
    assert "Highest price per sq ft" not in text and "Mean price per sq ft" in text


def test_the_web_page_stands_alone_and_runs_nothing(given, tmp_path):
    odd = replace(given, client="<script>alert(1)</script>", paper=Paper(pages=LAYOUTS["full"]))
    assert write_report(odd, None, tmp_path / "r.html") == len(LAYOUTS["full"]) - len(without_words(odd, None))
    page = (tmp_path / "r.html").read_text()
    assert "<script" not in page and "&lt;script&gt;" in page
    assert (
        not re.findall(r"""(?:src|srcset|href)=["'](?!data:|#)""", page)
        and "@import" not in page
        and "url(" not in page
    )
    assert page.count("<h1>") == 1 and page.count("<img") == len(re.findall(r"<img[^>]* alt=\"[^\"]+\"", page))
    for c in given.price["comps"]:
        assert dollars(c["adjusted_price"]) in page


def test_the_workbooks_formulas_come_to_the_workups_figures(given):
    held = replace(given, chosen=[{**given.chosen[0], "address": "=HYPERLINK(1)"}, *given.chosen[1:]])
    made = workbook(held)
    live, kept = (openpyxl.load_workbook(io.BytesIO(made), data_only=flag) for flag in (False, True))
    assert live.sheetnames == ["Comps", "Grid", "Around", "Market"]
    grid, values = live["Grid"], kept["Grid"]
    rows = {grid.cell(r, 1).value: r for r in range(1, grid.max_row + 1)}
    total = 0.0
    for k, c in enumerate(given.price["comps"], start=2):
        lines = [grid.cell(r, k).value or 0 for r in range(3, rows["Adjusted price"])]
        letter = openpyxl.utils.get_column_letter(k)
        end = rows["Adjusted price"] - 1
        assert grid.cell(rows["Adjusted price"], k).value == f"={letter}2+SUM({letter}3:{letter}{end})"
        assert grid.cell(2, k).value + sum(lines) == pytest.approx(c["adjusted_price"])
        assert values.cell(rows["Net"], k).value == pytest.approx(sum(lines) / grid.cell(2, k).value, abs=1e-5)
        assert values.cell(rows["Gross"], k).value == pytest.approx(
            sum(map(abs, lines)) / grid.cell(2, k).value, abs=1e-5
        )
        total += (grid.cell(2, k).value + sum(lines)) * grid.cell(rows["Weight"], k).value
    assert grid.cell(rows["Indicated value"], 2).value.startswith("=ROUND((SUMPRODUCT(")
    model = rows["Model, and its weight"]
    total += grid.cell(model, 2).value * grid.cell(model, 3).value
    assert half_up(total, 100) == given.price["indicated_value"]
    told = [cell for sheet in live for row in sheet.iter_rows() for cell in row if isinstance(cell.value, str)]
    assert [c.data_type for c in told if c.value == "=HYPERLINK(1)"] == ["s"]


def test_the_workbook_is_ready_to_print_with_dates_that_are_dates(whole):
    book = openpyxl.load_workbook(io.BytesIO(workbook(whole)))
    for sheet in book:
        assert sheet.print_area and sheet.print_title_rows and sheet.page_setup.orientation == "landscape", sheet.title
        assert sheet.sheet_properties.pageSetUpPr.fitToPage and sheet.freeze_panes
        for row in sheet.iter_rows():
            for cell in row:
                width = sheet.column_dimensions[cell.column_letter].width
                if isinstance(cell.value, str) and cell.data_type == "s" and cell.column > 1 and cell.row > 2:
                    assert max(map(len, cell.value.split() or [""])) <= width, f"{sheet.title} {cell.coordinate} is cut"
                if isinstance(cell.value, int | float):
                    assert len(f"{cell.value:,.0f}") < width
    comps, around = book["Comps"], book["Around"]
    heads = {c.value: c.column for c in comps[4]}
    for r, home in enumerate(whole.chosen, start=6):
        day = comps.cell(r, heads["Date"])
        assert day.is_date and f"{day.value:%Y-%m-%d}" == home["date"] and comps.cell(r, heads["No."]).value == r - 5
        assert comps.cell(r, heads["Price, $"]).number_format == "#,##0"
    assert around.cell(2, 3).is_date and book["Market"].cell(2, 1).is_date
    assert [c.value for c in book["Market"][1]][1].endswith(", $")


def test_a_formula_library_recalculates_the_workbook_to_our_figures(given, tmp_path):
    """`formulas` reads the formulas alone and works them out anew; what we wrote as values plays no part."""
    file = tmp_path / "workup.xlsx"
    file.write_bytes(workbook(given))
    live = openpyxl.load_workbook(file)["Grid"]
    rows = {live.cell(r, 1).value: r for r in range(1, live.max_row + 1)}
    told = formulas.ExcelModel().loads(str(file)).finish().calculate()

    def worked_out(name: str, column: int) -> float:
        letter = openpyxl.utils.get_column_letter(column)
        return float(told[f"'[workup.xlsx]GRID'!{letter}{rows[name]}"].value[0, 0])

    assert worked_out("Indicated value", 2) == given.price["indicated_value"]
    for k, c in enumerate(given.price["comps"], start=2):
        assert worked_out("Adjusted price", k) == pytest.approx(c["adjusted_price"], abs=0.006)
        assert 100 * worked_out("Net", k) == pytest.approx(c["net_pct"], abs=1e-3)
        assert 100 * worked_out("Gross", k) == pytest.approx(c["gross_pct"], abs=1e-3)


def test_the_map_stands_without_radius_places_or_base_map(given):
    nowhere = [{**c, "latitude": None, "longitude": None} for c in given.comps]
    svg = map_svg(given.subject, nowhere, nowhere, {"features": []}, {})
    assert svg.startswith("<svg") and "nan" not in svg.lower()


def test_pages_for_the_clients_hand_hold_the_workups_figures(given, agent):
    n = begun(agent)
    change(agent, n, change="decide", listing_ids=suggested(open_workup(agent, n)), choice="kept")
    pages = ["tour", "size", "housing", "sheets", "statistics"]
    notes = {"housing": "Quiet streets, old trees."}
    change(agent, n, change="set_paper", paper={"pages": pages, "statistics": ["share_of_list"], "notes": notes})
    told = report_input(agent, n)
    text = words_on_pages(pdf(told))
    whole = " ".join(text)
    assert "A drive past the comps" in text[0] and f"{len(told.comps)} homes" in text[0] and "Turn " in text[0]
    for number, c in enumerate(told.comps, 1):
        sheet = next(t for t in text if f"{number}. {c['address']} Sold" in t)
        priced = next(p for p in told.price["comps"] if p["listing_id"] == c["listing_id"])
        assert dollars(priced["adjusted_price"]) in sheet and dollars(c["price"]) in sheet
    assert "Quiet streets, old trees." in whole and "The housing around" in whole
    assert "Share of list" in text[-1] and "Living area" not in text[-1]
    assert told.tour["left"] == [] and told.tour["miles"] == pytest.approx(sum(x["miles"] for x in told.tour["legs"]))
    parcels = agent.records.db.execute("SELECT count(*) FROM parcels WHERE suspect IS NULL").fetchone()[0]
    assert 0 < told.housing["homes"] < parcels and sum(told.housing["kinds"].values()) == told.housing["homes"]


def test_a_bulletin_goes_with_the_report(agent):
    n = begun(agent)
    view = ViewDoc(measures=["median_price"], places=["Quarry Bend"])
    kept = add_bulletin(agent, BulletinDoc(title="Autumn", parts=[BulletinPartDoc(view=view, title="Prices here")]))
    change(agent, n, change="set_paper", paper={"pages": ["summary", "bulletin"], "bulletin": kept})
    assert "Prices here" in words_on_pages(pdf(report_input(agent, n)))[1]
    delete_bulletin(agent, kept)
    told = report_input(agent, n)
    assert len(words_on_pages(pdf(told))) == 1 and "No bulletin is chosen" in without_words(told, None)["bulletin"]


def test_a_kept_layout_leaves_what_belongs_to_one_home_behind(agent):
    paper = PaperDoc(pages=["cover", "summary"], title="For Wilma", letter="Dear", notes={"cover": "x"}, formulas=False)
    first = save_layout(agent, "Short", paper)
    assert save_layout(agent, "Short", paper.model_copy(update={"pages": ["summary"]})) == first
    ((number, name, held),) = saved_layouts(agent)
    assert (number, name, held.pages, held.title, held.letter, held.notes) == (first, "Short", ["summary"], "", "", {})
    assert not held.formulas
    delete_layout(agent, first)
    assert saved_layouts(agent) == []


@pytest.mark.parametrize("measured", [False, True])
@pytest.mark.parametrize("layout", sorted(LAYOUTS))
def test_a_range_is_said_to_be_tested_on_paper_only_where_it_was(given, layout, measured):
    told = replace(given, price={**given.price, "range": {**given.price["range"], "measured": measured}})
    for text in (" ".join(words_on_pages(pdf(told, layout))), re.sub("<[^>]+>", " ", html(told, layout).decode())):
        text = " ".join(text.split())
        named = text.count("Likely range, 80 %")
        assert text.count("Likely range, 80 %, not yet measured") == (0 if measured else named)
        assert ("held four of five past sales" in text) <= measured
        assert named or "Likely range" in text or layout in ("statistics", "while_for_sale"), (
            "it is on this paper at all"
        )
