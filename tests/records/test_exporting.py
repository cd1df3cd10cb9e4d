"""What goes out comes in again and changes nothing; workbooks start no formula."""

from __future__ import annotations

import json

import openpyxl
import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.app.records import Records
from rain_porch.core.errors import Refused
from rain_porch.core.intake.parsing import guarded, unguarded
from rain_porch.records.exporting import KINDS, export
from rain_porch.records.importing import import_file
from tests.conftest import NOW


@given(st.text(min_size=1))
def test_a_guarded_cell_never_starts_a_formula_and_reads_as_it_was(text):
    assert guarded(text)[0] not in "=+-@\t\r"
    assert unguarded(guarded(text)) == text


def test_import_of_export_changes_nothing_for_every_kind_and_form(town, tmp_path):
    records = Records(town)
    for kind in KINDS:
        for form in ["geojson"] if kind == "areas" else ["csv", "json"]:
            file = tmp_path / f"{kind}.{form}"
            rows = export(records.live, kind, file)
            result = import_file(records.live, file, folder=town, now=NOW, kind=kind, source="round")
            assert (result.rows, result.same, result.new, result.changed, result.rejected) == (rows, rows, 0, 0, 0), (
                file
            )
            assert rows > 100
    records.close()


def test_an_empty_desk_is_filled_from_the_exports_of_another(demo_records, records, tmp_path):
    for kind in KINDS:
        file = tmp_path / f"{kind}.{'geojson' if kind == 'areas' else 'csv'}"
        rows = export(demo_records.db, kind, file)
        assert import_file(records.live, file, folder=records.folder, now=NOW, kind=kind).new == rows
    ours, theirs = records.snapshot().columns, demo_records.columns
    assert list(ours.keys) == list(theirs.keys) and (ours.close == theirs.close).all()


def test_workbooks_and_maps_for_people(bring, records, tmp_path):
    bring(
        "ListingId,City,CloseDate,ClosePrice,PoolPrivateYN,PublicRemarks,Latitude,Longitude\n"
        'A1,\'=1+1,2025-05-01,412500.5,Y,"=HYPERLINK(""http://x"")",41.2,-38.4\n'
    )
    export(records.live, "listings", tmp_path / "l.xlsx")
    sheet = openpyxl.load_workbook(tmp_path / "l.xlsx").active
    cells = {sheet.cell(1, c).value: sheet.cell(2, c) for c in range(1, sheet.max_column + 1)}
    assert cells["City"].value == "=1+1" and cells["City"].data_type == "s"
    assert all(cell.data_type != "f" and cell.hyperlink is None for cell in cells.values())
    assert cells["Close price"].value == 412_500.5 and cells["Pool"].value == "yes"
    export(records.live, "listings", tmp_path / "l.geojson")
    (feature,) = json.loads((tmp_path / "l.geojson").read_text())["features"]
    assert feature["geometry"]["coordinates"] == [-38.4, 41.2] and feature["properties"]["ClosePrice"] == 412_500.5
    for kind, name in (("areas", "a.csv"), ("ghosts", "g.csv"), ("listings", "l.doc"), ("series", "s.geojson")):
        with pytest.raises(Refused):
            export(records.live, kind, tmp_path / name)
