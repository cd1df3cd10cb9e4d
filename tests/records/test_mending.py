"""An import's kept file mapped anew: what it gave and gives no more is cleared, what was said later stays; mappings with a name."""

from __future__ import annotations

import json

import pytest

from rain_porch.cli import main
from rain_porch.core.errors import NotFound, Refused
from rain_porch.records.files import kept_files
from rain_porch.records.importing import import_file
from rain_porch.store.records.incoming.undo import undo_import
from tests.conftest import NOW

FILE = """Num,Stat,Addr,Ask,First Ask,Sqft,Kitchen
1,Active,1 Oak St,300000,310000,1500,Fair
2,Active,2 Oak St,400000,420000,1600,Good
3,Active,3 Oak St,500000,500000,1700,Poor
"""
RIGHT = {"Num": "listing_id", "Stat": "standard_status", "Addr": "unparsed_address", "Ask": "list_price", "Sqft": "living_area",
         "First Ask": "original_list_price"}  # fmt: skip
WRONG = {
    **{k: v for k, v in RIGHT.items() if v not in ("list_price", "original_list_price")},
    "First Ask": "list_price",
    "Ask": "close_price",
}


def bring(records, path, text, columns, **more):
    path.write_text(text)
    return import_file(
        records.live, path, folder=records.folder, now=NOW, kind="listings", source="Board", columns=columns, **more
    )


def held(records, *names):
    rows = records.live.execute(f"SELECT {', '.join(names)} FROM listings ORDER BY listing_id").fetchall()
    return [tuple(r) for r in rows]


@pytest.fixture
def mistaken(records, tmp_path):
    """The import of a file that was mapped wrongly."""
    return bring(records, tmp_path / "export.csv", FILE, WRONG).import_id


def mend(records, number, columns, **more):
    file, kind, source, name = kept_files.to_mend(records.live, records.folder, number)
    assert (kind, source, name) == ("listings", "Board", "export.csv")
    return import_file(
        records.live,
        file,
        folder=records.folder,
        now=NOW,
        kind=kind,
        source=source,
        columns=columns,
        mends=number,
        **more,
    )


def test_a_mapping_is_mended_without_the_file(records, mistaken):
    assert held(records, "list_price", "close_price") == [(310000, 300000), (420000, 400000), (500000, 500000)]
    done = mend(records, mistaken, RIGHT, keep=["Kitchen"])
    assert (done.new, done.changed, done.same) == (0, 3, 0)
    assert held(records, "list_price", "original_list_price", "close_price") == [
        (300000, 310000, None), (400000, 420000, None), (500000, 500000, None)
    ], "what the first mapping gave and this one does not is cleared"  # fmt: skip
    assert [json.loads(own[0]) for own in held(records, "own")] == [
        {"own_words_kitchen": w} for w in ("Fair", "Good", "Poor")
    ]
    dropped = mend(records, done.import_id, RIGHT)
    assert dropped.changed == 3 and held(records, "own") == [(None,)] * 3, "a field of one's own is let go like any"
    again = mend(records, dropped.import_id, None)
    assert (again.changed, again.same) == (0, 3), "the mended mapping is the one that is remembered"


def test_what_was_said_later_stands(records, mistaken, tmp_path):
    later = bring(records, tmp_path / "next.csv", FILE.replace("2,Active,2 Oak St,400000,420000", "2,Active,2 Oak St,390000,420000")
                  .replace("3,Active,3 Oak St,500000,500000,1700,Poor\n", ""), RIGHT, whole=True)  # fmt: skip
    assert later.changed == 2 and len(held(records, "listing_id")) == 2, "the third is gone from its source"
    done = mend(records, mistaken, RIGHT)
    assert (done.new, done.changed, done.same) == (0, 0, 3) and done.reasons == {"left as a later import has it": 3}
    assert held(records, "list_price") == [(300000,), (390000,)]


def test_undone_means_gone(records, mistaken):
    undo_import(records.live, mistaken, NOW.isoformat())
    with pytest.raises(Refused, match="was undone"):
        kept_files.to_mend(records.live, records.folder, mistaken)
    for number in (99, -1, 10**30):
        with pytest.raises(NotFound):
            kept_files.to_mend(records.live, records.folder, min(number, 2**62))


def test_kept_files_are_bounded_and_a_full_disk_is_no_fault(records, tmp_path, monkeypatch):
    monkeypatch.setattr(kept_files, "MOST_BYTES", int(2.5 * len(FILE)))
    numbers = [
        bring(records, tmp_path / "a.csv", FILE.replace("1500", f"{1500 + i}"), RIGHT).import_id for i in range(4)
    ]
    assert kept_files.kept_numbers(records.folder) == {*numbers[-2:]}
    with pytest.raises(NotFound, match="not kept"):
        kept_files.to_mend(records.live, records.folder, numbers[0])
    monkeypatch.setattr(kept_files.shutil, "copyfile", lambda *a: (_ for _ in ()).throw(OSError("full")))
    assert bring(records, tmp_path / "a.csv", FILE.replace("1500", "1999"), RIGHT).changed == 1
    assert not list((records.folder / kept_files.FOLDER).glob("*.part"))


def test_by_the_command_line_and_by_name(tmp_path, capsys):
    def run(*words, refused=False):
        assert main([*map(str, words), "--data", str(data)]) == refused
        said = capsys.readouterr()
        return said.err if refused else json.loads(said.out) if "--json" in words else said.out

    data, file, mapping = tmp_path / "porch", tmp_path / "export.csv", tmp_path / "right.json"
    file.write_text(FILE)
    mapping.write_text(json.dumps(RIGHT))
    wrong = tmp_path / "wrong.json"
    wrong.write_text(json.dumps(WRONG))
    run("import", file, "--source", "Board", "--mapping", wrong, "--kind", "listings")
    run("mappings", "--save", "Board’s listings", "--kind", "listings", "--mapping", mapping)
    (kept,) = run("mappings", "--json")
    assert kept["name"] == "Board’s listings" and len(kept["mapping"]["parts"]) == len(RIGHT)
    tried = run("mend", 1, "--mapping", "Board’s listings", "--dry-run", "--json")
    assert tried["changed"] == 3 and tried["import_id"] is None
    assert run("mend", 1, "--mapping", "Board’s listings", "--json")["changed"] == 3
    for bad, said in (
        ("[1]", "one JSON object"),
        ('{"parts": [1]}', "list of objects"),
        ('{"parts": [{"field": "list_price", "columns": 7}]}', "list of up to eight"),
        ('{"Ask": "nonsense"}', "no field"),
    ):
        wrong.write_text(bad)
        assert said in run("mappings", "--save", "x", "--kind", "listings", "--mapping", wrong, refused=True)
    for name in ("", "  ", "a/b", "x" * 90):
        assert "1 to 80 signs" in run(
            "mappings", "--save", name, "--kind", "listings", "--mapping", mapping, refused=True
        )
    assert "no mapping is kept under that name: Board’s listings" in run("mend", 1, "--mapping", "other", refused=True)
    run("mappings", "--delete", "Board’s listings")
    assert run("mappings", "--json") == []
