-- pictures that a feed names by address: held once they came, tried again a few times while they did not
CREATE TABLE feed_pictures (
    address TEXT NOT NULL,
    listing_id TEXT NOT NULL,
    place INTEGER NOT NULL,
    url TEXT NOT NULL,
    held INTEGER NOT NULL DEFAULT 0,
    tries INTEGER NOT NULL DEFAULT 0,
    PRIMARY KEY (address, listing_id, place)
) WITHOUT ROWID;
CREATE INDEX feed_pictures_open ON feed_pictures (address) WHERE NOT held;
-- mappings that have a name: shared by all sources of the office
CREATE TABLE named_mappings (
    name TEXT PRIMARY KEY,
    kind TEXT NOT NULL,
    mapping TEXT NOT NULL,
    saved_at TEXT NOT NULL
) WITHOUT ROWID;
-- the words of a field of the office's own from least to most, as JSON, where they have an order
CREATE TABLE word_orders (
    field TEXT PRIMARY KEY,
    words TEXT NOT NULL
) WITHOUT ROWID;
