"""A column that is no field is kept as one of the office's own: a criterion, a fact, a column; it goes out and comes in again."""

from __future__ import annotations

import datetime as dt
import json

import numpy as np
import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from rain_porch.app.home.full_record import full_record
from rain_porch.app.home.homes import HomeRef, read_home
from rain_porch.app.pricing.candidates import candidates, loosened, most_alike
from rain_porch.app.pricing.find_document import find_doc
from rain_porch.app.pricing.pricing import Decided, price
from rain_porch.app.pricing.standpoint import Standpoint
from rain_porch.app.records import Records
from rain_porch.core.errors import Refused
from rain_porch.core.facts.fields import BY_NAME, OWN_KINDS, Kind, own_name
from rain_porch.core.facts.people import WHO_LIVES_THERE, tells_who_lives_there
from rain_porch.core.search.search import Criterion, Search
from rain_porch.records.exporting import export
from rain_porch.records.importing import import_file
from rain_porch.store.records.incoming.changed import new_state
from rain_porch.store.records.incoming.undo import undo_import
from rain_porch.store.records.word_orders import set_order

NOW = dt.datetime(2026, 6, 30)
FILE = "MLS #,Status,Address,City,Sold Date,Sold $,Sq Ft,Latitude,Longitude,Flood Zone,Walk to river (min),Solar?,Roof permit\n" + "".join(
    f"R{i},S,{10 + i} Mill St,Alder,6/{1 + i % 27}/2026,{300_000 + 1000 * i},{1500 + i},41.2{i:02d},-38.4,{'AXB'[i % 3]},{i % 9},{'YN'[i % 2]},{1 + i % 9}/14/2019\n"
    for i in range(60)
)  # fmt: skip
KEPT = ("Flood Zone", "Walk to river (min)", "Solar?", "Roof permit")
NAMES = ("own_words_flood_zone", "own_number_walk_to_river_min", "own_yes_solar", "own_date_roof_permit")


@pytest.fixture
def office(tmp_path):
    records = Records(tmp_path)

    def bring(text=FILE, name="river.csv", keep=KEPT, source="river", folder=tmp_path, live=records.live):
        file = tmp_path / name
        file.write_text(text)
        return import_file(live, file, folder=folder, now=NOW, keep=keep, source=source)

    bring.records, bring.folder = records, tmp_path
    yield bring
    records.close()


def test_what_is_kept_is_a_criterion_a_fact_and_a_column(office):
    result = office()
    assert (result.new, result.suspect, result.rejected) == (60, 0, 0) and not result.left_out
    snapshot = office.records.snapshot()
    assert {*snapshot.columns.own} == {*NAMES}
    home = read_home(snapshot, HomeRef("listing", "R3"))
    assert home.subject.facts["own_words_flood_zone"] == "A"
    search = Search(
        home_kinds=(),
        radius_miles=25,
        criteria=(
            Criterion("own_words_flood_zone", words=("A",)),
            Criterion("own_number_walk_to_river_min", low=0, high=4),
            Criterion("own_yes_solar", low=1, high=1),
        ),
    )
    found = find_doc(snapshot, home, None, search)
    want = {f"R{i}" for i in range(60) if i % 3 == 0 and i % 9 <= 4 and i % 2 == 0 and i != 3}
    assert {c.listing_id for c in found.candidates} == want and "flood zone A" in found.sentence
    assert found.candidates[0].facts["own_date_roof_permit"].startswith("2019-")
    facts = {k.label: k.value for k in full_record(snapshot, "R3").facts}
    assert facts["Flood zone"] == "A" and facts["Walk to river min"] == 3 and facts["Roof permit"] == "2019-04-14"


def test_it_goes_out_and_comes_in_again_and_a_file_without_it_leaves_it(office, tmp_path):
    office()
    again = office()
    assert (again.same, again.changed) == (60, 0)
    less = office(FILE.replace(",Flood Zone", ",Flood").replace(",A,", ",C,"), "less.csv", ("Flood",))
    assert less.changed == 60  # one more of its own each, the others as they were
    held = json.loads(office.records.live.execute("SELECT own FROM listings WHERE listing_id = 'R0'").fetchone()[0])
    assert held["own_words_flood_zone"] == "A" and held["own_words_flood"] == "C"
    undo_import(office.records.live, less.import_id, NOW.isoformat())
    for form in (".csv", ".json"):
        out = tmp_path / f"out{form}"
        export(office.records.live, "listings", out)
        other = Records(tmp_path / f"other{form[1:]}")
        (tmp_path / f"other{form[1:]}").mkdir(exist_ok=True)
        assert import_file(other.live, out, folder=tmp_path, now=NOW).new == 60
        assert {*other.snapshot().columns.own} == {*NAMES}
        other.close()


def test_what_cannot_be_kept_is_refused(office):
    with pytest.raises(Refused, match="does not have"):
        office(keep=("Flod Zone",))
    with pytest.raises(Refused, match="cannot be kept"):
        office("ParcelNumber,TaxYear,TotalValue,Zone\nP1,2024,100,A\n", "values.csv", ("Zone",))


