"""Accounts on the command line: the first is the folder's own, `--user` works as somebody, and who may not is told."""

from __future__ import annotations

import io
import json

import pytest

from rain_porch.cli import main
from rain_porch.store.db import PORCH, Database
from rain_porch.store.porch import acts

PASSWORD = "seven grey herons wading"


@pytest.fixture
def run(town, capsys, monkeypatch):
    def called(*argv: str, typed: str = PASSWORD + "\n"):
        monkeypatch.setattr("sys.stdin", io.StringIO(typed))
        code = main([*argv, "--data", str(town), "--json"])
        out, err = capsys.readouterr()
        return code, json.loads(out) if out.strip() else json.loads(err.splitlines()[-1]) if code == 1 else err

    return called


def test_accounts_are_made_listed_disabled_and_worked_as(run, town):
    code, first = run("user", "add", "Iris Vole", "--password-stdin")
    assert code == 0 and (first["account_id"], first["role"], first["may_import"]) == (1, "manager", True)
    code, second = run("user", "add", "Joan Tern", "--password-stdin")
    assert (second["role"], second["may_import"], second["signs_in"]) == ("agent", False, True)
    code, made = run("price", "--address", "630 Hedgerow Terrace", "--save", "--user", "joan tern")
    assert code == 0
    assert [w["workup_id"] for w in run("workups", "--user", "Joan Tern")[1]] == [made["workup_id"]]
    assert run("workups")[1] == [], "without a name one works as the folder's owner"
    code, said = run("undo", "1", "--user", "Joan Tern")
    assert code == 1 and "may not change the records" in said["error"]
    assert run("workups", "--user", "Nobody")[0] == 1
    run("undo", "1")
    porch = Database(town, PORCH)
    (act, *_) = acts.listed(porch, None)
    porch.close()
    assert (act["name"], act["what"], act["of_what"]) == ("Iris Vole", "took back, on the command line,", "import 1")
    run("user", "disable", "Joan Tern")
    code, said = run("workups", "--user", "Joan Tern")
    assert code == 1 and "disabled" in said["error"]
    assert [u["disabled"] for u in run("user", "list")[1]] == [False, True]
    assert run("user", "enable", "Joan Tern")[1]["disabled"] is False
    code, said = run("user", "disable", "Iris Vole")
    assert code == 1 and "only manager" in said["error"]


@pytest.mark.parametrize(
    ("argv", "typed", "told"),
    [
        (("add",), PASSWORD, "Say whose account"),
        (("add", "X"), PASSWORD, "2 to 80 signs"),
        (("add", "Iris Vole"), "short", "10 to 200 signs"),
        (("password", "Nobody"), PASSWORD, "There is no account"),
    ],
)
def test_what_makes_no_sense_is_told_and_changes_nothing(run, argv, typed, told):
    before = run("user", "list")[1]
    code, said = run("user", *argv, "--password-stdin", typed=typed + "\n")
    assert code == 1 and told in said["error"]
    assert run("user", "list")[1] == before
