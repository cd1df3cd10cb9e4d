from __future__ import annotations

import pytest

from rain_porch.core import errors
from rain_porch.core.errors import BadInput, NotFound, Odd, RainPorchError


@pytest.mark.parametrize(
    "kind", [v for v in vars(errors).values() if isinstance(v, type) and issubclass(v, RainPorchError)]
)
def test_every_error_is_a_sentence_with_its_values(kind):
    error = (
        kind("city", "“x” is no city.", given="x")
        if issubclass(kind, BadInput)
        else kind("Nothing is there.", given="x")
    )
    assert str(error) == error.message and error.message.endswith(".") and error.values["given"] == "x"
    assert kind.__doc__


def test_what_was_wrong_is_named_and_a_strange_value_is_a_wrong_one_that_may_be_insisted_on():
    error = Odd("year_built", "Built in 2030?")
    assert isinstance(error, BadInput) and error.field == "year_built" and error.values["field"] == "year_built"
    assert not isinstance(NotFound("No."), BadInput)
