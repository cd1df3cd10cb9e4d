"""Pictures of a listing: the demo's come through the import like anybody's, and nobody's are drawn who brought none."""

from __future__ import annotations

import threading
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer

import pytest

from rain_porch.app.home import photos
from rain_porch.core.errors import NotFound
from rain_porch.records.pictures import by_address
from tests.pictures import picture

ROW = "ListingId,StandardStatus,ListPrice,Latitude,Longitude\nA1,Active,300000,41.2,-38.4\n"


@pytest.fixture
def photographer(monkeypatch):
    """Somebody's server of pictures: (its address, the paths that were asked of it); gone.jpg is gone, page.jpg is no picture."""
    asked: list[str] = []

    class Answer(BaseHTTPRequestHandler):
        def do_GET(self):
            asked.append(self.path)
            data = b"<html>" if "page" in self.path else picture(mark=self.path)
            self.send_response(404 if "gone" in self.path else 200)
            self.send_header("Content-Length", str(len(data)))
            self.end_headers()
            self.wfile.write(data)

        def log_message(self, *args):
            pass

    server = ThreadingHTTPServer(("127.0.0.1", 0), Answer)
    threading.Thread(target=server.serve_forever, daemon=True).start()
    monkeypatch.setenv("RAIN_PORCH_FEEDS_NEARBY", "yes")
    yield f"http://127.0.0.1:{server.server_port}", asked
    server.shutdown()
    server.server_close()


def test_a_source_called_like_the_demo_s_gets_no_drawn_pictures(bring, records, demo_records):
    bring(ROW, source="Demo listings")
    assert photos.captions(records.snapshot(), "A1") == []
    key = demo_records.db.execute("SELECT listing_id FROM listings WHERE is_lease = 0 LIMIT 1").fetchone()[0]
    assert photos.captions(demo_records, key)[0] in ("Front", "The land")
    assert photos.picture(demo_records, key, 1)[1] == "image/svg+xml"


def test_a_picture_at_an_address_is_fetched_when_it_is_looked_at_and_once(bring, records, photographer):
    base, asked = photographer
    bring(ROW)
    bring(f"ListingId,Order,MediaURL,ShortDescription\nA1,1,{base}/front.jpg,The front\nA1,2,{base}/2.jpg,\n")
    snapshot = records.snapshot()
    assert photos.captions(snapshot, "A1") == ["The front", "Photo 2"] and asked == []
    for _ in range(2):
        assert photos.picture(snapshot, "A1", 1) == (picture(mark="/front.jpg"), "image/jpeg")
    assert asked == ["/front.jpg"]
    with pytest.raises(NotFound, match="no picture 3"):
        photos.picture(snapshot, "A1", 3)


@pytest.mark.parametrize("name", ["gone.jpg", "page.jpg"])
def test_an_address_that_gives_no_picture_is_told_and_not_asked_at_once_again(
    bring, records, photographer, monkeypatch, name
):
    base, asked = photographer
    bring(ROW)
    bring(f"ListingId,Order,MediaURL\nA1,1,{base}/{name}\n")
    for _ in range(2):
        with pytest.raises(NotFound, match="gives no picture now"):
            photos.picture(records.snapshot(), "A1", 1)
    assert asked == [f"/{name}"]
    monkeypatch.setattr(by_address, "AGAIN_SECONDS", 0.0)
    with pytest.raises(NotFound):
        photos.picture(records.snapshot(), "A1", 1)
    assert len(asked) == 2


def test_nothing_is_fetched_from_the_office_s_own_network_unless_the_settings_allow_it(
    bring, records, photographer, monkeypatch
):
    base, asked = photographer
    monkeypatch.delenv("RAIN_PORCH_FEEDS_NEARBY")
    bring(ROW)
    bring(f"ListingId,Order,MediaURL\nA1,1,{base}/front.jpg\n")
    with pytest.raises(NotFound):
        photos.picture(records.snapshot(), "A1", 1)
    assert asked == []