def test_what_tells_who_lives_somewhere_is_left_behind_and_said(office):
    """However it is asked for: by name, with all, by a mapping; and what was kept before bears on nothing."""
    text = FILE.replace("Walk to river (min)", "Median household income")
    with pytest.raises(Refused, match="tells who lives somewhere"):
        office(text, keep=("Median household income",))
    kept = office(text, keep=("all",))
    assert [c.column for c in kept.left_out if c.why == WHO_LIVES_THERE] == ["Median household income"]
    assert not [n for n in office.records.snapshot().columns.own if "income" in n]
    with pytest.raises(Refused, match="tells who lives somewhere"):
        import_file(
            office.records.live, office.folder / "river.csv", folder=office.folder, now=NOW, kind="listings",
            columns={"parts": [{"field": "ListingId", "columns": ["MLS #"]}, {"field": "own_number_median_household_income", "columns": ["Median household income"]}]},
        )  # fmt: skip
    office.records.live.execute("""UPDATE listings SET own = json_set(own, '$.own_number_population', 5)""")
    new_state(office.records.live)
    now = office.records.snapshot()
    assert not [n for n in (*now.columns.own, *now.columns.numbers) if "population" in n]
    assert "own_number_population" not in read_home(now, HomeRef("listing", "R3")).subject.facts
    assert not [k for k in full_record(now, "R3").facts if "opulation" in k.label]


@pytest.mark.parametrize(("said", "order"), [(None, ("Fair", "Typical", "Good")), (("Good", "Typical", "Fair"), ("Good", "Typical", "Fair")), ((), ())])  # fmt: skip
def test_words_with_an_order_are_ranks_with_a_rate_in_the_order_that_is_said_or_told(office, said, order):
    """Each step of the kitchen was worth 8 % of the price; nothing else tells of it."""
    rng = np.random.default_rng(3)
    words, lines = ("Fair", "Typical", "Good"), []
    for i in range(240):
        rank, area = int(rng.integers(0, 3)), int(rng.integers(1200, 2600))
        paid = round(300 * area**0.95 * 1.08**rank * float(np.exp(rng.normal(0, 0.03))), -2)
        place = f"41.{2000 + int(rng.integers(0, 90)):04d},-38.{4000 + int(rng.integers(0, 90)):04d}"
        lines.append(
            f"K{i},S,{10 + i} Mill St,Alder,{1 + i % 6}/{1 + i % 27}/2026,{paid:.0f},{area},{place},{words[rank]}"
        )
    head = "MLS #,Status,Address,City,Sold Date,Sold $,Sq Ft,Latitude,Longitude,Kitchen"
    office("\n".join([head, *lines]) + "\n", "kitchens.csv", ("Kitchen",))
    if said is not None:
        set_order(office.records.live, "own_words_kitchen", said)
    now = office.records.snapshot()
    assert now.columns.orders.get("own_words_kitchen", ()) == order
    home = read_home(now, HomeRef("listing", "K7"))
    standpoint = Standpoint.at(now, home.subject, now.effective_day(None))
    priced = price(standpoint, most_alike(standpoint, loosened(standpoint, standpoint.proposed())[0]))
    rate = priced.rates.get("rank_of_own_words_kitchen")
    if not order:
        assert rate is None
        return
    step = 0.08 * priced.value * (1 if order[0] == "Fair" else -1)
    assert rate is not None and abs(rate.dollars - step) < 0.25 * abs(step) and rate.words == order
    mine = home.subject.facts["own_words_kitchen"]
    told = [line.formula for a in priced.adjusted for line in a.lines if line.field == rate.field and line.amount]
    assert told and all(f.startswith(f"({mine} − ") and " step" in f for f in told)


@given(st.sampled_from(sorted(OWN_KINDS)), st.text(max_size=80))
def test_an_own_name_says_what_the_field_is(kind, head):
    assume(not tells_who_lives_there(own_name(kind, head)))
    field = BY_NAME[own_name(kind, head)]
    assert field.kind is OWN_KINDS[kind] and field.name.isascii() and field.label and BY_NAME.get(field.name) == field


@pytest.mark.parametrize(
    "name", ["own_", "own_words_", "own_colour_x", "own_words_A", "own_words_x'; drop", "OWN_words_x", 3]
)
def test_what_is_no_own_name_is_no_field(name):
    assert name not in BY_NAME and BY_NAME.get(name) is None
    with pytest.raises(KeyError):
        BY_NAME[name]
    assert Kind.WORD  # the catalogue stays as it is


def test_with_a_rate_it_is_a_line_of_the_grid(office):
    office()
    snapshot = office.records.snapshot()
    home = read_home(snapshot, HomeRef("listing", "R3"))
    search = Search(home_kinds=(), radius_miles=25)
    standpoint = Standpoint.at(snapshot, home.subject, snapshot.effective_day(None))
    found = candidates(standpoint, standpoint.run(search).rows)[:6]
    name = "own_number_walk_to_river_min"
    priced = price(standpoint, found, decided=Decided(rates={name: -500.0}))
    for comp, adjusted in zip(priced.comps, priced.adjusted, strict=True):
        (line,) = [x for x in adjusted.lines if x.field == name]
        assert line.amount == -500.0 * (3 - comp.facts[name])
    assert not [x for a in price(standpoint, found).adjusted for x in a.lines if x.field == name]
