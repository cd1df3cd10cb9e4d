"""Parts of a bulletin: every figure that leaves it equals pandas on the same records, and each part says so where there is nothing to say."""

from __future__ import annotations

import datetime as dt
from pathlib import Path

import pandas as pd
import pytest

from rain_porch.app.bulletin import figures
from rain_porch.app.bulletin.documents import READY, BulletinDoc, BulletinPartDoc
from rain_porch.app.bulletin.kept import parts_of, ready
from rain_porch.app.bulletin.market_at import MarketAt
from rain_porch.app.bulletin.places import places
from rain_porch.app.handover.bulletin_papers import bulletin_model
from rain_porch.app.market.closer_looks import BehindAsk, behind
from rain_porch.app.market.views import ViewDoc, answer
from rain_porch.app.office.agent import folders_agent
from rain_porch.app.records import Records
from rain_porch.core.errors import BadInput, NotFound
from rain_porch.records.importing import import_file
from rain_porch.report.webpage import web_page
from rain_porch.report.workbooks.bulletin_rows import rows_of
from tests.app.bulletin.twin import Twin, days_of, frame_of
from tests.conftest import NOW

PLACE, END = "Lantern Hill", dt.date(2026, 10, 31)
VIEW = ViewDoc(measures=["median_price"], places=[PLACE], home_kind="detached")
KINDS = ("headline", "prices", "price_ways", "pace", "shares", "years", "heat", "places", "so_far", "view")
COUNTY = Path(__file__).parents[2] / "reference/data/county-early.csv.gz"


def keys_in(records, place):
    return {str(records.columns.keys[i]) for i in records.area_mask((place,)).nonzero()[0]}


def wrong(rows, twin_of, through):
    """Rows of a bulletin whose figure is not the twin's, and how many were compared."""
    told, seen = [], 0
    for part, measure, _, _, of, period, value, n in rows:
        span = days_of(period, through)
        made = None if span is None or (twin := twin_of(of)) is None else twin.value(measure, *span)
        if made is None or (value is None and n is None):
            continue
        seen += 1
        if (
            n != made[1]
            or (value is None) != (made[0] is None)
            or (value is not None and value != pytest.approx(made[0]))
        ):
            told.append((part, measure, of, period, value, n, made))
    return told, seen


def test_every_figure_equals_pandas_on_the_demo(demo_records):
    """Of all parts at once, from the table in which they leave."""
    whole = frame_of(demo_records)
    whole = whole[whole.home_kind == "detached"]
    parts = [BulletinPartDoc(kind=kind, view=VIEW) for kind in KINDS]
    rows = rows_of(parts_of(demo_records, BulletinDoc(title="x", parts=parts)))
    twins = {PLACE: Twin(whole[whole.listing_id.isin(keys_in(demo_records, PLACE))]), "all": Twin(whole)}

    def twin_of(of):
        if of in ("all of the records", "all together"):
            return twins["all"]
        name = PLACE if of in ("", PLACE, f"detached homes in {PLACE}") else of
        if name not in twins:
            twins[name] = Twin(whole[whole.listing_id.isin(keys_in(demo_records, name))])
        return twins[name]

    told, seen = wrong([r for r in rows if r[1] not in ("for_sale", "months_of_supply")], twin_of, END)
    assert not told and seen > 400
    # homes that came back from a contract or a pause are for sale again, which a single row of dates does not say
    standing, seen = wrong([r for r in rows if r[1] in ("for_sale", "months_of_supply")], twin_of, END)
    assert seen > 50 and all(abs(n - made[1]) <= max(3, 0.1 * made[1]) for *_, n, made in standing)


