"""What formulas say they are derived in is there: docs/method.md has every heading that is named."""

import re
from pathlib import Path

CALC = Path(__file__).parents[1]
METHOD = CALC.parent / "docs" / "method.md"


def test_every_heading_that_is_named_is_there():
    headings = set(re.findall(r"^#+ (.+)$", METHOD.read_text(), re.MULTILINE))
    named = {}
    for file in CALC.rglob("*.py"):
        if "tests" in file.parts:
            continue
        text = file.read_text()
        for heading in re.findall(r'derived\(\s*"([^"]+)"\s*\)', text):
            named[heading] = file.name
        for said in re.findall(r"docs/method\.md, ((?:“[^”]+”(?: and )?)+)", text):
            named |= dict.fromkeys(re.findall(r"“([^”]+)”", said), file.name)
    assert len(named) > 20
    assert {h: f for h, f in named.items() if h not in headings} == {}
