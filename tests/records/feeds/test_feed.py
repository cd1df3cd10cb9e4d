"""The listing feed pulled from its stand-in: pages, tokens, busy answers, broken pulls, and what changed tomorrow."""

from __future__ import annotations

import re
from pathlib import Path

import pytest
from starlette.testclient import TestClient

from rain_porch.app.records import Records
from rain_porch.core.errors import Refused
from rain_porch.records.feeds.feed import pull
from rain_porch.standins.feed import TOKEN, create_feed
from rain_porch.store.records.incoming import feeds, imports
from rain_porch.store.records.incoming.undo import undo_import
from tests.conftest import NOW

ADDRESS = "http://feed.test"


class Wire:
    """The one method through which a feed is asked; `breaks` answers fail with OSError."""

    def __init__(self, app, breaks: set[int] = frozenset()) -> None:  # type: ignore[assignment]
        self.client, self.breaks, self.asked = TestClient(app, base_url=ADDRESS), breaks, []

    def data(self, url, headers):
        self.asked.append(url)
        answer = self.client.get(url, headers=dict(headers))
        return answer.status_code, answer.content

    def __call__(self, url, headers):
        self.asked.append(url)
        if len(self.asked) in self.breaks:
            raise OSError("the line went dead")
        answer = self.client.get(url, headers=dict(headers))
        return answer.status_code, answer.json() if answer.headers["content-type"].startswith(
            "application/json"
        ) else None


@pytest.fixture
def listings(demo: Path) -> Path:
    return demo / "files/listings.csv"


def take(records: Records, wire: Wire, token: str = TOKEN):
    return pull(records.live, ADDRESS, token, folder=records.folder, now=NOW, get=wire, wait=lambda s: None)


def test_the_town_pulled_from_its_feed_is_the_town_and_tomorrow_brings_only_what_changed(town, listings):
    records = Records(town)
    feed = create_feed(listings, failures=2)
    wire = Wire(feed)
    first = take(records, wire)
    assert first.rows == first.same > 5000, "what the feed sends is what the file holds"
    assert take(records, wire).rows < 100, "only what is as new as the newest that came"
    moved = wire.client.post("/tomorrow", headers={"Authorization": f"Bearer {TOKEN}"}).json()["changed"]
    second = take(records, wire)
    assert second.changed == moved > 0 and second.new == 0
    events = records.live.execute(
        "SELECT event, count(*) FROM events WHERE last_import = :id GROUP BY 1", {"id": second.import_id}
    ).fetchall()
    assert {e[0] for e in events} >= {"Price Change", "Status Change"}
    records.close()


def test_a_pull_that_breaks_off_goes_on_with_the_page_that_failed(records, listings):
    feed = create_feed(listings)
    broken = Wire(feed, breaks={4, 5, 6, 7})
    with pytest.raises(Refused, match="kept: pull again"):
        take(records, broken)
    assert imports.is_empty(records.live, "listings"), "half a feed is not in effect"
    assert feeds.all_feeds(records.live)[0]["broken_off"]
    rest = Wire(feed)
    done = take(records, rest)
    assert rest.asked[0] == broken.asked[-1] and done.new == done.rows > 5000
    assert not feeds.all_feeds(records.live)[0]["broken_off"] and not list(records.folder.glob("feed-*"))


@pytest.mark.parametrize(
    ("wire", "token", "words"),
    [
        (lambda app: Wire(app), "wrong", "check the token"),
        (lambda app: lambda url, headers: (404, None), TOKEN, "check its address"),
        (lambda app: lambda url, headers: (200, {"value": "x"}), TOKEN, "no page of listings"),
        (lambda app: lambda url, headers: (503, None), TOKEN, "is busy"),
        (
            lambda app: lambda url, headers: (200, {"value": [], "@odata.nextLink": "http://else.where/x"}),
            TOKEN,
            "lies elsewhere",
        ),
    ],
)
def test_a_feed_that_does_not_play_is_refused_and_changes_nothing(records, listings, wire, token, words):
    with pytest.raises(Refused, match=words):
        take(records, wire(create_feed(listings)), token)
    assert not imports.list_imports(records.live)


def test_an_address_must_be_one(records):
    with pytest.raises(Refused, match="http"):
        pull(records.live, "file:///etc/passwd", "", folder=records.folder, now=NOW, get=lambda u, h: (200, {}))