def test_every_figure_equals_pandas_on_a_county_of_closings_alone(tmp_path):
    """What was for sale is not in that file: nothing is said of supply, and nothing of days."""
    sold = pd.read_csv(COUNTY, dtype=str).iloc[::9].reset_index(drop=True)
    sold.to_csv(tmp_path / "county.csv", index=False)
    sold = pd.read_csv(tmp_path / "county.csv")
    records = Records(tmp_path, today=lambda: NOW.date())
    with records.connection() as db:
        import_file(db, tmp_path / "county.csv", folder=tmp_path, now=NOW)
    now = records.snapshot()
    view = ViewDoc(measures=["median_price"])
    frame = pd.DataFrame({
        "listing_id": sold.index, "standard_status": "Closed", "close_date": pd.to_datetime(sold.CloseDate), "close_price": sold.ClosePrice,
        "living_area": sold.LivingArea, "list_price": float("nan"), "original_list_price": float("nan"), "on_market_date": pd.NaT,
        "purchase_contract_date": pd.NaT, "off_market_date": pd.NaT,
    })  # fmt: skip
    twin, through = Twin(frame), now.through()
    parts = parts_of(
        now,
        BulletinDoc(title="x", parts=[BulletinPartDoc(kind=kind, view=view) for kind in (*KINDS, "market_conditions")]),
    )
    told, seen = wrong(
        [r for r in rows_of(parts) if r[1] not in ("for_sale", "months_of_supply")], lambda of: twin, through
    )
    assert not told and seen > 150
    conditions = next(p["answer"] for p in parts if p["kind"] == "market_conditions")
    for line, of in (("Sales closed", "closings"), ("Median price", "median_price")):
        made = next(x for x in conditions["lines"] if x["label"] == line)
        assert [v["value"] for v in made["values"]] == [twin.value(of, a, b)[0] for a, b, _ in conditions["windows"]]
    assert not {"For sale at the end", "Months of supply", "Median list price"} & {
        x["label"] for x in conditions["lines"]
    }
    with folders_agent(now, now=lambda: NOW) as agent:
        made = ready("four_pages", view, "The county")
        told_parts = [p for p in made.parts if p.kind != "words"]  # that one explains what may stand nowhere
        text = (
            str(bulletin_model(agent, made.model_copy(update={"parts": told_parts}))["pages"])
            + answer(now, view).sentence
        )
    records.close()
    assert "for sale now" not in text and "not known" not in text and "would last" not in text


def test_a_past_month_stands_as_it_stood_then(demo_records):
    """Made of a past day, nothing later is seen: neither in a figure nor in the sentence."""
    day = dt.date(2025, 6, 30)
    whole = frame_of(demo_records)
    twin = Twin(whole[(whole.home_kind == "detached") & whole.listing_id.isin(keys_in(demo_records, PLACE))])
    parts = parts_of(demo_records, ready("four_pages", VIEW, "x"), through=day)
    rows = [
        r for r in rows_of(parts) if r[1] in ("closings", "median_price") and r[4] in ("", f"detached homes in {PLACE}")
    ]
    told, seen = wrong(rows, lambda of: twin, day)
    assert not told and seen > 100
    head = next(p["answer"] for p in parts if p["kind"] == "headline")
    assert head["span"] == "the 12 months to June 2025" and not any(
        "2026" in r[5] or r[5] > "2025-07" for r in rows if r[5][:2] == "20"
    )
    shown = [h for p in parts if p["kind"] in ("sold", "came_on") for h in p["answer"]["homes"]]
    assert shown and all(h["date"] <= day for h in shown)
    with pytest.raises(BadInput, match="records end on"):
        parts_of(demo_records, ready("one_page", VIEW, "x"), through=dt.date(2027, 1, 1))


def test_lenders_form_counts_back_from_the_day(demo_records):
    told = figures.conditions(MarketAt(demo_records, VIEW, END))
    assert [(str(a), str(b), m) for a, b, m in told.windows] == [
        ("2025-11-01", "2026-04-30", 6), ("2026-05-01", "2026-07-31", 3), ("2026-08-01", "2026-10-31", 3),
    ]  # fmt: skip
    by = {line.label: line for line in told.lines}
    for k, (_, _, months) in enumerate(told.windows):
        sales, pace = by["Sales closed"].values[k].value, by["Absorption: sales a month"].values[k].value
        assert pace == pytest.approx(sales / months)
        assert by["Months of supply"].values[k].value == pytest.approx(by["For sale at the end"].values[k].value / pace)


