"""The few strokes that the pictures are made of: SVG fragments."""

from __future__ import annotations

from xml.sax.saxutils import escape

W, H = 640, 420


def rect(x: float, y: float, w: float, h: float, fill: str, opacity: float = 1.0) -> str:
    seen = "" if opacity == 1 else f' opacity="{opacity}"'
    return f'<rect x="{x:.1f}" y="{y:.1f}" width="{max(0.0, w):.1f}" height="{max(0.0, h):.1f}" fill="{fill}"{seen}/>'


def circle(x: float, y: float, r: float, fill: str) -> str:
    return f'<circle cx="{x:.1f}" cy="{y:.1f}" r="{r:.1f}" fill="{fill}"/>'


def path(d: str, fill: str, stroke: str = "none", width: float = 0, opacity: float = 1.0) -> str:
    line = f' stroke="{stroke}" stroke-width="{width}" stroke-linecap="round"' if stroke != "none" else ""
    seen = "" if opacity == 1 else f' opacity="{opacity}"'
    return f'<path d="{d}" fill="{fill}"{line}{seen}/>'


def picture(body: list[str], title: str) -> str:
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {W} {H}" width="{W}" height="{H}" role="img">'
        f"<title>{escape(title)}</title>{''.join(body)}</svg>"
    )
