"""Acting as a person does: the pointer goes to what is seen, the wheel scrolls, Tab goes from control to control."""

from __future__ import annotations

import os
import time
from collections.abc import Callable

from playwright.sync_api import Locator, Page, expect

Press = Callable[[Page, Locator], None]
MOST_TABS = 480

# `make late`: every question waits up to so many ms before it leaves, by chance: what comes in another order than it was asked for
# does no harm
LATE_MS = int(os.environ.get("RAIN_PORCH_TEST_LATE", "0"))

# before a page's own scripts: how many requests and parts of the program are under way, and what had the focus last
WATCH = """(() => {
  const late = LATE_MS
  const ask = async (...given) => {
    if (late) await new Promise((soon) => setTimeout(soon, Math.random() * late))
    return fetched(...given)
  }
  const fetched = window.fetch
  window.underWay = 0
  document.addEventListener('focusin', (e) => { window.lastFocused = e.target }, true)
  const over = () => { window.underWay -= 1 }
  const added = (node) => {
    if (node.tagName !== 'LINK' || !/modulepreload|stylesheet/.test(node.rel)) return
    window.underWay += 1
    for (const end of ['load', 'error']) node.addEventListener(end, over, { once: true })
  }
  new MutationObserver((seen) => seen.forEach((x) => x.addedNodes.forEach(added))).observe(document, { subtree: true, childList: true })
  window.fetch = (...given) => {
    window.underWay += 1
    return ask(...given).finally(() => { window.underWay -= 1 })
  }
})()""".replace("LATE_MS", str(LATE_MS))
LATE = """(() => {
  const ask = window.fetch, waits = %s
  window.fetch = async (...given) => {
    if (RegExp(%r).test(given[0].url ?? given[0])) {
      const wait = waits.length > 1 ? waits.shift() : waits[0]
      await new Promise((soon) => setTimeout(soon, wait))
    }
    return ask(...given)
  }
})()"""
# done once nothing has been asked for, drawn or moved for so many ms
AT_REST = """(rest) => new Promise((done) => {
  const begun = performance.now()
  let since = begun
  const stirred = () => { since = performance.now() }
  const seen = new MutationObserver(stirred)
  seen.observe(document, { subtree: true, childList: true, attributes: true, characterData: true })
  const look = () => {
    if (window.underWay > 0) stirred()
    const now = performance.now()
    if (now - since < rest && now - begun < 15000) return setTimeout(look, 20)
    seen.disconnect()
    done()
  }
  look()
})"""


def late(page: Page, path: str, *ms: int) -> None:
    """From the next page on, what is asked for at paths that fit a pattern waits so many ms before it leaves, the first, the second …, all after
    them as long as the last; nothing else waits meanwhile."""
    page.add_init_script(LATE % ([*ms], path))


def at_rest(page: Page, rest: float = 120) -> None:
    """Wait as a person does: until what was asked for has come and nothing on the page changes any more, for so many ms."""
    page.evaluate(AT_REST, rest)


# where on a thing the pointer would go, once it rests: {x, y}; or what has to be turned with the wheel first, and which way: {home};
# nothing where it still moves or is gone. One question, as finding a thing by its role and name costs more than all the rest.
AIM = """async (e) => {
  const before = e.getBoundingClientRect()
  await new Promise((soon) => setTimeout(soon, 40))
  const r = e.getBoundingClientRect()
  if (!e.isConnected || !e.checkVisibility({ visibilityProperty: true }) || !r.width || ['x', 'y', 'width', 'height'].some((k) => r[k] !== before[k])) return null
  const [x, y] = [r.x + Math.min(r.width / 2, 60), r.y + r.height / 2]
  const at = document.elementFromPoint(x, y)
  if (at && (e.contains(at) || (at.contains(e) && at.matches('label, button')))) return { x, y }
  for (let p = e.parentElement; p; p = p.parentElement) {
    const s = getComputedStyle(p), q = p.getBoundingClientRect()
    if (/auto|scroll/.test(s.overflowY) && p.scrollHeight > p.clientHeight + 2 && (r.bottom > q.bottom - 2 || r.top < q.top + 2))
      return { home: [q.left + q.width / 2, q.top + q.height / 2, r.top < q.top + 2 ? -120 : 120] }
  }
  return { home: null }
}"""
STILL_THERE = """(e, [x, y]) => {
  const r = e.getBoundingClientRect()
  return e.isConnected && Math.abs(r.x + Math.min(r.width / 2, 60) - x) < 0.01 && Math.abs(r.y + r.height / 2 - y) < 0.01
}"""


def point_at(page: Page, what: Locator) -> tuple[float, float]:
    """Bring something into sight with the wheel, put the pointer on it; fails where something else lies over it."""
    found = what.element_handle()
    ends = time.monotonic() + 30  # what is not there yet, or still moves
    rests = turns = 0
    while time.monotonic() < ends and turns < 90:
        aim = found.evaluate(AIM)
        if aim is None:  # or drawn anew meanwhile
            found = what.element_handle()
        elif "x" in aim:
            page.mouse.move(aim["x"], aim["y"])
            if found.evaluate(STILL_THERE, [aim["x"], aim["y"]]):  # nothing that came meanwhile has moved it away
                return aim["x"], aim["y"]
        elif aim["home"] is None:
            assert rests < 3, f"{what} lies under something and no wheel brings it out"
            at_rest(page)  # what is on its way, a menu that closes, say, is waited for
            rests += 1
        else:
            turns += 1
            x, y, way = aim["home"]
            page.mouse.move(x, y)
            page.mouse.wheel(0, way)
            page.wait_for_timeout(20)
    raise AssertionError(f"{what} cannot be scrolled to")


