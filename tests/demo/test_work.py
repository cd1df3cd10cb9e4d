"""The demo opens with work at three points: just begun, comps kept, handed over; and with a bulletin."""

from __future__ import annotations

from rain_porch.app.bulletin.kept import bulletins
from rain_porch.app.handover.delivering import deliveries
from rain_porch.app.workup.workups import list_workups, open_workup
from rain_porch.demo.work import furnish


def test_three_workups_at_different_points_and_a_bulletin(agent):
    furnish(agent)
    rows = {r["workup_id"]: r for r in list_workups(agent)}
    assert len(rows) == 3 and len({r["title"] for r in rows.values()}) == 3
    begun, kept, handed = (open_workup(agent, n) for n in sorted(rows))
    assert not begun.state.decisions and begun.state.effective_date < agent.records.through()
    for opened in (kept, handed):
        assert sum(d.choice == "kept" for d in opened.state.decisions.values()) >= 8 and opened.state.list_price
    assert [d["workup_id"] for d in deliveries(agent)] == [handed.workup_id]
    assert len(bulletins(agent)) == 1
