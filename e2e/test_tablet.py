"""A plan on a tablet: enough of a stop in sight at once, and all that is touched large enough for a finger."""

from e2e.screen import open_stop

STOPS = ("part", "sides", "hold", "jaws", "cuts", "tools", "force", "route")
# Where something is seen of what scrolls, and by how much of it.
IN_SIGHT = """
const within = e => {
  let [top, bottom] = [0, innerHeight]
  for (let p = e.parentElement; p; p = p.parentElement) {
    if (getComputedStyle(p).overflowY === 'visible') continue
    const box = p.getBoundingClientRect();
    [top, bottom] = [Math.max(top, box.top), Math.min(bottom, box.bottom)]
  }
  return [top, bottom]
}
"""
# A fact stands in a row of its own, in a cell of a table, or as an answer.
FACTS = f"""() => {{ {IN_SIGHT}
  const facts = document.querySelectorAll('[data-ledger] [data-fact], [data-ledger] tbody td, [data-answer]')
  const said = [...facts].filter(e => e.innerText.trim() !== '')
  const seen = said.filter(e => {{
    const box = e.getBoundingClientRect(), [top, bottom] = within(e)
    return box.height > 4 && box.top >= top - 1 && box.top + box.height / 2 <= bottom
  }})
  return [seen.length, said.length]
}}"""
# What a finger hits of each, through its middle, across and down.
SMALL = f"""() => {{ {IN_SIGHT}
  const small = []
  for (const e of document.querySelectorAll('button, a[href], input, [role=separator]')) {{
    const box = e.getBoundingClientRect(), look = getComputedStyle(e)
    if (box.width < 2 || box.height < 2 || e.disabled) continue
    if (look.visibility === 'hidden' || look.clipPath !== 'none') continue
    const [x, y] = [box.left + box.width / 2, box.top + box.height / 2], [top, bottom] = within(e)
    if (y - 22 < top || y + 22 > bottom) continue  // it is whole once it is scrolled to
    const hit = (dx, dy) => {{
      let far = 0
      while (far < 44) {{
        const at = document.elementFromPoint(x + dx * (far + 1), y + dy * (far + 1))
        if (at === null || !(e.contains(at) || at.closest('label')?.contains(e))) break
        far++
      }}
      return far
    }}
    const [wide, high] = [hit(-1, 0) + hit(1, 0), hit(0, -1) + hit(0, 1)]
    if (wide < 42 || high < 42) small.push(`${{e.getAttribute('aria-label') ?? e.innerText}} ${{wide}} x ${{high}}`)
  }}
  return small
}}"""


def test_eight_facts_are_in_sight_and_everything_is_large_enough_to_touch(app, run):
    app.set_viewport_size({"width": 1024, "height": 768})
    few, small = {}, {}
    for stop in STOPS:
        open_stop(app, run, stop)
        app.wait_for_load_state("networkidle")
        (seen, there), found = app.evaluate(FACTS), app.evaluate(SMALL)
        few |= {stop: (seen, there)} if seen < min(8, there) else {}
        small |= {stop: found} if found else {}
    assert few == {}
    assert small == {}, small
