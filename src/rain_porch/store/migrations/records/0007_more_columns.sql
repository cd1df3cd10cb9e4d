ALTER TABLE listings ADD COLUMN expiration_date TEXT;
ALTER TABLE listings ADD COLUMN attached_garage_yn REAL;
ALTER TABLE parcels ADD COLUMN attached_garage_yn REAL;
-- how a record without coordinates of its own was placed: by its parcel, its address, its street, its subdivision
ALTER TABLE listings ADD COLUMN place_from TEXT;
ALTER TABLE parcels ADD COLUMN place_from TEXT;
CREATE INDEX listings_found ON listings (place_from) WHERE place_from IS NOT NULL;
CREATE INDEX parcels_found ON parcels (place_from) WHERE place_from IS NOT NULL;
-- the listing of another source that tells of the same listing and stands for both
ALTER TABLE listings ADD COLUMN same_as TEXT;
CREATE INDEX listings_same ON listings (same_as) WHERE same_as IS NOT NULL;
-- columns of the office's own that are no fields of the catalogue: {name: value}
ALTER TABLE listings ADD COLUMN own TEXT;
ALTER TABLE parcels ADD COLUMN own TEXT;
-- files of the folder that is watched: how each stood when it was last looked at, and what came of it
CREATE TABLE inbox_files (
    source TEXT NOT NULL,
    name TEXT NOT NULL,
    stamp TEXT NOT NULL,
    looked_at TEXT NOT NULL,
    outcome TEXT NOT NULL,
    held INTEGER NOT NULL,
    PRIMARY KEY (source, name)
) WITHOUT ROWID;
