"""A step as the line a setter writes off a print, and back: "Spigot: 84 h7 x 40 Ra 1.6 c0.3"."""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass, field, replace
from typing import Any

from calc.errors import CalcError, FieldError, FieldProblem
from calc.profile.steps import NAME_MOST, TurnedStep
from calc.quantities import Sentence, System, exact_text, from_core, shown_as
from calc.threads.designation import Designation, designation
from calc.written import parse

LINES_MOST = 60
LONGEST = 200  # characters of a line
HELP = (
    "Diameter, limits, x, length, then what else the print says: 84 h7 x 40 Ra 1.6 c0.3 · 118 0/-0.1 x 14 r0.4 · "
    "M24x1.5-6g x 20 on 16 · 60>50 x 12 · groove 20 x 3 · hex 24 x 14 · 52 H7 through"
)
_NUM = r"[-+−]?(?:\d+(?:[ -]\d+)?/\d+|\d*[.,]?\d+)(?:\s?(?:mm|in|inch|thou|µm|µin|[\"”″])(?![\w.]))?"
_NAME = re.compile(r"^\s*([^:]{1,60}):\s*")
_LENGTH = re.compile(rf"(?:\s+[x×*]\s*|\s*×\s*)({_NUM})(?=\s|$)", re.IGNORECASE)
_THROUGH = re.compile(r"(?:\s+x)?\s+(?:through|thru)(?=\s|$)", re.IGNORECASE)
_ITEMS: dict[str, tuple[re.Pattern[str], str]] = {
    "ra_um": (re.compile(rf"\bRa\s?({_NUM})(?=\s|$)"), "um"),
    "round_mm": (re.compile(rf"\bround\s?({_NUM})(?=\s|$)", re.IGNORECASE), "mm"),
    "corner_mm": (re.compile(rf"\b(?:corner\s?|r)({_NUM})(?=\s|$)", re.IGNORECASE), "mm"),
    "chamfer_mm": (re.compile(rf"\b(?:chamfer\s?|c)({_NUM})(?:\s?[x×]\s?45°?)?(?=\s|$)", re.IGNORECASE), "mm"),
    "arc_mm": (re.compile(rf"\barc\s?({_NUM})(?=\s|$)", re.IGNORECASE), "mm"),
    "thread_length_mm": (re.compile(rf"\bon\s({_NUM})(?=\s|$)", re.IGNORECASE), "mm"),
}
_LIMITS = re.compile(
    rf"\s+(?:({_NUM})\s*/\s*({_NUM})|[±]\s?({_NUM})|(js\d{{1,2}}|[a-z]{{1,3}}\d{{1,2}}))$", re.IGNORECASE
)
_TWO = re.compile(r"\s+([-+−](?:\d*\.?\d+))\s+([-+−](?:\d*\.?\d+))$")


@dataclass
class _Reader:
    """What is left of a line, and what was found in it."""

    left: str
    system: System
    found: dict[str, Any] = field(default_factory=dict)

    def take(self, name: str, pattern: re.Pattern[str], unit: str) -> None:
        hit = pattern.search(self.left)
        if hit:
            self.found[name] = parse(hit[1], unit, self.system, name)
            self.left = (self.left[: hit.start()] + " " + self.left[hit.end() :]).rstrip()


def _name(reader: _Reader, otherwise: str) -> str:
    hit = _NAME.match(reader.left)
    if not hit:
        return otherwise
    reader.left = reader.left[hit.end() :]
    name = " ".join(hit[1].split())
    if not name:
        raise FieldProblem("name", "Write the step's name before the colon, or leave the colon out.")
    if len(name) > NAME_MOST:
        raise FieldProblem("name", f"Keep the name before the colon to {NAME_MOST} characters.")
    return name


def _are_limits(one: str, two: str) -> bool:
    """Two figures over a stroke are limits where one has a sign or is nothing: 1 3/16 is a fraction."""
    return any(t[0] in "+-−" or not t.strip("0.") for t in (one, two))


def _limits(reader: _Reader) -> None:
    hit = _LIMITS.search(reader.left) or _TWO.search(reader.left)
    if not hit or (hit.re is _LIMITS and hit[1] and not _are_limits(hit[1], hit[2])):
        return
    reader.left = reader.left[: hit.start()]
    groups = [g for g in hit.groups() if g is not None]
    if len(groups) == 2:
        one, two = (parse(g.replace("−", "-"), "mm", reader.system, "upper_mm") for g in groups)
        reader.found |= {"upper_mm": max(one, two), "lower_mm": min(one, two)}
    elif hit.re is _LIMITS and hit[4]:
        reader.found["fit"] = groups[0]
    else:
        x = parse(groups[0], "mm", reader.system, "upper_mm")
        reader.found |= {"upper_mm": x, "lower_mm": -x}


