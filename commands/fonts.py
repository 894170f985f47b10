"""Cut the fonts down to the glyphs that the screens use, so that the first load stays small."""

from __future__ import annotations

from pathlib import Path

from fontTools import subset

from commands.places import WEB

LATIN = "".join(chr(c) for c in (*range(0x20, 0x7F), *range(0xA0, 0x180)))
SIGNS = "–—‘’“”„…•′″\u2009\u202f\u2212×÷·±≤≥≈√→←↑↓∞°µØø²³⁻¹ΣαβγδεηθκλμνπρστφψωΔΩ"
FACES = {
    "sans-400": "plex-sans/fonts/complete/woff2/IBMPlexSans-Regular.woff2",
    "sans-600": "plex-sans/fonts/complete/woff2/IBMPlexSans-SemiBold.woff2",
    "narrow-400": "plex-sans-condensed/fonts/complete/woff2/IBMPlexSansCondensed-Regular.woff2",
    "narrow-600": "plex-sans-condensed/fonts/complete/woff2/IBMPlexSansCondensed-SemiBold.woff2",
}


def cut(source: Path, target: Path) -> None:
    """Write a font with only our glyphs."""
    options = subset.Options(flavor="woff2", layout_features=["kern", "liga", "tnum", "zero", "mark", "mkmk"])
    font = subset.load_font(str(source), options)
    cutter = subset.Subsetter(options)
    cutter.populate(text=LATIN + SIGNS)
    cutter.subset(font)
    subset.save_font(font, str(target), options)


if __name__ == "__main__":
    folder = WEB / "src" / "app" / "fonts"
    folder.mkdir(parents=True, exist_ok=True)
    for name, path in FACES.items():
        cut(WEB / "node_modules" / "@ibm" / path, folder / f"{name}.woff2")