def answering(*pages):
    """A feed that answers with these pages in turn."""
    left = list(pages)
    return lambda url, headers: (200, left.pop(0))


ROW = {"ListingId": "F1", "StandardStatus": "Active", "UnparsedAddress": "1 Made Street", "City": "Alder", "ListPrice": 300000,
       "OnMarketDate": "2026-10-01", "Latitude": 41.2, "Longitude": -38.4, "PropertyType": "Residential"}  # fmt: skip


@pytest.mark.parametrize(
    "elsewhere",
    ["http://feed.test:12345/Property?$skip=1", "http://feed.test.evil.example/Property", "http://feed.testing/Property",
     "https://feed.test/Property", "http://user@feed.test:99/Property", "http://feed.test:x/Property", "ftp://feed.test/Property"],
)  # fmt: skip
def test_a_token_goes_only_to_the_very_origin_for_which_it_was_given(records, elsewhere):
    asked = []

    def get(url, headers):
        asked.append(url)
        return 200, {"value": [ROW], "@odata.nextLink": elsewhere}

    with pytest.raises(Refused, match="lies elsewhere"):
        take(records, get)
    assert len(asked) == 1 and asked[0].startswith(ADDRESS + "/")


@pytest.mark.parametrize(
    ("following", "taken"), [("/office/Property?$skip=1", True), ("/officers/Property", False), ("/office/../x", False)]
)
def test_under_a_path_the_next_page_stays_under_it(records, following, taken):
    pages = answering({"value": [ROW], "@odata.nextLink": ADDRESS + following}, {"value": []})
    under = {"folder": records.folder, "now": NOW, "get": pages, "wait": lambda s: None}
    if taken:
        assert pull(records.live, f"{ADDRESS}/office", TOKEN, **under).rows == 1
        return
    with pytest.raises(Refused, match="lies elsewhere"):
        pull(records.live, f"{ADDRESS}/office", TOKEN, **under)


@pytest.mark.parametrize("rows", [[1], ["x"], [None], [ROW, 7], [[ROW]]])
def test_a_feed_whose_rows_are_no_listings_is_refused_in_words(records, rows):
    with pytest.raises(Refused, match="no listing"):
        take(records, answering({"value": rows}))
    assert imports.is_empty(records.live, "listings")


@pytest.mark.parametrize("stamp", ["9999-12-31T00:00:00Z", "2027-01-01T00:00:00Z"])
def test_a_row_stamped_in_the_future_stops_no_later_pull(records, stamp):
    good = {**ROW, "ListingId": "F2", "ModificationTimestamp": "2026-11-01T08:00:00Z"}
    take(records, answering({"value": [{**ROW, "ModificationTimestamp": stamp}, good]}))
    assert feeds.state(records.live, ADDRESS).read_to == "2026-11-01T08:00:00Z"


def test_rows_without_a_stamp_come_in_and_move_nothing(records):
    assert take(records, answering({"value": [ROW]})).new == 1
    assert not feeds.state(records.live, ADDRESS).read_to
    assert take(records, answering({"value": []})).rows == 0


def pulled(records: Records, wire: Wire, **more):
    return pull(records.live, ADDRESS, TOKEN, folder=records.folder, now=NOW, get=wire, wait=lambda s: None, **more)


def test_what_the_feed_has_no_more_goes_and_comes_back_with_an_undo(records, listings):
    feed = create_feed(listings)
    took = take(records, Wire(feed)).new
    gone = [r["ListingId"] for r in feed.state.day.rows[:3]]
    for listing in gone:
        feed.state.day.take_away(listing)
    assert take(records, Wire(feed)).notes == ["3 no longer at the source: they go"]
    held = "SELECT count(*) FROM listings"
    assert records.live.execute(held).fetchone()[0] == took - 3
    newest = imports.list_imports(records.live)[0]
    assert newest["reasons"] == {"no longer at the source": 3}
    undo_import(records.live, newest["import_id"], NOW.isoformat())
    assert records.live.execute(held).fetchone()[0] == took