def test_places_stand_beside_each_other_and_the_whole_holds_them(demo_records):
    told = places(MarketAt(demo_records, VIEW, END))
    assert {p.place for p in told.places} >= {PLACE, "Quarry Bend"} and all(p.rings for p in told.places)
    for p in told.places:
        assert (p.change is None) == (min(p.values["closings"].value, p.before["closings"].value) < 5)
    assert told.whole.values["closings"].value >= sum(p.values["closings"].value for p in told.places)
    two = places(MarketAt(demo_records, VIEW.model_copy(update={"places": [PLACE, "Quarry Bend"]}), END))
    assert [p.place for p in two.places] == [PLACE, "Quarry Bend"]


def test_several_places_are_one_market_where_that_is_asked_for(demo_records):
    """Their closings add up, the sentence names them, and the whole stands beside them as a line."""
    view = VIEW.model_copy(
        update={"places": [PLACE, "Quarry Bend"], "measures": ["closings"], "together": True, "whole": True}
    )
    told = answer(demo_records, view)
    apart = answer(demo_records, view.model_copy(update={"together": False}))
    assert [line.part for line in told.lines] == [f"{PLACE} and Quarry Bend", "all of the records"]
    assert [line.part for line in apart.lines] == [PLACE, "Quarry Bend", "all of the records"]
    for i, point in enumerate(told.lines[0].points):
        assert point.value == sum(line.points[i].value for line in apart.lines[:2]) <= told.lines[1].points[i].value
    assert f"in {PLACE} and Quarry Bend" in told.sentence
    last = told.periods[-1]
    for line in told.lines:  # each opens to its own records
        ask = BehindAsk(
            view=view, measure="closings", place=line.place, whole=line.whole, start=last.start, end=last.end
        )
        assert behind(demo_records, ask).count == line.points[-1].value
    head = figures.headline(MarketAt(demo_records, view, END))
    assert head.where == f"detached homes in {PLACE} and Quarry Bend" and head.figures[0].whole is not None


def test_what_sold_and_came_on_last_is_the_newest(demo_records):
    at = MarketAt(demo_records, VIEW, END)
    twin = Twin(frame_of(demo_records, keys_in(demo_records, PLACE)).query("home_kind == 'detached'"))
    sold, came = figures.sold_lately(at), figures.came_on_lately(at)
    here = twin.closed(pd.Timestamp("2026-10-01"), pd.Timestamp(END))
    assert sold.count == len(here) and sold.month == "October 2026"
    assert sorted(h.date for h in sold.homes) == sorted(d.date() for d in here.close_date)[-figures.HOMES :]
    on = twin.frame[(twin.frame.on_market_date >= "2026-10-01") & (twin.frame.on_market_date <= pd.Timestamp(END))]
    assert came.count <= len(on) and {h.listing_id for h in came.homes} <= set(on.listing_id)


@pytest.mark.parametrize("layout", list(READY))
def test_a_ready_layout_is_a_bulletin_like_any_other(demo_records, layout):
    with folders_agent(demo_records, now=lambda: NOW) as agent:
        made = ready(layout, VIEW, "Autumn")
        assert [p.kind for p in made.parts] == [kind for kind, _, _ in READY[layout]]
        model = bulletin_model(agent, made)
        text = web_page(model)
        told = str(model["pages"][0])
        assert "Detached homes in Lantern Hill sold for" in told or layout == "appraiser"
        assert "<script" not in text and sum(p.page_break for p in made.parts) + 1 == len(model["pages"])
        with pytest.raises(NotFound):
            bulletin_model(agent, ready(layout, VIEW.model_copy(update={"places": ["Nowhere"]}), "x"))


def test_parts_with_nothing_to_say_say_so(demo_records):
    nowhere = ViewDoc(measures=["median_price"], places=[PLACE], where=["living_area > 90000"])
    with folders_agent(demo_records, now=lambda: NOW) as agent:
        kinds = BulletinPartDoc.model_fields["kind"].annotation.__args__
        made = BulletinDoc(title="Quiet", parts=[BulletinPartDoc(kind=kind, view=nowhere) for kind in kinds])
        text = str(bulletin_model(agent, made)["pages"])
    assert (
        "No homes in Lantern Hill sold in the 12 months to October 2026." in text
        and "No price is recorded here" in text
    )
    assert "nan" not in text.lower().replace("financ", "")
