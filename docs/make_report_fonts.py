"""Make the static fonts of the report, for pages and for HTML, out of the variable ones of the front end: ``make fonts``."""

from __future__ import annotations

from pathlib import Path
from tempfile import TemporaryDirectory

from fontTools.merge import Merger
from fontTools.ttLib import TTFont
from fontTools.varLib.instancer import instantiateVariableFont

ROOT = Path(__file__).parent.parent
SOURCE = ROOT / "web/node_modules/@fontsource-variable/ibm-plex-sans"
TARGET = ROOT / "src/tabrel/report/fonts"
FAMILY = "IBM Plex Sans"
SUBSETS = ("latin", "latin-ext", "greek", "cyrillic")
CUTS = {"Regular": ("normal", 400), "Italic": ("italic", 400), "SemiBold": ("normal", 600)}


def main() -> None:
    """Write one file a cut, all subsets in it."""
    for cut, (style, weight) in CUTS.items():
        with TemporaryDirectory() as folder:
            parts = []
            for subset in SUBSETS:
                font = TTFont(SOURCE / f"files/ibm-plex-sans-{subset}-wght-{style}.woff2")
                font.flavor = None
                part = Path(folder) / f"{subset}.ttf"
                instantiateVariableFont(font, {"wght": weight}, inplace=True).save(part)
                parts.append(str(part))
            whole = Merger().merge(parts)
        for record in list(whole["name"].names):
            if record.nameID not in (0, 13, 14):  # copyright and licence stay
                whole["name"].removeNames(nameID=record.nameID)
        names = {1: FAMILY, 2: cut, 4: f"{FAMILY} {cut}", 6: f"IBMPlexSans-{cut}", 16: FAMILY, 17: cut}
        for name_id, text in names.items():
            whole["name"].setName(text, name_id, 3, 1, 0x409)
        whole["OS/2"].usWeightClass = weight
        whole["OS/2"].fsSelection = {"Regular": 0x40, "Italic": 0x01, "SemiBold": 0x00}[cut]
        whole["head"].macStyle = {"Regular": 0, "Italic": 2, "SemiBold": 0}[cut]
        whole["head"].modified = whole["head"].created  # the same bytes whenever it is made
        whole.recalcTimestamp = False
        whole.save(TARGET / f"IBMPlexSans-{cut}.ttf")
        whole.flavor = "woff2"
        whole.save(TARGET / f"IBMPlexSans-{cut}.woff2")
    (TARGET / "LICENSE").write_bytes((SOURCE / "LICENSE").read_bytes())


if __name__ == "__main__":
    main()
