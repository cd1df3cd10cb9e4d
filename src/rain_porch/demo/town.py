"""The demo: the town made from its seed, written as files, and brought in through the same import as anyone's."""

from __future__ import annotations

import datetime as dt
import shutil
from collections.abc import Callable
from pathlib import Path

import numpy as np

from ..app.market.saved_views import save_view
from ..app.market.views import ViewDoc
from ..app.office.agent import folders_agent
from ..app.records import Records
from ..records.importing import import_file
from .files import write_town
from .houses import build
from .plan import lay_out
from .trading import Market
from .work import furnish

SEED = 1847
RECIPE = "14"  # changed when the generator makes another town, so that an old demo is made anew


def make_town(folder: Path, seed: int = SEED) -> list[Path]:
    """Write the town's files; the same seed gives the same bytes."""
    rng = np.random.default_rng(seed)
    plan = lay_out(rng)
    houses = build(plan, rng)
    trade = Market(rng).run(houses)
    return write_town(folder, plan, houses, trade, rng)


VIEWS = {
    "Median price, detached": ViewDoc(measures=["median_price", "closings"], home_kind="detached", smooth=3),
    "Months of supply": ViewDoc(measures=["months_of_supply"]),
    "Homes for sale": ViewDoc(measures=["for_sale", "new_listings"]),
    "Price against mortgage rates": ViewDoc(
        measures=["median_price"], home_kind="detached", smooth=3, series="Demo mortgage rates"
    ),
}


def prepare_demo(
    folder: Path, seed: int = SEED, say: Callable[[str], None] = lambda text: None, with_work: bool = True
) -> None:
    """Make and import the demo records unless this recipe's are there already. with_work: with workups and a bulletin begun."""
    marker = folder / "demo.txt"
    recipe = f"{RECIPE} {seed}"
    if marker.is_file() and marker.read_text(encoding="utf-8").strip() == recipe:
        say(f"Demo records are in {folder}.")
        return
    if folder.exists() and any(folder.iterdir()):
        if not (marker.is_file() or (folder / "files").is_dir()):
            raise SystemExit(f"{folder} holds records that are no demo: choose another folder with --data.")
        shutil.rmtree(folder)
    folder.mkdir(parents=True, exist_ok=True)
    say("Making the town …")
    files = make_town(folder / "files", seed)
    records = Records(folder)
    for path in files:
        with records.connection() as db:
            result = import_file(db, path, folder=folder, now=dt.datetime.now(), source=f"Demo {path.stem}")
        say(f"  {path.name}: {result.new:,} new, {result.suspect:,} suspect, {result.rejected:,} rejected")
    with folders_agent(records.snapshot()) as agent:
        for name, view in VIEWS.items():
            save_view(agent, name, view, pinned=True)
        if with_work:
            say("Beginning three workups and a bulletin …")
            furnish(agent)
    records.close()
    marker.write_text(recipe + "\n", encoding="utf-8")
