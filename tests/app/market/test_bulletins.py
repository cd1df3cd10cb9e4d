"""Parts of a bulletin: their figures equal plain SQL on the demo's records, and each says so where there is nothing to say."""

from __future__ import annotations

import datetime as dt
import statistics
from pathlib import Path

import pandas as pd
import pytest

from rain_porch.app.agent import folders_agent
from rain_porch.app.handover.bulletin_papers import letter_model
from rain_porch.app.market import bulletins
from rain_porch.app.market.letters import LetterDoc, LetterItemDoc, ready
from rain_porch.app.market.views import ViewDoc, answer
from rain_porch.app.records import Records
from rain_porch.core.errors import NotFound
from rain_porch.records.importing import import_file
from rain_porch.report.webpage import web_page
from tests.conftest import NOW

PLACE, END = "Lantern Hill", dt.date(2026, 10, 31)
VIEW = ViewDoc(measures=["median_price"], places=[PLACE], home_kind="detached")


def closed(records, start, end, place=PLACE):
    """(price, list price, days) of arm's-length closings of detached homes there, read by SQL and by the columns' place."""
    columns = records.columns
    inside = {str(columns.keys[i]) for i in records.area_mask((place,)).nonzero()[0]} if place else None
    rows = records.db.execute(
        "SELECT listing_id, close_price, list_price, close_date FROM listings WHERE standard_status = 'Closed' AND home_kind = 'detached' AND is_lease = 0 "
        "AND suspect IS NULL AND close_date BETWEEN :a AND :b",
        {"a": start.isoformat(), "b": end.isoformat()},
    )
    return [dict(r) for r in rows if inside is None or r["listing_id"] in inside]


def test_the_headlines_figures_are_those_of_the_records(demo_records):
    told = bulletins.headline(demo_records, VIEW)
    now = closed(demo_records, dt.date(2025, 11, 1), END)
    before = closed(demo_records, dt.date(2024, 11, 1), dt.date(2025, 10, 31))
    by = {f.measure: f for f in told.figures}
    assert (by["closings"].value.value, by["closings"].before.value) == (len(now), len(before))
    assert by["median_price"].value.value == statistics.median(r["close_price"] for r in now)
    change = 100 * (
        statistics.median(r["close_price"] for r in now) / statistics.median(r["close_price"] for r in before) - 1
    )
    assert by["median_price"].change.size == pytest.approx(change)
    assert f"({len(now)} sales after {len(before)})" in told.headline and PLACE in told.headline
    assert len(by["median_price"].recent) == bulletins.SPARK


def test_months_and_years_add_up_to_what_closed(demo_records):
    months = bulletins.months(demo_records, VIEW).months
    assert len(months) == 12 * bulletins.YEARS and months[-1].period == "2026-10"
    for m in months[-14:]:
        start = dt.date.fromisoformat(f"{m.period}-01")
        end = (start.replace(day=28) + dt.timedelta(days=4)).replace(day=1) - dt.timedelta(days=1)
        here = closed(demo_records, start, end)
        assert (m.values["closings"].value or 0) == len(here)
        if here:
            assert m.values["median_price"].value == statistics.median(r["close_price"] for r in here)
    told = bulletins.years(demo_records, VIEW)
    for year, by_month in told.closings.items():
        whole = next(y for y in told.years if y.period == str(year))
        assert (
            sum(n or 0 for n in by_month)
            == (whole.values["closings"].value or 0)
            == len(closed(demo_records, dt.date(year, 1, 1), dt.date(year, 12, 31)))
        )


def test_places_stand_beside_each_other_and_the_whole_holds_them(demo_records):
    told = bulletins.places(demo_records, VIEW)
    assert {p.place for p in told.places} >= {PLACE, "Quarry Bend"} and all(p.rings for p in told.places)
    for p in told.places:
        here = closed(demo_records, dt.date(2025, 11, 1), END, p.place)
        assert p.values["closings"].value == len(here) and p.values["median_price"].value == statistics.median(
            r["close_price"] for r in here
        )
        assert (p.change is None) == (
            min(len(here), len(closed(demo_records, dt.date(2024, 11, 1), dt.date(2025, 10, 31), p.place))) < 5
        )
    assert told.whole.values["closings"].value >= sum(p.values["closings"].value for p in told.places)
    two = bulletins.places(demo_records, VIEW.model_copy(update={"places": [PLACE, "Quarry Bend"]}))
    assert [p.place for p in two.places] == [PLACE, "Quarry Bend"]


def test_what_sold_last_is_the_newest(demo_records):
    told = bulletins.sold_lately(demo_records, VIEW)
    here = closed(demo_records, dt.date(2026, 10, 1), END)
    assert told.sold == len(here) and told.month == "October 2026"
    newest = sorted((r["close_date"] for r in here), reverse=True)[: bulletins.SOLD]
    assert sorted((h.date.isoformat() for h in told.homes), reverse=True) == newest


@pytest.mark.parametrize("layout", list(bulletins.READY))
def test_a_ready_layout_is_a_bulletin_like_any_other(demo_records, layout):
    with folders_agent(demo_records, now=lambda: NOW) as agent:
        made = ready(layout, VIEW, "Autumn")
        assert [i.kind for i in made.items] == [kind for kind, _ in bulletins.READY[layout]]
        model = letter_model(agent, made)
        text = web_page(model)
        assert model["pages"][0]["lead"].startswith("Detached homes in Lantern Hill sold for") and "<script" not in text
        assert sum(i.page_break for i in made.items) + 1 == len(model["pages"])
        with pytest.raises(NotFound):
            letter_model(agent, ready(layout, VIEW.model_copy(update={"places": ["Nowhere"]}), "x"))


def test_parts_with_nothing_to_say_say_so(demo_records):
    nowhere = ViewDoc(measures=["median_price"], places=[PLACE], where=["living_area > 90000"])
    with folders_agent(demo_records, now=lambda: NOW) as agent:
        items = [
            LetterItemDoc(kind=kind, view=nowhere)
            for kind in ("headline", "prices", "pace", "places", "years", "sold", "bands", "changed")
        ]
        model = letter_model(agent, LetterDoc(title="Quiet", items=items))
    text = str(model["pages"])
    assert (
        "No homes in Lantern Hill sold in the 12 months to October 2026." in text
        and "No price is recorded here" in text
    )
    assert "nan" not in text.lower().replace("financ", "")


def test_a_file_of_closings_alone_is_not_asked_for_more(tmp_path):
    """The county's early years: what was for sale is not in it, so nothing is said of supply, and nothing of days."""
    file = Path(__file__).parents[2] / "reference/data/county-part.csv"
    records = Records(tmp_path, today=lambda: NOW.date())
    with records.connection() as db:
        import_file(db, file, folder=tmp_path, now=NOW)
    with folders_agent(records.snapshot(), now=lambda: NOW) as agent:
        model = letter_model(agent, ready("four_pages", ViewDoc(measures=["median_price"]), "The county"))
        sentence = answer(agent.records, ViewDoc(measures=["median_price"])).sentence
    records.close()
    text = str(model["pages"]) + sentence
    sold = pd.read_csv(file)
    year = sold[sold.CloseDate.str.startswith("1996")]
    assert f"a median of ${year.ClosePrice.median():,.0f} ({len(year):,} sales" in text
    assert "for sale now" not in text and "Months of supply" not in text and "not known" not in text
