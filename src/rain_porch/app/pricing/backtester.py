"""One backtest as a process of its own: `python -m` this module. It reads what to do and tells how far it is."""

from __future__ import annotations

import datetime as dt
import json
import sys
from pathlib import Path
from typing import Any

from ...core.errors import RainPorchError
from ...core.facts.homes import Subject
from ...core.facts.words import HomeKind
from ..records import Records
from ..side_process import Beside, Step, say
from .backtest_document import backtest_doc
from .backtesting import backtest, keep, last_sales


class Testing:
    """A backtest around one home, running beside. stage: running, done, failed or stopped."""

    def __init__(self, folder: Path, subject: Subject, day: int, sample: int, now: dt.datetime) -> None:
        self.stage, self.done, self.of, self.message = "running", 0, sample, ""
        self.result: dict[str, Any] | None = None
        task = {
            "folder": str(folder), "kind": subject.home_kind.value, "lat": subject.latitude, "lon": subject.longitude,
            "day": day, "sample": sample, "now": now.isoformat(),
        }  # fmt: skip
        self._process = Beside("rain_porch.app.pricing.backtester", task, self._told, self._ended)

    def stop(self) -> None:
        if self.stage == "running":
            self.stage = "stopped"
        self._process.stop(0.0)

    def _told(self, step: Step) -> None:
        for name, value in step.items():
            setattr(self, name, value)

    def _ended(self) -> None:
        if self.stage == "running":
            self.stage, self.message = "failed", "The test stopped before it was done. Try again."


def main() -> None:
    task = json.loads(sys.stdin.readline())
    held = Records(Path(task["folder"]))
    records = held.snapshot()
    try:
        near = Subject({}, task["lat"], task["lon"], HomeKind(task["kind"]))
        start, end = last_sales(records, near, task["day"], task["sample"])
        result = backtest(
            records, start, end, task["sample"], near=near, progress=lambda done, of: say(done=done, of=of)
        )
        doc = backtest_doc(result).model_dump(mode="json")
        cases = [
            {"listing_id": c.listing_id, "actual": c.actual, "value": round(c.value), "width": round(c.width, 4),
             "per_sqft": c.predicted.get("mean_price_per_sqft")}
            for c in result.cases
        ]  # fmt: skip
        keep(held.live, records.columns, result, doc, dt.datetime.fromisoformat(task["now"]))
        say(stage="done", result={**doc, "cases": cases})
    except RainPorchError as error:
        say(stage="failed", message=error.message)
    finally:
        held.close()


if __name__ == "__main__":
    main()
