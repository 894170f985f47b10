"""Files for spreadsheets: no cell that a spreadsheet would run, each read back as it was, and nothing but text."""

from __future__ import annotations

import csv
import io
import unicodedata

# What spreadsheets take for the beginning of a formula, in both widths.
FORMULA = ("=", "+", "-", "@", "\t", "\r", "\n", "＝", "＋", "－", "＠")
MARK = "'"
ECHOED, SIGNS = 3, 40  # of what cannot be read: so many words, so long
NO_TEXT = "This is no text file. Save it as CSV, with commas between the columns, then read it again."


class Unreadable(Exception):
    """The file as a whole cannot be read; the sentence says why."""


def cell(text: str) -> str:
    """A text as it is written: marked where a spreadsheet would run it, and where it begins with the mark itself."""
    return f"{MARK}{text}" if text.startswith((*FORMULA, MARK)) else text


def sheet(rows: list[list[str]]) -> str:
    """Rows as a CSV file."""
    file = io.StringIO(newline="")
    csv.writer(file).writerows([cell(text) for text in row] for row in rows)
    return file.getvalue()


def uncell(text: str) -> str:
    """A text as it was before it was written."""
    return text[1:] if text.startswith(MARK) else text


def named(words: list[str]) -> str:
    """Words of a file as they are quoted back: a few, and not at length."""
    told = ", ".join(f"“{w[:SIGNS]}{'…' if len(w) > SIGNS else ''}”" for w in words[:ECHOED])
    return told + (f" and {len(words) - ECHOED} more" if len(words) > ECHOED else "")


def rows_of(text: str) -> list[list[str]]:
    """The rows of a CSV file, the first names the columns; comma, semicolon or tab between them. Raises Unreadable."""
    body = text.lstrip("\ufeff")
    if any(sign == "\ufffd" or (unicodedata.category(sign) == "Cc" and sign not in "\t\r\n") for sign in body):
        raise Unreadable(NO_TEXT)
    head = body.partition("\n")[0]
    try:
        rows = list(csv.reader(io.StringIO(body, newline=""), delimiter=max(",;\t", key=head.count), strict=True))
    except csv.Error as error:
        raise Unreadable(f"This is not a CSV file: {error}.") from error
    found = [row for row in rows if any(c.strip() for c in row)]
    if not found:
        raise Unreadable("The file is empty. Its first line names the columns.")
    return found
