"""Word lists of our own: streets, builders, agents, styles. Nothing here is meant to exist."""

from __future__ import annotations

import json
from importlib.resources import files

TOWN = "Brindle Ferry"
POSTAL_CODES = ("00011", "00012", "00013")

_LISTS = json.loads((files("rain_porch.demo") / "words.json").read_text(encoding="utf-8"))
STREET_WORDS: tuple[str, ...] = tuple(_LISTS["street_words"])
FIRST: tuple[str, ...] = tuple(_LISTS["first"])
LAST: tuple[str, ...] = tuple(_LISTS["last"])

STREET_TYPES = ("Street", "Lane", "Road", "Drive", "Way", "Court", "Place", "Terrace")
CROSS_TYPES = ("Avenue", "Row", "Trail", "Avenue")
OFFICES = ("Towpath Homes", "Lintel & Sill Realty", "Blue Gate Brokers", "Weir House Realty", "Cobble Row Homes")
BUILDERS = ("Drumlin Homes", "Hazelwright Builders", "Esker & Sons")
STYLES = {
    1.0: ("Ranch", "Cottage", "Bungalow"),
    1.5: ("Cape Cod", "Split Level"),
    2.0: ("Colonial", "Foursquare", "Contemporary"),
    3.0: ("Contemporary",),
}
