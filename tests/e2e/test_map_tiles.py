"""The office's own tiles under the map: streets from a file, pictures from the air at a press; without them the map of the records."""

from __future__ import annotations

import io
import re
from collections.abc import Callable

from PIL import Image
from playwright.sync_api import Page, expect

from rain_porch.store.tile_files import FOLDER
from tests.e2e.conftest import Server
from tests.e2e.test_evening import find_home, room
from tests.store.test_tile_files import mb_file


def of_colour(page: Page, colour: tuple[int, int, int]) -> float:
    """The share of the map that has a colour."""
    # a picture of the place where it lies: the map itself may be drawn anew while the picture is taken
    box = page.get_by_role("application", name=re.compile("^Map of the home")).bounding_box()
    if box is None:
        return 0.0
    shot = Image.open(io.BytesIO(page.screenshot(clip=box))).convert("RGB")  # type: ignore[arg-type]
    seen = list(shot.get_flattened_data()) if hasattr(shot, "get_flattened_data") else list(shot.getdata())
    return sum(all(abs(a - b) < 12 for a, b in zip(c, colour, strict=True)) for c in seen) / len(seen)


def comes_to(page: Page, is_drawn: Callable[[], bool]) -> bool:
    """Whether the map is drawn so within half a minute: tiles come when they come."""
    for _ in range(100):
        if is_drawn():
            return True
        page.wait_for_timeout(300)
    return False


def test_tiles_lie_under_the_map_and_it_stands_without_them(page: Page, server: Server) -> None:
    def tile(colour: tuple[int, int, int]) -> bytes:
        out = io.BytesIO()
        Image.new("RGB", (256, 256), colour).save(out, "PNG")
        return out.getvalue()

    sand, green = (222, 205, 170), (60, 110, 70)
    at = [(z, x, y) for z in range(6) for x in range(2**z) for y in range(2**z)]  # drawn larger where it is finer
    for name, colour in (("streets.mbtiles", sand), ("air.mbtiles", green)):
        mb_file(
            server.folder / FOLDER / name, {t: tile(colour) for t in at}, attribution=f"Ellery {name.split('.')[0]}"
        )
    page.get_by_role("link", name="Settings", exact=True).click()
    page.get_by_role("combobox", name="Streets: from where").select_option(":address")
    page.get_by_label("Streets: address of the tiles").fill("tiles.place.example/{z}")
    page.get_by_role("button", name="Keep for the office").click()
    expect(page.get_by_role("alert")).to_contain_text("is no address of tiles")
    page.get_by_role("combobox", name="Streets: from where").select_option("streets.mbtiles")
    page.get_by_role("combobox", name="From the air: from where").select_option("air.mbtiles")
    page.get_by_role("button", name="Keep for the office").click()
    expect(page.get_by_role("status")).to_contain_text("Kept for the office")

    page.get_by_role("link", name="Desk", exact=True).click()
    find_home(page, "630 hedgerow terrace")
    room(page, "Comps")
    expect(page.get_by_text("Ellery streets")).to_be_visible()
    page.wait_for_function(
        "() => performance.getEntriesByType('resource').some(e => e.name.includes('/api/map/tiles/streets/'))"
    )
    assert comes_to(page, lambda: of_colour(page, sand) > 0.4) and of_colour(page, green) < 0.05
    page.get_by_role("button", name="from the air").click()
    expect(page.get_by_text("Ellery air")).to_be_visible()
    assert comes_to(page, lambda: of_colour(page, green) > 0.4)
    page.get_by_role("button", name="streets", exact=True).click()

    # tiles that cannot be had: the map of the records is there, and says so
    page.route("**/api/map/tiles/**", lambda route: route.abort())
    page.reload()
    expect(page.get_by_text("this is the map of the records")).to_be_visible()
    assert comes_to(page, lambda: of_colour(page, (241, 243, 239)) > 0 and of_colour(page, sand) < 0.1)
