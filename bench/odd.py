"""What nobody means to send, drawn from a seed: odd figures, words and signs, and values that nearly fit a shape."""

from __future__ import annotations

import random
from dataclasses import dataclass
from typing import Any

Shape = dict[str, Any]  # of the API's own document
NUMBERS = (
    "9" * 400,
    "9" * 5000,
    "-0",
    "1e309",
    "1e-400",
    "0x1f",
    "1_000",
    "١٢",
    "½",
    "1 7/16",
    "1/0",
    "+5",
    "--5",
    ".",
    "5.",
)
SIGNS = (
    "\x00",
    "\ud800",
    "\u202e",
    "\ufeff",
    "＝1",
    "=1+1",
    "@x",
    "'",
    '"',
    "\\",
    "<script>",
    "%00",
    "../..",
    "\n",
    "\t",
)
WORDS = (
    "",
    " ",
    "abc",
    "a" * 300,
    "ß" * 90,
    "null",
    "NaN",
    "-1",
    "0",
    "24",
    "24 bar",
    "8 thou",
    "36,5",
    "1,250",
    "true",
)
VALUES: tuple[Any, ...] = (
    None,
    True,
    False,
    0,
    -1,
    2**31,
    2**63,
    2**70,
    10**40,
    1e308,
    -1e308,
    0.1,
    [],
    {},
    [[]],
    {"a": 1},
)


def deep(choose: random.Random) -> str:
    """JSON nested as nobody nests it."""
    levels = choose.choice((20, 200, 2000, 50_000))
    return choose.choice(('{"a":', "[")) * levels + "1" + choose.choice(("}", "]")) * levels


def odd(choose: random.Random) -> Any:
    """Something that somebody might send for anything."""
    drawn = choose.random()
    if drawn < 0.35:
        return choose.choice(WORDS)
    if drawn < 0.6:
        return choose.choice(NUMBERS)
    if drawn < 0.8:
        return choose.choice(("", "24", "x")) + choose.choice(SIGNS) + choose.choice(("", "1", "y"))
    return choose.choice(VALUES)


@dataclass
class Fitting:
    """Values that fit the shapes of the API's document, or nearly do."""

    shapes: Shape
    known: dict[str, list[Any]]
    choose: random.Random

    def value(self, shape: Shape, name: str = "", depth: int = 0) -> Any:
        """A value of a shape: now and then one that is none."""
        choose = self.choose
        if choose.random() < 0.08 or depth > 5:
            return odd(choose)
        if name in self.known and choose.random() < 0.7:
            return choose.choice(self.known[name])
        if "$ref" in shape:
            return self.value(self.shapes[shape["$ref"].rpartition("/")[2]], name, depth)
        if "anyOf" in shape:
            return self.value(choose.choice(shape["anyOf"]), name, depth)
        if "enum" in shape:
            return choose.choice(shape["enum"])
        if "const" in shape:
            return shape["const"]
        return self._plain(shape, name, depth)

    def _plain(self, shape: Shape, name: str, depth: int) -> Any:
        choose = self.choose
        match shape.get("type"):
            case "object":
                given = {
                    n: self.value(s, n, depth + 1)
                    for n, s in shape.get("properties", {}).items()
                    if n in shape.get("required", ()) or choose.random() < 0.5
                }
                if shape.get("additionalProperties") and choose.random() < 0.7:
                    fields = choose.sample(self.known["field"], 2)
                    given |= {n: odd(choose) for n in fields}
                return given
            case "array":
                return [self.value(shape.get("items", {}), name, depth + 1) for _ in range(choose.randrange(4))]
            case "integer":
                return choose.choice((0, 1, 2, 7, shape.get("minimum", 0), shape.get("maximum", 2**31)))
            case "number":
                return choose.choice((0, 0.5, 24, -3, 1e9))
            case "boolean":
                return choose.random() < 0.5
            case "null":
                return None
            case "string" if shape.get("format") == "uuid":
                return f"{choose.getrandbits(128):032x}"
        return choose.choice(("24", "abc", "1 7/16", "")) if choose.random() < 0.6 else odd(choose)
