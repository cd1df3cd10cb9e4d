"""Documents told in a local form: what is ours to word, wherever it stands in them, and nothing else."""

from __future__ import annotations

import datetime as dt

from pydantic import BaseModel

from rain_porch.app.market.closer_looks import BandRow
from rain_porch.app.market.views import ViewLineDoc
from rain_porch.core.facts.local_form import USUAL, LocalForm
from rain_porch.documents.base import Worded
from rain_porch.documents.telling import told_document

FORM = LocalForm("1.234,5", "31 Aug 2026", "€", "after")


class Inner(BaseModel):
    says: Worded
    name: str


class Outer(BaseModel):
    sentence: Worded | None
    lines: list[Worded]
    by_name: dict[str, Worded]
    pair: tuple[Worded, int]
    inner: Inner | None
    many: list[Inner]
    held: dict[str, list[Inner]]
    note: str
    day: dt.date
    figure: float
    more: list[Outer] = []


def outer(**own) -> Outer:
    inner = Inner(says="$1,500", name="$1,500")
    told = {
        "sentence": "$1,500", "lines": ["$1,500", "2.5 %"], "by_name": {"1,500": "$1,500"}, "pair": ("$1,500", 1500), "inner": inner,
        "many": [inner], "held": {"a": [inner]}, "note": "$1,500", "day": dt.date(2026, 8, 31), "figure": 1500.5,
    }  # fmt: skip
    return Outer(**told | own)


def test_what_is_ours_is_told_wherever_it_stands():
    given = outer(more=[outer()])
    before = given.model_dump_json()
    told = told_document(given, FORM)
    euro = "1.500\u00a0€"
    for doc in (told, told.more[0]):
        assert doc.sentence == euro and doc.lines == [euro, "2,5 %"] and doc.by_name == {"1,500": euro}
        assert doc.pair == (euro, 1500) and doc.inner.says == doc.many[0].says == doc.held["a"][0].says == euro
        assert doc.note == doc.inner.name == "$1,500" and doc.figure == 1500.5 and doc.day == dt.date(2026, 8, 31)
    assert given.model_dump_json() == before, "the one that was given stays"
    assert told_document([given], FORM)[0].sentence == euro and told_document({"a": given}, FORM)["a"].sentence == euro
    assert Outer.model_validate_json(told.model_dump_json()) == told


def test_nothing_is_made_anew_where_nothing_is_told():
    given = outer(sentence=None, inner=None)
    assert told_document(given, USUAL) is given
    assert told_document(given, FORM).sentence is None and told_document(given, FORM).inner is None
    plain = Inner.model_construct(says="", name="x")
    assert told_document(plain, FORM) == plain and told_document("$1,500", FORM) == "$1,500"


def test_conditions_go_back_to_the_service_as_programs_read_them():
    where = ["close_price >= 1500.5"]
    band = BandRow(label="1,500 and more", low=1500.5, high=None, mine=False, values={}, where=where)
    told = told_document(band, FORM)
    assert (told.label, told.where) == ("1.500 and more", where)
    line = ViewLineDoc(
        name="", measure="closings", label="Closings", alone="Closings", unit="", axis=0, points=[], where=where
    )
    assert told_document(line, FORM).where == where
