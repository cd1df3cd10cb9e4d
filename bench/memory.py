"""What the service holds in memory while it answers market views of all its records."""

from __future__ import annotations

import re
import threading
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path

import httpx

from bench.serving import serving
from bench.timing import Result
from bench.whole_market import MEASURES

BUDGET_MB = 500


def measured(folder: Path, listings: int) -> Result:
    """The most that the process ever held, from its start on: columns read, eight measures of everything, views."""
    with serving(folder) as (url, process):
        asked = httpx.Client(base_url=url, timeout=300)
        views = [
            asked.get("/api/market", params={"measure": list(MEASURES), "by": "month", "years": 5}),
            asked.post(
                "/api/market/view", json={"measures": ["median_price", "months_of_supply"], "split": "living_area"}
            ),
            asked.post("/api/market/year-so-far", json={"home_kind": "detached"}),
        ]
        for answer in views:
            answer.raise_for_status()
        held = Path(f"/proc/{process}/status").read_text()
    peak = int(re.search(r"VmHWM:\s+(\d+) kB", held).group(1)) / 1024  # type: ignore[union-attr]
    return Result(
        "memory of the service, peak", f"{listings:,} listings", peak, peak, BUDGET_MB, unit="MB",
        note="from its start: columns read, market views, the year so far",
    )  # fmt: skip


def held_mb(process: int) -> float:
    """Its share of memory: pages that it shares with others count by their share."""
    try:
        told = Path(f"/proc/{process}/smaps_rollup").read_text()
    except OSError:
        return 0.0
    return sum(int(line.split()[1]) for line in told.splitlines() if line.startswith("Pss:")) / 1024


@contextmanager
def most_held(process: int) -> Iterator[Callable[[], float]]:
    """The most that a process was seen to hold since, looked at 20 times a second."""
    seen, ended = [held_mb(process)], threading.Event()

    def look() -> None:
        while not ended.wait(0.05):
            seen.append(max(seen[-1], held_mb(process)))

    looking = threading.Thread(target=look)
    looking.start()
    try:
        yield lambda: seen[-1]
    finally:
        ended.set()
        looking.join()
