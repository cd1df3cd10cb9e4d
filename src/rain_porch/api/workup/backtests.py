"""How close the method came on the last sales around a workup's home."""

from __future__ import annotations

from pydantic import BaseModel, Field

from ...app.pricing.backtester import Testing
from ...app.workup.workups import open_workup
from ...core.errors import NotFound
from ...documents.backtests import BacktestDoc
from ...documents.base import Worded
from ..routing import api_router
from ..state import Number, Porch

router = api_router("workups")


class CaseDoc(BaseModel):
    """One past sale: what was paid, and what would have been said."""

    listing_id: str
    actual: float
    value: float
    width: float
    per_sqft: float | None


class TestResultDoc(BacktestDoc):
    cases: list[CaseDoc]


class TestRequest(BaseModel):
    sample: int = Field(200, ge=20, le=2000)


class TestDoc(BaseModel):
    stage: str
    done: int
    of: int
    message: Worded
    result: TestResultDoc | None


def _doc(testing: Testing) -> TestDoc:
    return TestDoc.model_validate({n: getattr(testing, n) for n in ("stage", "done", "of", "message", "result")})


@router.post("/workups/{workup_id}/backtest")
def start(porch: Porch, workup_id: Number, asked: TestRequest) -> TestDoc:
    """Price the last sales around the home as if they were not known; ask for the same address to see how far it is."""
    opened = open_workup(porch.agent, workup_id)
    running = porch.tests.get(workup_id)
    if running is not None:
        running.stop()
    standpoint = opened.standpoint
    testing = Testing(porch.records.folder, standpoint.subject, standpoint.view.day, asked.sample, porch.agent.now())
    porch.tests[workup_id] = testing
    return _doc(testing)


@router.get("/workups/{workup_id}/backtest")
def state(porch: Porch, workup_id: Number) -> TestDoc:
    if workup_id not in porch.tests:
        open_workup(porch.agent, workup_id)
        return TestDoc(stage="none", done=0, of=0, message="", result=None)
    return _doc(porch.tests[workup_id])


@router.delete("/workups/{workup_id}/backtest")
def stop(porch: Porch, workup_id: Number) -> TestDoc:
    if workup_id not in porch.tests:
        raise NotFound("No test is running for this workup.")
    porch.tests[workup_id].stop()
    return _doc(porch.tests[workup_id])
