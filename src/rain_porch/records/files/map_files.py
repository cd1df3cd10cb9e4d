"""Map files are opened by a process of their own (map_reader.py), and only those of a kind that is known."""

from __future__ import annotations

import json
import re
import subprocess
import sys
from pathlib import Path

from ...core.errors import Refused

Layers = list[tuple[Path, str, str | None]]


def layers_of(path: Path, name: str, into: Path) -> Layers | None:
    """The layers of a map file as plain files in `into`: (path, shown name, kind). None for a GeoJSON or JSON file that is to be
    read as it is: one of ours, or a list of records. Refused for what is no map file."""
    if path.suffix.lower() in (".json", ".geojson"):
        with path.open("rb") as f:
            head = f.read(200_000)
        if b'"FeatureCollection"' not in head or re.search(rb'"kind"\s*:', head):
            return None
    if path.suffix.lower() == ".shp" and not path.with_suffix(".dbf").exists():
        raise Refused(
            f"{name} is one part of several: put it in one zip with its .dbf, .shx and .prj, and bring that in."
        )
    asked = json.dumps({"path": str(path.absolute()), "name": name, "into": str(into.absolute())})
    done = subprocess.run(
        [sys.executable, "-m", "rain_porch.records.files.map_reader"],
        input=asked,
        capture_output=True,
        text=True,
        check=False,
    )
    try:
        told = json.loads(done.stdout)
    except ValueError:
        raise Refused(f"{name} is no map file that can be read: reading it stopped half way.") from None
    if "refused" in told:
        raise Refused(told["refused"])
    return told["layers"] and [(Path(to), shown, kind) for to, shown, kind in told["layers"]]
