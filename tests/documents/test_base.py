"""Choices that are kept, read by a program that knows less, or other things, than the one that kept them."""

from __future__ import annotations

import pytest

from rain_porch.app.handover.branding import CardDoc
from rain_porch.app.office.local_form import LocalFormDoc
from rain_porch.app.office.map_sources import MapSourcesDoc
from rain_porch.documents.base import as_known


@pytest.mark.parametrize("model", [LocalFormDoc, MapSourcesDoc, CardDoc])
def test_what_a_newer_program_kept_is_read_as_far_as_it_is_known(model):
    assert as_known(model, None) == as_known(model, {}) == model()
    assert as_known(model, {**model().model_dump(), "from_a_newer_one": 1}) == model()
    name = next(iter(model.model_fields))
    assert as_known(model, {name: {"no": "such value"}}) == model()
    assert as_known(LocalFormDoc, {"sign": "kr", "calendar": "lunar"}).sign == "kr"
