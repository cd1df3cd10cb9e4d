"""What a source's word for a status means; letters that mean two things are told by what stands beside them."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from rain_porch.core.facts.words import HomeKind, Status, home_kind_of
from rain_porch.core.intake.status_words import is_lease_word, meanings, means_status

S = Status


@pytest.mark.parametrize(
    ("words", "status"),
    [
        ("A,ACT,Active,New,Back on Market,Price Change,Active - No Contract,For Sale,BOM", S.ACTIVE),
        ("U,UC,Under Contract,CTG,Contingent,Active Option,Active w/ Contract,Kick Out,First Right of Refusal,AUC", S.ACTIVE_UNDER_CONTRACT),
        ("P,PND,Pending,Pending Inspection,Pending - Taking Backups,Sale Pending,In Escrow", S.PENDING),
        ("S,SLD,Sold,Closed,Settled,Closed - Cash,Sold 03/12/24,Comp Sold,CLSD", S.CLOSED),
        ("X,EXP,Expired,Lapsed", S.EXPIRED), ("W,WDN,Withdrawn,Off Market,Withdrawn Conditional", S.WITHDRAWN),
        ("T,K,Canceled,Cancelled,Terminated,CXL,Released", S.CANCELED), ("H,Hold,Temp Off Market,TOM,On Hold", S.HOLD), ("CS,Coming Soon,Pre-Market", S.COMING_SOON),
    ],
)  # fmt: skip
def test_letters_abbreviations_and_phrases_of_the_trade_are_known(words, status):
    for word in words.split(","):
        assert means_status(word) is status, word
        assert means_status(word.lower()) is status is means_status(f" {word.upper()} "), word


@pytest.mark.parametrize("word", ["QZ", "red", "3 beds", "Haunted", "", "Brindle"])
def test_a_word_that_nobody_knows_is_not_guessed(word):
    assert means_status(word) is None


def told(words, closed=(), off=(), contract=()):
    n = len(words)
    flags = [[i in at for i in range(n)] for at in (closed, off, contract)]
    return {m.word: m.status for m in meanings(words, *flags)}


def test_a_letter_of_two_meanings_is_told_by_the_dates_beside_it():
    assert told(["C", "C", "A"], closed=(0, 1))["C"] is S.CLOSED
    assert told(["C", "C", "S", "S"], closed=(2, 3), contract=(0, 1))["C"] is S.ACTIVE_UNDER_CONTRACT
    assert told(["C", "C", "S", "S"], closed=(2, 3), off=(0, 1))["C"] is S.CANCELED
    assert told(["T", "T", "S"], closed=(2,), off=(0, 1))["T"] is S.CANCELED
    assert told(["T", "S"], closed=(1,))["T"] is S.CANCELED, "where nothing tells, its usual meaning"


@given(st.lists(st.sampled_from(["A", "S", "C", "QZ", "Sold", ""]), max_size=30))
def test_each_word_is_told_once_with_all_its_rows(words):
    n = len(words)
    made = meanings(words, [False] * n, [False] * n, [False] * n)
    assert {m.word: m.rows for m in made} == {w: words.count(w) for w in words if w}


@given(st.text(max_size=80))
def test_any_text_is_a_status_or_none(word):
    assert means_status(word) is None or means_status(word) in Status


def test_a_home_that_was_let_was_not_sold():
    assert is_lease_word("Leased") and is_lease_word("rented") and not is_lease_word("Sold") and not is_lease_word(None)


@pytest.mark.parametrize(
    ("words", "kind"),
    [
        ("SFR,SFD,Single Family,OneFam,Detached,1 Family", HomeKind.DETACHED), ("TH,TWN,Townhouse,TwnhsE,Row House,Single Family Attached", HomeKind.ATTACHED),
        ("CND,Condo,Condominium,APT", HomeKind.CONDOMINIUM), ("MH,Mobile Home,Manufactured", HomeKind.MANUFACTURED),
        ("MF,Duplex,Multi-Family,2-4 Units,Fourplex", HomeKind.SMALL_MULTI_FAMILY), ("LND,Vacant Land,Lots", HomeKind.LAND), ("Residential,R1,House boat lift", None),
    ],
)  # fmt: skip
def test_codes_of_kinds_of_home(words, kind):
    for word in words.split(","):
        if kind is not None:
            assert home_kind_of(None, word) is kind, word
    assert home_kind_of("Residential", "R1") is HomeKind.UNKNOWN
