"""What an eye misses on a page: content out of reach, text on text or under a control, text cut off, figures that are none."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from playwright.sync_api import Browser, Page

from .person import at_rest

LOOK = r"""
() => {
  const found = new Set()
  const [wide, tall] = [innerWidth, innerHeight]
  const say = (what, e, text) => {
    const names = []
    for (let p = e; p && p !== document.body && names.length < 3; p = p.parentElement)
      names.unshift(p.tagName.toLowerCase() + [...p.classList].filter((c) => !c.startsWith("v-theme")).slice(0, 2).map((c) => "." + c).join(""))
    found.add(`${what}: ${text.replace(/\s+/g, " ").trim().slice(0, 60)} (${names.join(" > ")})`)
  }
  const drawn = (e) => e.closest("svg, canvas, .ol-viewport, [aria-hidden=true], .v-overlay__scrim")
  const seen = (e) => e.checkVisibility({ checkOpacity: true, checkVisibilityCSS: true })
  const layer = (e) => e.closest("[role=dialog], .v-overlay, [role=listbox], .over, .card")
  /** What a function says of an element, asked once. */
  const once = (ask) => {
    const told = new Map()
    return (e) => {
      if (!told.has(e)) told.set(e, ask(e))
      return told.get(e)
    }
  }
  const stays = once((e) => {
    for (let p = e; p && p !== document.body; p = p.parentElement)
      if (/sticky|fixed|absolute/.test(getComputedStyle(p).position)) return p
    return null
  })
  /** The nearest ancestor that lets only part of it be seen, how it does, and its box. */
  const edge = once((e) => {
    for (let p = e; p && p !== document.documentElement; p = p.parentElement) {
      const s = getComputedStyle(p)
      if (s.overflowX === "visible" && s.overflowY === "visible") continue
      const scrolls = /auto|scroll/.test(s.overflowX)
      return { p, scrolls, dots: s.textOverflow === "ellipsis", cuts: /hidden|clip/.test(s.overflowX), q: p.getBoundingClientRect() }
    }
    return null
  })
  /** The part of a box that the ancestors of an element let be seen. */
  const within = (e, r) => {
    const box = { left: r.left, top: r.top, right: r.right, bottom: r.bottom, cut: null, dots: null, scrolls: false }
    for (let at = edge(e); at; at = edge(at.p.parentElement)) {
      if (at.scrolls) box.scrolls = true
      if (!box.scrolls && (box.right - at.q.right > 3 || at.q.left - box.left > 3)) {
        if (at.dots) box.dots = box.dots ?? at.p
        else if (at.cuts) box.cut = box.cut ?? at.p
      }
      box.left = Math.max(box.left, at.q.left)
      box.right = Math.min(box.right, at.q.right)
      box.top = Math.max(box.top, at.q.top)
      box.bottom = Math.min(box.bottom, at.q.bottom)
    }
    return box
  }

  for (const e of document.querySelectorAll("body *")) {
    if (drawn(e) || !seen(e) || e.clientHeight <= 60 || e.matches("input, textarea, img, .v-overlay, .v-overlay__content, .map"))
      continue
    const s = getComputedStyle(e)
    if (/hidden|clip/.test(s.overflowY) && e.scrollHeight - e.clientHeight > 8 && s.webkitLineClamp === "none")
      say("cannot be scrolled to", e, `${e.scrollHeight - e.clientHeight} px below`)
    if (/hidden|clip/.test(s.overflowX) && e.scrollWidth - e.clientWidth > 8 && e.clientWidth > 60 && s.textOverflow !== "ellipsis")
      say("cannot be scrolled to", e, `${e.scrollWidth - e.clientWidth} px to the right`)
    if (/auto|scroll/.test(s.overflowX) && e.scrollWidth - e.clientWidth > 8 && e.closest("[role=dialog], .v-overlay"))
      say("has to be scrolled sideways", e, `${e.scrollWidth - e.clientWidth} px to the right`)
    const beyond = e.scrollWidth - e.clientWidth
    const bar = e.offsetHeight - e.clientHeight > 10 // a bar may stay when there is nothing left to scroll
    if (/auto|scroll/.test(s.overflowX) && beyond < 24 && (beyond > 1 || bar)) say("scrolls sideways for nothing", e, `${beyond} px`)
  }

  const pieces = []
  const texts = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT)
  while (texts.nextNode()) {
    const node = texts.currentNode
    const e = node.parentElement
    if (!e || !node.data.trim() || drawn(e) || e.closest("option, script, style, datalist") || !seen(e)) continue
    if (/NaN|undefined|\bnull\b|Infinity|\[object /.test(node.data)) say("no figure", e, node.data)
    if (/\b[a-z]+(_[a-z]+)+\b/.test(node.data) && !e.closest("code, pre")) say("a name of the program's own", e, node.data)
    if (/\b\d{4}-(\d\d|Q\d)\b/.test(node.data) && !e.closest("code, pre")) say("a day as programs write it", e, node.data)
    const range = document.createRange()
    range.selectNodeContents(node)
    for (const r of range.getClientRects()) {
      if (r.width < 3 || r.height < 3) continue
      const box = within(e, r)
      if (box.right - box.left < 3 || box.bottom - box.top < 3) continue
      if (box.right < 0 || box.bottom < 0 || box.left > wide || box.top > tall) continue
      const at = document.elementFromPoint(
        Math.min(wide - 1, (box.left + box.right) / 2), Math.min(tall - 1, (box.top + box.bottom) / 2))
      if (!at || !(at === e || at.contains(e) || e.contains(at))) {
        if (at && layer(at) === layer(e) && at.closest("input, select, textarea, button") && !stays(at))
          say("text under a control", e, node.data)
        continue
      }
      if (box.cut && !box.dots) say("cut off", e, node.data)
      if (box.dots && !box.dots.closest("[title], [aria-label]") && !e.closest("[title]")) say("cut without its whole to be read", e, node.data)
      if (r.right > wide + 3 && !box.scrolls && document.documentElement.scrollWidth <= wide + 3) say("off the page", e, node.data)
      pieces.push({ e, text: node.data, ...box })
    }
  }
  const over = (a, b) =>
    Math.min(a.right, b.right) - Math.max(a.left, b.left) > 3 && Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top) > 4
  pieces.sort((a, b) => a.top - b.top)
  pieces.forEach((a, i) => {
    for (let j = i + 1; j < pieces.length && pieces[j].top < a.bottom; j += 1) {
      const b = pieces[j]
      if (a.e === b.e || a.e.contains(b.e) || b.e.contains(a.e) || stays(a.e) !== stays(b.e) || layer(a.e) !== layer(b.e)) continue
      if (over(a, b)) say("text on text", a.e, `${a.text.trim()} / ${b.text.trim()}`)
    }
  })
  for (const c of document.querySelectorAll("input:not([type=range]):not([type=file]):not([type=hidden]), select, textarea")) {
    if (drawn(c) || !seen(c)) continue
    const box = within(c.parentElement ?? c, c.getBoundingClientRect())
    if (box.right - box.left < 3 || box.bottom - box.top < 3) continue
    for (const p of pieces)
      if (!c.contains(p.e) && !p.e.closest("label, .v-field, kbd") && stays(p.e) === stays(c) && layer(p.e) === layer(c) && over(p, box))
        say("text on a control", c, p.text)
  }
  const pen = document.createElement("canvas").getContext("2d")
  for (const c of document.querySelectorAll("button, [role=button], input:not([type=hidden]), select, textarea, a[href]")) {
    if (!seen(c) || c.closest("[aria-hidden=true]") || c.getBoundingClientRect().width < 3) continue
    if (c.matches("a") && /^rgb\((0, 0, 238|85, 26, 139)\)$/.test(getComputedStyle(c).color)) say("in the browser's own blue", c, c.textContent)
    const cut = getComputedStyle(c)
    if (c.matches("button") && c.textContent.trim() && c.scrollWidth - c.clientWidth > 2 && cut.overflowX !== "visible" && cut.textOverflow !== "ellipsis")
      say("too narrow for its words", c, c.textContent)
    const words = c.matches("select") ? c.selectedOptions[0]?.label : c.matches("input") && !c.value ? c.placeholder : ""
    if (words) {
      pen.font = `${cut.fontWeight} ${cut.fontSize} ${cut.fontFamily}`
      const arrow = c.matches("select") ? 14 : 0
      const room = c.clientWidth - parseFloat(cut.paddingLeft) - parseFloat(cut.paddingRight) - arrow
      if (pen.measureText(words).width > room + 1) say("too narrow for its words", c, words)
    }
    const name = c.getAttribute("aria-label") || c.getAttribute("aria-labelledby") || c.title || c.textContent.trim() || c.placeholder || c.labels?.length || c.querySelector("img[alt]")
    if (!name) say("control without a name", c, c.outerHTML.slice(0, 60))
  }
  for (const e of document.querySelectorAll("[title], [aria-label]"))
    for (const words of [e.title, e.getAttribute("aria-label")])
      if (/\b[a-z]+(_[a-z]+)+\b/.test(words ?? "") && seen(e)) say("a name of the program's own", e, words)
  return [...found]
}
"""
SIZES = ((1280, 800), (1440, 900), (1024, 768))


def look_over(page: Page) -> list[str]:
    """What is wrong with the page as it stands, at every size: where things lie does not hang on the theme, whose colours axe looks
    at."""
    wrong = []
    for width, height in SIZES:
        page.set_viewport_size({"width": width, "height": height})
        at_rest(page, 60)
        wrong += [f"{width}×{height}: {told}" for told in page.evaluate(LOOK)]
    page.set_viewport_size({"width": SIZES[0][0], "height": SIZES[0][1]})
    return wrong


NARROW_WORDS = """[...document.querySelectorAll('td, dd, p, h2')]
  .filter(e => e.textContent.length > 12 && e.clientWidth < 60 && e.clientWidth > 0).length"""
SMALL_WORDS = """[...document.querySelectorAll('main *')]
  .filter(e => e.childElementCount === 0 && e.textContent.trim() && parseFloat(getComputedStyle(e).fontSize) < 13).length"""


@contextmanager
def on_a_phone(browser: Browser, file: Path) -> Iterator[Page]:
    """A web page of ours opened at 390 px: nothing to pinch, no words in a column of one letter, none too small to read."""
    with browser.new_context(viewport={"width": 390, "height": 844}) as phone:
        page = phone.new_page()
        page.goto(file.as_uri())
        assert page.evaluate("document.documentElement.scrollWidth") == 390, "nothing to pinch"
        assert page.evaluate(NARROW_WORDS) == 0, "words in a column of one letter"
        assert page.evaluate(SMALL_WORDS) == 0, "words too small to read"
        yield page