def _size(reader: _Reader) -> None:
    """The diameter, two for a taper, or a thread with its major diameter."""
    text = reader.left.strip()
    thread: Designation | None = designation(text)
    if thread is not None:
        reader.found |= {"thread": thread.text, "diameter_mm": thread.major_mm}
        return
    _limits(reader)
    text = reader.left.strip()
    if not text:
        raise FieldProblem("diameter_mm", "A step begins with its diameter: write one such as 84 h7 x 40.")
    ends = text.split(">")
    if len(ends) > 2:
        raise FieldProblem("diameter_mm", "A taper has two diameters: write it as 60>50 x 20.")
    reader.found["diameter_mm"] = _figure(ends[0], text, reader.system)
    if len(ends) == 2:
        reader.found["end_diameter_mm"] = _figure(ends[1], text, reader.system)


def _figure(part: str, whole: str, system: System) -> float:
    try:
        return parse(part, "mm", system, "diameter_mm")
    except CalcError as error:
        if any(asks in str(error) for asks in ("two ways", "looks like inches")):
            raise
        said = Sentence(
            "“{text}” cannot be read in this step. Write it as {help}.",
            text=" ".join(whole.split()),
            help="84 h7 x 40 Ra 1.6 c0.3",
        )
        raise FieldProblem("diameter_mm", said) from error


_CLOSE_FIT = re.compile(r"(?<=\d)((?:js|[a-wyz]{1,2})\d{1,2})(?=\s|$|[x×])", re.IGNORECASE)
_CLOSE_X = re.compile(r"(?:(?<=\d)|(?<=[\"”″])|(?<=mm)|(?<=in))[x×](?=[.\d])", re.IGNORECASE)
_PLAIN = re.compile(r"(?:groove\s+|hex\w*\s+|sq\w*\s+)?[.\d]", re.IGNORECASE)


def _spaced(line: str) -> str:
    """A line written without spaces, "Ø84h7x40" or "84H7*40", with them; a thread's own x stays as it is."""
    line = re.sub(r"^[ØøΦφ⌀]\s*", "", line).replace("*", " x ")
    if not _PLAIN.match(line):
        return line
    return " ".join(_CLOSE_X.sub(" x ", _CLOSE_FIT.sub(r" \1", line, count=1), count=1).split())


_NOT_READ = {
    re.compile(r"^G\s?\d", re.IGNORECASE): "A pipe thread, G, is not known here: write the turned diameter, such as "
    "20.96 x 18, and give the thread on the card.",
    re.compile(r"\bRz\b", re.IGNORECASE): "Rz is measured otherwise than Ra, and neither gives the other: write the "
    "Ra that the print allows, such as Ra 1.6, or ask whoever made it.",
}


def _refuse_unknown(line: str) -> None:
    """Raise FieldProblem for what a print says and a step does not take, with what to write instead."""
    for pattern, words in _NOT_READ.items():
        if pattern.search(line):
            raise FieldProblem("diameter_mm", words)


def read_line(text: str, system: System, name: str) -> TurnedStep:
    """The step a line describes; `name` where the line gives none.

    Bare figures are in the units of `system`. Raises CalcError at the step's field with what to do.

    >>> step = read_line("Spigot: 84 h7 x 40 Ra 1.6 c0.3", "metric", "Step 1")
    >>> step.name, step.diameter_mm, step.fit, step.length_mm, step.ra_um, step.chamfer_mm
    ('Spigot', 84.0, 'h7', 40.0, 1.6, 0.3)
    """
    if len(text) > LONGEST:
        raise FieldProblem("", f"This is too long for a step: write it in {LONGEST} characters at most.")
    reader = _Reader(" " + " ".join(text.split()), system)
    given = _name(reader, name)
    _refuse_unknown(reader.left.strip())
    reader.left = " " + _spaced(reader.left.strip())
    for item, (pattern, unit) in _ITEMS.items():
        reader.take(item, pattern, unit)
    through = _THROUGH.search(reader.left)
    if through:
        reader.left = reader.left[: through.start()] + reader.left[through.end() :]
    else:
        reader.take("length_mm", _LENGTH, "mm")
    flats = re.match(r"\s*(hex(?:agon)?|sq(?:uare)?)\b", reader.left, re.IGNORECASE)
    if flats:
        reader.found["left"] = "hexagon" if flats[1].casefold().startswith("hex") else "square"
        reader.left = reader.left[flats.end() :]
    if re.match(r"\s*groove\b", reader.left, re.IGNORECASE):
        reader.found["groove"] = True
        reader.left = re.sub(r"^\s*groove\b", "", reader.left, flags=re.IGNORECASE)
    _size(reader)
    return TurnedStep(name=given, **reader.found)


