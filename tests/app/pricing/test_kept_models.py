"""Models kept beside the records: the same price without a fit, and made anew wherever they no longer fit."""

from __future__ import annotations

import pytest

from rain_porch.app.home.homes import HomeRef, read_home
from rain_porch.app.pricing import kept_models, wide_models
from rain_porch.app.pricing.price_document import price_doc
from rain_porch.app.records import Records
from rain_porch.store.records.incoming.changed import new_state
from tests.conftest import NOW


def priced(folder) -> tuple[str, int]:
    """The document of a price, and how many models were fitted for it."""
    fits = []
    held = Records(folder, today=lambda: NOW.date())
    fit = wide_models.fit_wide_model
    wide_models.fit_wide_model = lambda *args: (fits.append(1), fit(*args))[1]
    try:
        now = held.snapshot()
        (parcel,) = now.db.execute("SELECT parcel_number FROM parcels WHERE home_kind = 'detached' LIMIT 1").fetchone()
        doc, _ = price_doc(now, read_home(now, HomeRef("parcel", parcel)), None, None)
        return doc.model_dump_json(), len(fits)
    finally:
        wide_models.fit_wide_model = fit
        held.close()


@pytest.fixture
def bare(town):
    for file in town.glob("records.model.*"):
        file.unlink()
    return town


def test_a_kept_model_prices_to_the_last_digit_as_the_one_that_was_fitted(bare):
    first, fitted = priced(bare)
    assert fitted == 1 and len(list(bare.glob("records.model.*"))) == 1
    assert priced(bare) == (first, 0)


@pytest.mark.parametrize("spoil", ["records", "code", "byte", "cut"])
def test_it_is_fitted_anew_where_the_file_no_longer_fits(bare, spoil, monkeypatch):
    first, _ = priced(bare)
    (file,) = bare.glob("records.model.*")
    whole = file.read_bytes()
    if spoil == "records":
        held = Records(bare)
        new_state(held.live)
        held.close()
    elif spoil == "code":
        monkeypatch.setattr(kept_models, "code_digest", lambda: "other")
    else:
        file.write_bytes(whole[:9000] if spoil == "cut" else whole[:9000] + bytes([whole[9000] ^ 4]) + whole[9001:])
    assert priced(bare) == (first, 1) and priced(bare) == (first, 0)


def test_only_so_many_are_kept(bare, monkeypatch):
    monkeypatch.setattr(kept_models, "MOST", 2)
    held = Records(bare, today=lambda: NOW.date())
    now = held.snapshot()
    (parcel,) = now.db.execute("SELECT parcel_number FROM parcels WHERE home_kind = 'detached' LIMIT 1").fetchone()
    subject = read_home(now, HomeRef("parcel", parcel)).subject
    models = [wide_models.wide_model(now, subject, now.effective_day(None) - 95 * k) for k in range(4)]
    assert all(models) and len(list(bare.glob("records.model.*"))) == 2
    before = list(bare.iterdir())
    assert wide_models.wide_model(now, subject, now.effective_day(None) - 700, keep=False)
    assert list(bare.iterdir()) == before, "a backtest's models go with it"
    held.close()