def click_on(page: Page, what: Locator) -> None:
    """A press as a hand makes it: the button is let go a moment later, wherever the thing is by then."""
    x, y = point_at(page, what)
    page.mouse.click(x, y, delay=60)


# holds the focus where it was to come: tabs that are pressed after it are not heard, so that they can be pressed without asking each time
HOLD = """(e) => {
  window.tabReached = false
  if (!e.isConnected) return false
  const there = () => e === document.activeElement || (e.contains(document.activeElement) && e.matches('label, p, span'))
  window.tabReached = there()
  if (window.tabReached) return true
  const stop = (key) => {
    if (!window.tabReached || key.key !== 'Tab') return
    key.preventDefault()
    key.stopImmediatePropagation() // menus close on a Tab at their end
  }
  const look = () => { if (there()) window.tabReached = true }
  document.addEventListener('keydown', stop, true)
  document.addEventListener('focusin', look, true)
  window.tabLet = () => {
    document.removeEventListener('keydown', stop, true)
    document.removeEventListener('focusin', look, true)
    return window.tabReached
  }
  return true
}"""
BATCH = 8
# how the Tab key comes to a control soonest, as one sees it: forwards, backwards round the end of the page, or, where it was the
# last that had the focus, one back and one on; while something is open over the page forwards alone: it closes behind who goes back
WAY = """(e) => {
  const open = [...document.querySelectorAll('.v-overlay--active, [role=dialog], .raised')].some((x) => x.checkVisibility())
  if (open) return ['Tab']
  const stops = [...document.querySelectorAll('a[href], button, input, select, textarea, [tabindex]')].filter(
    (x) => x.tabIndex >= 0 && !x.disabled && !x.closest('[inert]') && x.checkVisibility({ visibilityProperty: true }))
  const there = stops.findIndex((x) => x === e || e.contains(x) || x.contains(e))
  const active = document.activeElement
  const here = stops.indexOf(active === document.body ? window.lastFocused : active)
  if (there < 0 || here < 0) return ['Tab']
  if (here === there) return active === document.body ? ['Shift+Tab', 'Tab'] : ['Tab']
  return (here - there + stops.length) % stops.length < (there - here + stops.length) % stops.length ? ['Shift+Tab'] : ['Tab']
}"""


def tab_to(page: Page, what: Locator) -> None:
    """Press Tab until the control has the focus, backwards where it is nearer so."""
    expect(what).to_be_visible()
    found = what.element_handle()
    *first, tab = found.evaluate(WAY)
    for key in first:
        page.keyboard.press(key)
    for _ in range(MOST_TABS // BATCH):
        while not found.evaluate(HOLD):  # what is drawn anew meanwhile is another thing in the same place
            found = what.element_handle()
        if page.evaluate("window.tabReached"):
            return
        for _ in range(BATCH):
            page.keyboard.press(tab)
        if page.evaluate("window.tabLet()"):
            return
    raise AssertionError(f"Tab never comes to {what}")


def press_by_keys(page: Page, what: Locator) -> None:
    tab_to(page, what)
    page.keyboard.press("Space" if what.evaluate("(e) => e.matches('[type=checkbox], [type=radio]')") else "Enter")


def type_in(page: Page, text: str) -> None:
    """Type over what stands in the field that has the focus."""
    page.keyboard.press("Control+a")
    page.keyboard.type(text)
    page.keyboard.press("Enter")


def a_mark(page: Page, the_map: Locator) -> tuple[float, float]:
    """Where a home stands on a map: the pointer becomes a hand over it."""
    box = the_map.bounding_box()
    assert box is not None
    for y in range(int(box["y"]) + 60, int(box["y"] + box["height"]) - 80, 7):
        for x in range(int(box["x"]) + 40, int(box["x"] + box["width"]) - 80, 7):
            page.mouse.move(x, y)
            if the_map.evaluate("(e) => [e, ...e.querySelectorAll('*')].some((x) => x.style.cursor === 'pointer')"):
                return x, y
    raise AssertionError("no home stands on the map")


def last_row(page: Page, table: Locator) -> Locator:
    """Go down a table with the wheel until nothing moves; the last row, which must be wholly in sight."""
    rows = table.locator("tbody tr:not([aria-hidden])")
    point_at(page, rows.first.locator("td").first)  # it stays in sight when the table is scrolled across
    before, still = None, 0
    for _ in range(300):
        page.mouse.wheel(0, 400)
        page.wait_for_timeout(50)
        now = rows.last.bounding_box(), rows.last.inner_text()
        still = still + 1 if now == before else 0
        if still == 3:  # a wheel that was turned may be heard later
            break
        before = now
    row = rows.last
    assert row.evaluate(
        """(e) => { const r = e.cells[0].getBoundingClientRect()
            return [r.top + 4, r.bottom - 4].every((y) => e.contains(document.elementFromPoint(r.left + 40, y))) }"""
    ), "the last row is not wholly in sight"
    return row
