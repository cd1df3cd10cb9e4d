"""Turn the Fontsource WOFF2 files into the static TTFs that the paper uses. Run once: needs fonttools and brotli.

usage: python scripts/make_fonts.py   (after npm ci in web/)
"""

import shutil
from pathlib import Path

from fontTools.ttLib import TTFont

ROOT = Path(__file__).parent.parent
OUT = ROOT / "src/rain_porch/report/fonts"
WANTED = {"figtree": (400, 500, 600, 700), "source-serif-4": (400, 600)}


def main() -> None:
    OUT.mkdir(exist_ok=True)
    for family, weights in WANTED.items():
        package = ROOT / "web/node_modules/@fontsource" / family
        shutil.copy(package / "LICENSE", OUT / f"LICENSE-{family}.txt")
        for weight in weights:
            font = TTFont(package / "files" / f"{family}-latin-{weight}-normal.woff2")
            font.flavor = None
            font.save(OUT / f"{family}-{weight}.ttf")


if __name__ == "__main__":
    main()
