"""Checks of every view: the rules of axe-core, and faults of layout."""

from __future__ import annotations

from pathlib import Path

AXE = (Path(__file__).parents[1] / "web/node_modules/axe-core/axe.min.js").read_text()
VIOLATIONS = """async ([within, without, rules]) => {
  const tags = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice']
  const runOnly = rules ? { type: 'rule', values: rules } : { type: 'tag', values: tags }
  const more = rules ? {} : { 'label-content-name-mismatch': { enabled: true }, 'target-size': { enabled: true } }
  const context = { include: [[within]], exclude: without.map(part => [part]) }
  const found = await axe.run(context, { runOnly, rules: more, resultTypes: ['violations'] })
  return found.violations.flatMap(one => one.nodes.map(node => `${one.id}: ${node.html.slice(0, 160)} ${node.failureSummary}`))
}"""
OF_COLOURS = ["color-contrast", "link-in-text-block"]
"""Rules that the dark theme can break and the light one keep: all else of a page is the same in both."""


def looked_at(page, within="html", without=()):
    """Return what axe finds wrong with a part of the page once it has come to rest: in the light, by its colours in the dark."""
    page.wait_for_load_state("networkidle", timeout=120_000)
    page.evaluate("Promise.all(document.getAnimations().map(one => one.finished.catch(() => 0)))")
    page.evaluate(AXE)
    result = page.evaluate(VIOLATIONS, [within, list(without), None])
    page.evaluate("document.documentElement.classList.add('dark')")
    result += [f"dark, {item}" for item in page.evaluate(VIOLATIONS, [within, list(without), OF_COLOURS])]
    page.evaluate("document.documentElement.classList.remove('dark')")
    return result


SMALL_TEXTS = """() => [...document.querySelectorAll('svg text')].flatMap(text => {
  const box = text.getBoundingClientRect()
  if (!box.width || !text.textContent.trim()) return []
  const { c, d } = text.getScreenCTM()
  const size = parseFloat(getComputedStyle(text).fontSize) * Math.hypot(c, d)
  return size < 10.99 ? [`${text.textContent.trim()}: ${size.toFixed(1)} px`] : []
})"""
"""Texts of drawings that are smaller than 11 px."""

TOUCHING = """() => [...document.querySelectorAll('.row')].flatMap(row => {
  const boxes = [...row.querySelectorAll('.input, .mean, .chip')].map(one => [one.className, one.getBoundingClientRect()])
  const seen = boxes.filter(([, box]) => box.width > 0 && box.height > 0)
  return seen.flatMap(([name, box], i) => seen.slice(i + 1)
    .filter(([, other]) => box.left < other.right - 0.5 && other.left < box.right - 0.5
      && box.top < other.bottom - 0.5 && other.top < box.bottom - 0.5)
    .map(([other]) => `${row.dataset.key}: ${name} on ${other}`))
})"""
"""Fields, means and readings of a row that lie on each other."""

CUT_NUMBERS = """() => [...document.querySelectorAll('.chip:has(.about) .typed')]
  .filter(one => one.scrollWidth > one.clientWidth + 1 && one.clientWidth > 0 && getComputedStyle(one).display !== 'inline')
  .map(one => one.textContent)"""
"""Readings of which a figure is not seen: what is said of a reading gives way, the number never."""

CLIPPED = """() => [...document.querySelectorAll('main *')].flatMap(one => {
  const style = getComputedStyle(one)
  const hides = ['hidden', 'clip'].includes(style.overflowX) && one.scrollWidth > one.clientWidth + 1 && one.clientWidth > 1
  const isTold = style.textOverflow === 'ellipsis' && one.closest('[title]') !== null
  const words = one.textContent.trim()
  return hides && !isTold && !one.matches('.unseen') && words ? [`${one.className}: ${words.slice(0, 60)}`] : []
})"""
"""Texts that are cut off at the side, but for those whose whole is told beside them."""


def laid_out(page):
    """Return what is too small, cut off, or on another."""
    scripts = (SMALL_TEXTS, TOUCHING, CLIPPED, CUT_NUMBERS)
    wide = page.evaluate("document.documentElement.scrollWidth")
    return [fault for script in scripts for fault in page.evaluate(script)] + [f"{wide} px wide"] * (wide > 1280)