@pytest.mark.parametrize(
    "answer", [(400, None), (503, None), (200, {"value": []}), (200, {"value": [{"ListingId": "no such"}]})]
)
def test_a_feed_that_cannot_tell_what_it_has_takes_nothing_away(records, listings, answer):
    feed = create_feed(listings)
    took = take(records, Wire(feed)).new
    wire = Wire(feed)

    def get(url, headers):
        return answer if "$select" in url else wire(url, headers)

    take(records, get)
    assert records.live.execute("SELECT count(*) FROM listings").fetchone()[0] == took


def test_pictures_that_a_feed_names_come_in_bounded_and_once(records, listings, monkeypatch):
    monkeypatch.setattr("rain_porch.records.feeds.feed_pictures.A_PULL", 5)
    wire = Wire(create_feed(listings))
    (said,) = pulled(records, wire, get_data=wire.data).notes
    n = int(re.fullmatch(r"5 pictures came; ([\d,]+) wait for the next pull", said)[1].replace(",", ""))
    assert len(list((records.folder / "photos").glob("*.png"))) == 5
    assert {r[0] for r in records.live.execute("SELECT place FROM photos")} == {1}, "first pictures first"
    assert imports.list_imports(records.live)[0]["kind"] == "photos"
    again = Wire(create_feed(listings))
    monkeypatch.setattr("rain_porch.records.feeds.feed_pictures.A_PULL", n)
    assert pulled(records, again, get_data=again.data).notes == [f"{n:,} pictures came"]
    assert pulled(records, again, get_data=again.data).notes == [], "none is fetched twice"
    assert not list(records.folder.glob("unpacked-*"))


@pytest.mark.parametrize(
    ("url", "token"),
    [(f"{ADDRESS}/Media/1.png", True), ("http://elsewhere.test/1.png", False), ("http://feed.test:99/1.png", False), ("file:///etc/passwd", None)],
)  # fmt: skip
def test_the_token_goes_to_no_other_place_for_a_picture(records, url, token):
    asked = {}

    def get_data(url, headers):
        asked[url] = "Authorization" in headers
        return 200, b"<html>no picture</html>"

    pages = answering({"value": [{**ROW, "Media": [{"MediaURL": url, "Order": 1}, "x", {"MediaURL": 7}]}]})
    assert pulled(records, pages, get_data=get_data).new == 1
    assert asked == ({} if token is None else {url: token})
    assert records.live.execute("SELECT count(*) FROM photos").fetchone()[0] == 0


def test_a_feed_that_knows_no_pictures_is_pulled_without_them(records):
    def get(url, headers):
        return (400, None) if "$expand" in url else (200, {"value": [ROW]})

    assert pulled(records, get, get_data=lambda u, h: (404, b"")).new == 1


def test_a_feed_whose_numbers_are_numbers_loses_none_of_them(records):
    rows = [
        {**ROW, "ListingId": n, "UnparsedAddress": f"{n} Made Street", "ModificationTimestamp": "2026-10-30T00:00:00Z"}
        for n in (7.0, 8)
    ]
    asked = {"value": [{"ListingId": 7.0}, {"ListingId": 8}]}
    take(records, answering({"value": rows}))
    assert take(records, answering({"value": []}, asked)).notes == []
    assert {r[0] for r in records.live.execute("SELECT listing_id FROM listings")} == {"7", "8"}


@pytest.mark.parametrize("listing", ["A/1", "A\x001", "A" * 300, "..", ""])
def test_a_number_that_no_file_can_be_called_after_stops_no_pull(records, listing):
    media = [{"MediaURL": f"{ADDRESS}/Media/1.png", "Order": 1}]
    done = pulled(
        records,
        answering({"value": [{**ROW, "ListingId": listing, "Media": media}, ROW]}),
        get_data=lambda u, h: (404, b""),
    )
    assert done.rows == 2


def test_pictures_that_could_not_be_kept_are_fetched_again(records, listings, monkeypatch):
    monkeypatch.setattr("rain_porch.records.feeds.feed_pictures.A_PULL", 3)
    wire = Wire(create_feed(listings))

    def full(*_args, **_more):
        raise OSError(28, "no space")

    monkeypatch.setattr("rain_porch.records.pictures.photos._keep_files", full)
    with pytest.raises(OSError, match="no space"):
        pulled(records, wire, get_data=wire.data)
    monkeypatch.undo()
    monkeypatch.setattr("rain_porch.records.feeds.feed_pictures.A_PULL", 3)
    assert pulled(records, wire, get_data=wire.data).notes[0].startswith("3 pictures came")
