"""The tokens and marks of the product as SVG, for paper. The same shapes and colours as on the screen."""

from __future__ import annotations

from xml.sax.saxutils import escape

SLATE, MIST, PAPER = "#24404E", "#EDF2F3", "#FFFFFF"
CEDAR, MOSS, RAIN, LAMP, CLAY = "#A4572F", "#3E6A4B", "#2A6596", "#D9A227", "#B23A48"
GREY, LINE = "#6B7E88", "#C9D4D8"
WIDE, NARROW = 526.0, 350.0  # points: how wide a picture as wide as the page is drawn; the same for a phone
WATER, PARK, ROAD, LAND = "#C9DEE8", "#D8E5D2", "#FFFFFF", "#F1F3EF"


def readable(colour: str, least: float = 4.5) -> str:
    """A colour darkened until it stands out from white paper as AA wants it: at least 4.5 to 1.

    >>> readable("#A4572F"), readable("#FFD700")
    ('#A4572F', '#8D7700')
    """
    r, g, b = (int(colour[i : i + 2], 16) for i in (1, 3, 5))
    share = 1.0
    while True:
        dark = [round(v * share) for v in (r, g, b)]
        if 1.05 / (_luminance(dark) + 0.05) >= least:
            return "#" + "".join(f"{v:02X}" for v in dark)
        share -= 0.01


def _luminance(rgb: list[int]) -> float:
    parts = [(c / 255 / 12.92 if c <= 10 else ((c / 255 + 0.055) / 1.055) ** 2.4) for c in rgb]
    return 0.2126 * parts[0] + 0.7152 * parts[1] + 0.0722 * parts[2]


def mark(kind: str, x: float, y: float, r: float, colour: str = RAIN, ring: bool = False) -> str:
    """One mark: sold a disc, deed sale a diamond, under contract half a disc, for sale a ring, failed a slashed ring."""
    around = (
        f'<circle cx="{x:.1f}" cy="{y:.1f}" r="{r + 2.2:.1f}" fill="none" stroke="{CEDAR}" stroke-width="1.2"/>'
        if ring
        else ""
    )
    line = f'stroke="{colour}" stroke-width="{max(1.2, r / 3):.1f}"'
    if kind == "sold":
        body = f'<circle cx="{x:.1f}" cy="{y:.1f}" r="{r:.1f}" fill="{colour}"/>'
    elif kind == "deed_sale":
        body = f'<path d="M{x:.1f} {y - r:.1f}l{r:.1f} {r:.1f}l{-r:.1f} {r:.1f}l{-r:.1f} {-r:.1f}z" fill="{colour}"/>'
    elif kind == "under_contract":
        body = (
            f'<circle cx="{x:.1f}" cy="{y:.1f}" r="{r:.1f}" fill="{PAPER}" {line}/>'
            f'<path d="M{x:.1f} {y - r:.1f}a{r:.1f} {r:.1f} 0 0 0 0 {2 * r:.1f}z" fill="{colour}"/>'
        )
    else:
        body = f'<circle cx="{x:.1f}" cy="{y:.1f}" r="{r:.1f}" fill="{PAPER}" {line}/>'
        if kind == "failed":
            d = r * 0.72
            body += f'<path d="M{x - d:.1f} {y + d:.1f}l{2 * d:.1f} {-2 * d:.1f}" {line}/>'
    return around + body


def house(x: float, y: float, r: float) -> str:
    """The subject: a small gabled house in cedar."""
    return (
        f'<path d="M{x - r:.1f} {y + r:.1f}v{-r:.1f}l{r:.1f} {-r:.1f}l{r:.1f} {r:.1f}v{r:.1f}z" fill="{CEDAR}" '
        f'stroke="{PAPER}" stroke-width="1.5" stroke-linejoin="round"/>'
    )


def text(
    x: float, y: float, words: str, size: float = 9, colour: str = SLATE, anchor: str = "middle", weight: int = 400
) -> str:
    return (
        f'<text x="{x:.1f}" y="{y:.1f}" font-family="Figtree, sans-serif" font-size="{size}" font-weight="{weight}" fill="{colour}" '
        f'text-anchor="{anchor}">{escape(words)}</text>'
    )


def svg(width: float, height: float, body: list[str]) -> str:
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {width:g} {height:g}" width="{width:g}" height="{height:g}">'
        + "".join(body)
        + "</svg>"
    )
