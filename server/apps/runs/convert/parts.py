"""Parts of a plan as bytes: each with a digest, by which a browser tells that it has it already."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from functools import lru_cache
from hashlib import blake2b
from typing import Any

from pydantic import TypeAdapter

from calc.plan.compute import PlanResult
from calc.plan.stop import Stop
from calc.said.drawn import ChartSaid, SceneSaid
from calc.said.pictures import PictureSaid
from calc.said.plan import Kind, around, part_said, stop_of
from calc.said.reader import Reader
from calc.said.stop import Around, HelpSaid, StepSaid, StopPage, page_said
from calc.said.table import TableSaid

WRITERS: Mapping[Kind, TypeAdapter[Any]] = {
    "stop": TypeAdapter(StopPage),
    "helps": TypeAdapter(list[HelpSaid]),
    "tables": TypeAdapter(list[TableSaid]),
    "pictures": TypeAdapter(list[PictureSaid]),
    "steps": TypeAdapter(list[StepSaid]),
    "scene": TypeAdapter(SceneSaid),
    "chart": TypeAdapter(ChartSaid),
}
PAGES_KEPT = 96  # as bytes some 15 kB each
Held = Mapping[str, str]  # digests of parts, by name


@dataclass(frozen=True)
class Written:
    """A part's content as JSON, and its digest over that, the units and what its reader may do."""

    kind: Kind
    content: bytes
    digest: str

    def part(self, name: str, held: Held) -> bytes:
        """The part as it is sent: without its content where it is held already."""
        head = b'{"name":%b,"digest":"%b"' % (_TEXT.dump_json(name), self.digest.encode())
        return head + (b"}" if held.get(name) == self.digest else b',"%b":%b}' % (self.kind.encode(), self.content))


_TEXT: TypeAdapter[str] = TypeAdapter(str)


def _written(kind: Kind, content: Any, reader: Reader) -> Written:
    said = WRITERS[kind].dump_json(content)
    mark = blake2b(said, digest_size=9, key=f"{reader.system} {reader.may!r}".encode()[:64])
    return Written(kind, said, mark.hexdigest())


@lru_cache(maxsize=PAGES_KEPT)
def _page(stop: Stop, given: Around, reader: Reader) -> tuple[StopPage, Written]:
    page = page_said(stop, given, reader)
    return page, _written("stop", page, reader)


def page_of(result: PlanResult, stop: Stop, reader: Reader) -> StopPage:
    """The page of a stop; the same one while nothing of it has moved."""
    return _page(stop, around(result, stop), reader)[0]


def written(result: PlanResult, name: str, reader: Reader) -> Written:
    """A part of a plan. Raises KeyError where it has none of this name."""
    what, _, key = name.partition(":")
    if what == "stop":
        stop = stop_of(result, key)
        return _page(stop, around(result, stop), reader)[1]
    said = part_said(result, name, reader)
    return _written(said.kind, said.content, reader)


def parts_sent(result: PlanResult, names: Iterable[str], reader: Reader, held: Held) -> list[bytes]:
    """The parts asked for; what the plan does not have is left out."""
    found = []
    for name in dict.fromkeys(names):
        try:
            found.append(written(result, name, reader).part(name, held))
        except KeyError:
            continue
    return found
