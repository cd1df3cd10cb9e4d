"""Phrases are found whatever asks first, and stand in the program as they stand in their files."""

from __future__ import annotations

import threading
from concurrent.futures import ThreadPoolExecutor

import pytest
from fluent.syntax import FluentParser

from rain_porch.core import phrases
from rain_porch.core.phrases import has_phrase, listed, phrase
from tests.report.language import messages


@pytest.mark.parametrize(("n", "words"), [(0, "0 homes"), (1, "1 home"), (2, "2 homes"), (1204, "1,204 homes")])
def test_a_number_chooses_its_form(n, words):
    assert phrase("count-homes", n=n) == words


def test_what_is_missing_is_no_empty_place():
    with pytest.raises(LookupError):
        phrase("no-such-phrase")
    with pytest.raises(LookupError):
        phrase("field-living_area.no-such-part")
    with pytest.raises(KeyError, match="count-homes"):
        phrase("count-homes")
    assert not has_phrase("no-such-phrase") and not has_phrase("field-living_area.none") and has_phrase("share-80")


def test_things_in_a_row():
    assert [listed(list("abc"[:n])) for n in (1, 2, 3)] == ["a", "a and b", "a, b and c"]


def test_each_phrase_is_taken_out_of_its_file_whole():
    """They are parsed one by one, when they are asked for: each is what the whole file says."""
    written = phrases._written()
    assert written.keys() == messages().keys()
    for name, message in messages().items():
        (alone,) = FluentParser().parse(written[name]).body
        assert alone.equals(message, ignored_fields=["span", "comment"]), name


def test_requests_side_by_side_that_ask_first_are_all_answered(monkeypatch):
    """Sixteen at once, with nothing parsed before, ask for phrases that refer to others."""
    for cache in (phrases.phrase, phrases._message, phrases._bundle):
        cache.cache_clear()
    asked = [name for name, text in phrases._written().items() if "{ status-" in text or "{ measure-" in text]
    assert len(asked) > 5
    together = threading.Barrier(16)

    def ask(turn: int) -> list[str]:
        together.wait()
        return [phrase(name) for name in (asked if turn % 2 else reversed(asked))]

    with ThreadPoolExecutor(16) as pool:
        said = list(pool.map(ask, range(16)))
    assert all(sorted(one) == sorted(said[0]) for one in said)
