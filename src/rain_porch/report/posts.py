"""Pictures of a bulletin for posting: square, 1,080 × 1,080, and wide, 1,200 × 630 dots; figures that a phone can read."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any, Literal

from ..core.market.view_reading import shown
from ..core.phrases import phrase
from .local import in_form
from .model import Brand
from .pages.bulletin_parts import change_words, short_label
from .pictures.months import months_svg
from .typesetting import compiled

Shape = Literal["square", "wide"]
_SIZES = {
    "square": (262.0, 158.0),
    "wide": (190.0, 122.0),
}  # drawn small and set larger, so that its numbers can be read
FIGURES = {"square": 3, "wide": 4}
YEARS = {"square": 3, "wide": 2}  # of months in the chart


def post(
    title: str, parts: Sequence[Mapping[str, Any]], card: Mapping[str, str], brand: Brand, foot: str, shape: Shape
) -> bytes:
    """parts: a bulletin's headline and its prices by month, each where it has one."""
    told = next((p["answer"] for p in parts if p["kind"] == "headline"), None)
    months = next((p["answer"]["months"] for p in parts if p["kind"] == "prices"), None)
    figures = [] if told is None else [f for f in told["figures"] if f["value"]["value"] is not None][: FIGURES[shape]]
    model = {
        "title": title, "shape": shape, "accent": brand.colour,
        "headline": parts[0]["title"] if told is None else told["headline"],
        "figures": [
            {"label": short_label(f["measure"], f["label"]), "value": shown(f["value"]["value"], f["unit"]),
             "change": change_words(f)}
            for f in figures
        ],
        "svg": "" if months is None else months_svg(months[-12 * YEARS[shape] :], *_SIZES[shape]),
        "alt": phrase("post-prices-alt"),
        "by": " · ".join(v for k in ("name", "phone") if (v := card.get(k))),
        "foot": foot,
    }  # fmt: skip
    made = compiled(in_form(model, brand.form), "png", "post.typ", 144)
    return bytes(made[0] if isinstance(made, list) else made)
