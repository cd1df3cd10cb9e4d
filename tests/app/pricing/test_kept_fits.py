"""Fits kept beside the records: the same price without a fit, for as long as their sales tell the same, and made anew otherwise."""

from __future__ import annotations

import datetime as dt
from dataclasses import replace

import numpy as np
import pytest

from rain_porch.app.home.homes import HomeRef, read_home
from rain_porch.app.pricing import kept_fits, wide_models
from rain_porch.app.pricing.backtesting import backtest
from rain_porch.app.pricing.price_document import price_doc
from rain_porch.app.records import Records
from rain_porch.core.market.fingerprint import fingerprint
from rain_porch.core.market.listing_facts import recent_sale_rows
from rain_porch.store.records.incoming.changed import new_state
from tests.conftest import NOW


def priced(folder) -> tuple[str, int]:
    """The document of a price, and how many fits were made for it."""
    fits = []
    held = Records(folder, today=lambda: NOW.date())
    wide, market = wide_models.fit_wide_model, wide_models.fit_sales
    wide_models.fit_wide_model = lambda *args: (fits.append(1), wide(*args))[1]
    wide_models.fit_sales = lambda *args, **more: (fits.append(1), market(*args, **more))[1]
    try:
        now = held.snapshot()
        (parcel,) = now.db.execute("SELECT parcel_number FROM parcels WHERE home_kind = 'detached' LIMIT 1").fetchone()
        doc, _ = price_doc(now, read_home(now, HomeRef("parcel", parcel)), None, None)
        return doc.model_dump_json(), len(fits)
    finally:
        wide_models.fit_wide_model, wide_models.fit_sales = wide, market
        held.close()


def files(folder) -> list:
    return sorted(folder.glob(f"{kept_fits.FILES}*"))


def change(folder, *statements: str) -> None:
    held = Records(folder)
    for statement in statements:
        held.live.execute(statement)
    new_state(held.live)
    held.close()


@pytest.fixture
def bare(town):
    for file in files(town):
        file.unlink()
    return town


def test_kept_fits_price_to_the_last_digit_as_those_that_were_made(bare):
    first, fitted = priced(bare)
    assert fitted == len(files(bare)) == 2
    assert priced(bare) == (first, 0)


@pytest.mark.parametrize("spoil", ["code", "byte", "cut"])
def test_they_are_made_anew_where_their_files_no_longer_fit(bare, spoil, monkeypatch):
    first, _ = priced(bare)
    if spoil == "code":
        monkeypatch.setattr(kept_fits, "code_digest", lambda: "other")
    else:
        for file in files(bare):
            whole = file.read_bytes()
            file.write_bytes(whole[:9000] if spoil == "cut" else whole[:9000] + bytes([whole[9000] ^ 4]) + whole[9001:])
    assert priced(bare) == (first, 2) and priced(bare) == (first, 0)


def test_what_comes_in_and_is_none_of_their_sales_leaves_them_as_they_are(bare):
    """Rows, numbers of homes and codes of words are others then; the price is that of a folder without any kept file."""
    priced(bare)
    change(
        bare,
        "UPDATE listings SET list_price = list_price + 1000, public_remarks = 'Another text' WHERE standard_status = 'Active'",
        "DELETE FROM listings WHERE row_id IN (SELECT row_id FROM listings WHERE standard_status = 'Expired' LIMIT 40)",
    )
    kept, fitted = priced(bare)
    assert fitted == 0
    for file in files(bare):
        file.unlink()
    assert priced(bare) == (kept, 2)


@pytest.mark.parametrize(
    "told", ["close_price = close_price + 1", "year_built = year_built - 1", "latitude = latitude + 0.0001"]
)
def test_one_sale_told_otherwise_has_them_made_anew(bare, told):
    priced(bare)
    change(
        bare,
        f"UPDATE listings SET {told} WHERE listing_id = (SELECT listing_id FROM listings WHERE standard_status = 'Closed' "
        "AND home_kind = 'detached' AND close_date BETWEEN '2025-01-01' AND '2025-06-30' AND living_area > 0 AND year_built > 0 LIMIT 1)",
    )  # fmt: skip
    kept, fitted = priced(bare)
    assert fitted == 2
    for file in files(bare):
        file.unlink()
    assert priced(bare) == (kept, 2)


def test_a_fingerprint_sees_every_column_and_no_numbering(demo_records):
    columns = demo_records.columns
    rows = recent_sale_rows(columns, columns.as_of(demo_records.effective_day(None)))[:400]
    told = fingerprint(columns, rows)
    assert told != fingerprint(columns, rows[::-1]) and told != fingerprint(columns, rows, 1)
    numbered = replace(
        columns,
        home_id=columns.home_id[::-1],
        words={
            name: replace(w, codes=np.where(w.codes < 0, -1, w.codes + 1).astype(np.int32), words=("none", *w.words))
            for name, w in columns.words.items()
        },
    )
    assert fingerprint(numbered, rows) == told
    for name in columns.numbers:
        other = np.array(columns.numbers[name][:], dtype=np.float64)
        other[rows[7]] = -3.25
        assert fingerprint(replace(columns, numbers={**columns.numbers, name: other}), rows) != told, name
    for name, held in columns.words.items():
        other = replace(held, codes=held.codes.astype(np.int32), words=(*held.words, "another word"))
        other.codes[rows[7]] = len(held.words)
        assert fingerprint(replace(columns, words={**columns.words, name: other}), rows) != told, name
    plain = {f: getattr(columns, f) for f in vars(columns) if f not in ("home_id", "sort_key")}
    for name in (f for f, held in plain.items() if isinstance(held, np.ndarray) and held.shape == (len(columns),)):
        other = plain[name].copy()
        other[rows[7]] = ~other[rows[7]] if other.dtype == np.bool_ else other[rows[7]] + 1
        assert fingerprint(replace(columns, **{name: other}), rows) != told, name


def test_a_backtest_leaves_no_files_of_its_many_days(bare):
    held = Records(bare, today=lambda: NOW.date())
    assert backtest(held.snapshot(), dt.date(2026, 3, 1), dt.date(2026, 3, 31), 60, 5, workers=1).cases
    held.close()
    assert not files(bare)


def test_only_so_many_are_kept(bare, monkeypatch):
    monkeypatch.setattr(kept_fits, "MOST", 2)
    held = Records(bare, today=lambda: NOW.date())
    now = held.snapshot()
    (parcel,) = now.db.execute("SELECT parcel_number FROM parcels WHERE home_kind = 'detached' LIMIT 1").fetchone()
    subject = read_home(now, HomeRef("parcel", parcel)).subject
    models = [wide_models.wide_model(now, subject, now.effective_day(None) - 95 * k) for k in range(4)]
    assert all(models) and len(files(bare)) == 2
    before = list(bare.iterdir())
    assert wide_models.wide_model(now, subject, now.effective_day(None) - 700, keep=False)
    assert list(bare.iterdir()) == before, "a backtest's models go with it"
    held.close()