def _number(value: float, unit: str, system: System) -> str:
    return exact_text(float(f"{from_core(value, unit, shown_as(unit, system)):.9g}"))


def write_line(step: TurnedStep, system: System, *, named: bool = True) -> str:
    """The line of a step, in the units of `system`; `read_line` takes it back."""

    def mm(value: float) -> str:
        return _number(value, "mm", system)

    head = {"hexagon": "hex ", "square": "square "}.get(step.left, "groove " if step.groove else "")
    size = head + (step.thread or ("" if step.diameter_mm is None else mm(step.diameter_mm)))
    if step.end_diameter_mm is not None:
        size += f">{mm(step.end_diameter_mm)}"
    if step.fit:
        size += f" {step.fit}"
    elif step.upper_mm is not None and step.lower_mm is not None:
        size += f" {_signed(step.upper_mm, system)}/{_signed(step.lower_mm, system)}"
    parts = [size, f"x {mm(step.length_mm)}" if step.length_mm is not None else ""]
    for item, word, unit in (
        ("arc_mm", "arc ", "mm"),
        ("thread_length_mm", "on ", "mm"),
        ("ra_um", "Ra ", "um"),
        ("chamfer_mm", "c", "mm"),
        ("round_mm", "round ", "mm"),
        ("corner_mm", "r", "mm"),
    ):
        value = getattr(step, item)
        if value is not None:
            parts.append(word + _number(value, unit, system))
    line = " ".join(p for p in parts if p)
    return f"{step.name}: {line}" if named else line


def _signed(value: float, system: System) -> str:
    text = _number(value, "mm", system)
    return text if value <= 0 else f"+{text}"


@dataclass(frozen=True)
class LineAnswer:
    """What became of one pasted line: its step, or what to do about it."""

    number: int
    text: str
    step: TurnedStep | None
    problem: FieldError | None


def read_lines(text: str, system: System, *, inside: bool = False) -> tuple[LineAnswer, ...]:
    """Every line of a pasted list, each answered; empty lines are left out. A step without a name is called by what
    it is, of a list of outside steps or of bores. Raises FieldProblem beyond 60 lines.
    """
    lines = [(i, line) for i, line in enumerate(text.replace("\r", "").split("\n"), 1) if line.strip()]
    if len(lines) > LINES_MOST:
        raise FieldProblem("lines", f"A profile takes {LINES_MOST} lines at most.")
    answers: list[LineAnswer] = []
    for number, line in lines:
        try:
            answers.append(LineAnswer(number, line.strip(), read_line(line, system, _UNNAMED), None))
        except CalcError as error:
            answers.append(LineAnswer(number, line.strip(), None, error.errors[0]))
    return tuple(_named([a.step for a in answers if a.step is not None], answers, inside=inside))


_UNNAMED = "Step"
FLAT = 0.5  # of its diameter, typical: a largest step no longer than that is called a flange


def _named(steps: list[TurnedStep], answers: list[LineAnswer], *, inside: bool) -> Iterator[LineAnswer]:
    """The answers with a name for each step that has none: "Spigot", then "Spigot 2"."""
    plain = [s.diameter_mm or 0.0 for s in steps if not (s.thread or s.groove)]
    seen = Counter(s.name.casefold() for s in steps if s.name != _UNNAMED)
    for answer in answers:
        step = answer.step
        if step is None or step.name != _UNNAMED:
            yield answer
            continue
        stem = _called(step, plain, inside=inside)
        seen[stem.casefold()] += 1
        count = seen[stem.casefold()]
        yield replace(answer, step=replace(step, name=stem if count == 1 else f"{stem} {count}"))


def _called(step: TurnedStep, plain: list[float], *, inside: bool) -> str:
    """What a setter calls a step, by its shape among the plain diameters of its list [mm]."""
    if step.thread:
        return "Thread"
    if step.groove:
        return "Groove"
    if inside:
        return "Bore"
    if step.flats:
        return step.left.capitalize()
    d, long = step.diameter_mm or 0.0, step.length_mm or 0.0
    if len(plain) > 1 and d < max(plain):
        return "Spigot"
    return "Flange" if len(plain) > 1 and long <= FLAT * d else "Body"
