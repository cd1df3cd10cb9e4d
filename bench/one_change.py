"""What an agent waits for after one change of a search, in a browser: the save, the counts, the table, the worth, the ask.

usage: python -m bench.one_change --records FOLDER --home ADDRESS [--times N]

Counts and table: milliseconds from the press of Enter after another radius to the frame in which they are another on the screen. Of
what a search need not change, to the end of its answer from the first request that the change sends. The median and the worst. The
records may be those of a county: `rain_porch.demo.crowd.write_crowd` writes as many listings as are wanted.
"""

from __future__ import annotations

import argparse
import re
from collections import defaultdict
from pathlib import Path

import httpx
import numpy as np
from playwright.sync_api import Page, sync_playwright

from bench.screen import SCREEN, opened_browser
from bench.serving import begun_workup, serving_a_copy
from bench.timing import Result, table

RADII = ("0.5", "0.75", "1.5", "1", "2", "3")
ASKED = {"changes": "save", "worth": "worth", "asking": "ask"}
SHOWN = {"counts and sentence": ".head", "table": "table[aria-label='Homes found']"}
_ANSWERS = """() => performance.getEntriesByType('resource')
  .filter(e => e.name.includes('/api/workups/'))
  .map(e => [e.name.split('?')[0].split('/').slice(6).join('/'), e.startTime, e.responseEnd])"""
# notes for each of some places on the page how long after the next Enter another text stands there
_WATCH = """(places) => addEventListener('keydown', ({ timeStamp }) => {
  const text = (place) => document.querySelector(place)?.textContent
  const was = Object.fromEntries(Object.values(places).map((place) => [place, text(place)]))
  window.shown = {}
  const look = (now) => {
    for (const [name, place] of Object.entries(places))
      if (!(name in window.shown) && text(place) !== was[place]) window.shown[name] = now - timeStamp
    if (Object.keys(window.shown).length < Object.keys(places).length) requestAnimationFrame(look)
  }
  requestAnimationFrame(look)
}, { capture: true, once: true })"""


def measured(page: Page, url: str, address: str, times: int) -> dict[str, list[float]]:
    made = begun_workup(url, address)
    page.goto(f"{url}/workups/{made}/comps")
    page.get_by_role("button", name=re.compile("^Keep the")).first.click()
    page.wait_for_timeout(4000)
    out: dict[str, list[float]] = defaultdict(list)
    for i in range(times):
        page.get_by_role("button", name=re.compile(r"^within [\d.]+ mi")).first.click()
        field = page.get_by_label("Miles", exact=True)
        field.fill(RADII[i % len(RADII)])
        page.wait_for_timeout(300)
        page.evaluate("performance.clearResourceTimings()")
        page.evaluate(_WATCH, SHOWN)
        field.press("Enter")
        page.wait_for_timeout(2000)
        answers = page.evaluate(_ANSWERS)
        began = min(start for _, start, _ in answers)
        for name, _, ended in answers:
            if name in ASKED:
                out[ASKED[name]].append(ended - began)
        for name, ms in page.evaluate("window.shown").items():
            out[name].append(ms)
        page.keyboard.press("Escape")
        page.wait_for_timeout(300)
    return out


BUDGETS = {"save": 30, "counts and sentence": 80, "table": 150, "worth": 250, "ask": None}


def results(records: Path, address: str, times: int = 12) -> list[Result]:
    with serving_a_copy(records) as (url, _), sync_playwright() as play, opened_browser(play) as browser:
        took = measured(browser.new_page(viewport=SCREEN), url, address, times)
        listings = httpx.get(f"{url}/api/records").json()["counts"]["listings"]
    return [
        Result(f"one change of a search: {name}", f"{listings:,} listings", float(np.median(ms)), float(np.percentile(ms, 95)), BUDGETS.get(name), note=f"{len(ms)} changes in a browser, worst {max(ms):.0f}")
        for name, ms in took.items()
    ]  # fmt: skip


def main() -> None:
    parser = argparse.ArgumentParser(prog="python -m bench.one_change")
    parser.add_argument("--records", type=Path, required=True)
    parser.add_argument("--home", required=True)
    parser.add_argument("--times", type=int, default=12)
    args = parser.parse_args()
    print(table(results(args.records, args.home, args.times)))


if __name__ == "__main__":
    main()
