-- past sales priced as if they were not known; from their errors the width of ranges is measured
CREATE TABLE backtests (
    backtest_id INTEGER PRIMARY KEY,
    made_at TEXT NOT NULL,
    document TEXT NOT NULL
);

CREATE TABLE backtest_cases (
    listing_id TEXT PRIMARY KEY,
    backtest_id INTEGER NOT NULL REFERENCES backtests,
    home_kind TEXT NOT NULL,
    latitude REAL NOT NULL,
    longitude REAL NOT NULL,
    day INTEGER NOT NULL,
    close_day INTEGER NOT NULL,
    actual REAL NOT NULL,
    value REAL NOT NULL,
    width REAL NOT NULL
) WITHOUT ROWID;
CREATE INDEX backtest_cases_by_kind ON backtest_cases (home_kind, latitude);
