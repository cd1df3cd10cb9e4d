"""What an agent's eyes wait for: the first useful screen, and how often counts are redrawn while the radius is dragged."""

from __future__ import annotations

import tempfile
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

import httpx
import numpy as np
from playwright.sync_api import Browser, BrowserContext, Page, Playwright, sync_playwright

from bench.serving import begun_workup, serving_a_copy
from bench.timing import Result

FLAGS = ["--no-sandbox", "--disable-gpu", "--disable-background-networking", "--disable-component-update",
         "--disable-sync", "--no-first-run"]  # fmt: skip
CHROMIUM = "/usr/bin/chromium"
SCREEN = {"width": 1280, "height": 800}
TIMES, DRAG_SECONDS = 6, 4.0

# notes the time of each frame in which sentence and counts, which come in one answer, read differently from before
_WATCH = """() => {
  window.redrawn = []
  let last = ''
  const look = (now) => {
    const text = document.querySelector('.head')?.textContent ?? ''
    if (text !== last) { window.redrawn.push(now); last = text }
    window.watching = requestAnimationFrame(look)
  }
  window.watching = requestAnimationFrame(look)
}"""
# moves the pointer to and fro with each frame, as a browser gives what a mouse tells 60 times a second or more often: what is told of it
# by a program beside waits for its answer each time, and comes a third as often
_DRAG = """([middle, reach, y, seconds]) => new Promise((done) => {
  const map = document.elementFromPoint(middle + reach * 0.95, y)
  const start = performance.now()
  const step = () => {
    const gone = (performance.now() - start) / 1000
    if (gone > seconds) return done()
    const clientX = middle + reach * (0.6 + 0.35 * Math.cos(gone * 6))
    map.dispatchEvent(new PointerEvent('pointermove', {
      bubbles: true, cancelable: true, composed: true, view: window, pointerId: 1, pointerType: 'mouse', isPrimary: true,
      button: -1, buttons: 1, clientX, clientY: y,
    }))
    requestAnimationFrame(step)
  }
  requestAnimationFrame(step)
})"""


def measured(demo: Path, home: str = "630 hedgerow terrace") -> list[Result]:
    with serving_a_copy(demo) as (url, _), sync_playwright() as play:
        with opened_browser(play) as browser:
            cold = [_first_screen(browser.new_context(viewport=SCREEN), url) for _ in range(TIMES)]
        with tempfile.TemporaryDirectory() as profile:  # a person's own, in which compiled scripts are kept too
            own = play.chromium.launch_persistent_context(
                profile, executable_path=CHROMIUM, args=FLAGS, viewport=SCREEN
            )
            warm = [_first_screen(own, url) for _ in range(2 * TIMES)][TIMES:]
            own.close()
    return [
        Result("first useful screen, nothing in the browser's cache", "demo", float(np.median(cold)), max(cold), 1000),
        Result("first useful screen, seen before", "demo", float(np.median(warm)), max(warm), 500),
        *dragged(demo, home, "demo"),
    ]


def dragged(records: Path, home: str, on: str) -> list[Result]:
    with serving_a_copy(records) as (url, _), sync_playwright() as play, opened_browser(play) as browser:
        rates = [rate for _ in range(3) for rate in _redraws(browser, url, home)]
    return [
        Result("counts redrawn while the radius is dragged", on, float(np.median(rates)), float(np.percentile(rates, 5)), 30,
               unit="redraws/s", note="p95 is the 5th percentile over half seconds of three drags"),
    ]  # fmt: skip


@contextmanager
def opened_browser(play: Playwright) -> Iterator[Browser]:
    browser = play.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
    yield browser
    browser.close()


def _first_screen(context: BrowserContext, url: str) -> float:
    """Milliseconds from asking for the address to the field in which a home is typed."""
    page = context.new_page()
    start = time.perf_counter()
    page.goto(url, wait_until="commit")
    page.get_by_role("heading", name="Which home?").wait_for()
    took = (time.perf_counter() - start) * 1000
    page.close()
    return took


def _redraws(browser: Browser, url: str, home: str) -> list[float]:
    """Redraws a second, in each half second of dragging the handle to and fro, when the workup has been priced."""
    made = begun_workup(url, home)
    page = browser.new_page(viewport=SCREEN)
    page.goto(f"{url}/workups/{made}/comps")
    page.get_by_text("for sale").first.wait_for()
    page.wait_for_timeout(4000)
    times = _drag(page)
    httpx.delete(f"{url}/api/workups/{made}")
    page.close()
    if times.size < 2:
        raise SystemExit("The handle of the radius was not found: nothing was redrawn.")
    spans = np.arange(times[0], times[0] + DRAG_SECONDS - 0.5, 0.5)
    return [float(((times >= s) & (times < s + 0.5)).sum() * 2) for s in spans]


def _drag(page: Page) -> np.ndarray:
    """When counts were redrawn, in seconds."""
    box = page.get_by_role("application").bounding_box()
    assert box is not None
    # the circle fits the map with 14 px to spare: its handle stands at the eastern edge, half way down
    y, edge, middle = box["y"] + box["height"] / 2, box["x"] + box["width"] - 14, box["x"] + box["width"] / 2
    page.mouse.move(edge, y)
    page.mouse.down()
    page.evaluate(_WATCH)
    page.evaluate(_DRAG, [middle, edge - middle, y, DRAG_SECONDS])
    times = np.array(page.evaluate("() => window.redrawn")) / 1000
    page.mouse.up()
    return times
