-- what a record says of walls, roof, services, the unit's floor and the land
ALTER TABLE listings ADD COLUMN construction_materials TEXT;
ALTER TABLE listings ADD COLUMN roof TEXT;
ALTER TABLE listings ADD COLUMN construction_quality TEXT;
ALTER TABLE listings ADD COLUMN building_name TEXT;
ALTER TABLE listings ADD COLUMN entry_level REAL;
ALTER TABLE listings ADD COLUMN sewer TEXT;
ALTER TABLE listings ADD COLUMN water_source TEXT;
ALTER TABLE listings ADD COLUMN zoning TEXT;
ALTER TABLE listings ADD COLUMN frontage_length REAL;
ALTER TABLE listings ADD COLUMN land_lease_yn REAL;
ALTER TABLE listings ADD COLUMN gross_scheduled_income REAL;
ALTER TABLE parcels ADD COLUMN construction_materials TEXT;
ALTER TABLE parcels ADD COLUMN roof TEXT;
ALTER TABLE parcels ADD COLUMN construction_quality TEXT;
ALTER TABLE parcels ADD COLUMN building_name TEXT;
ALTER TABLE parcels ADD COLUMN entry_level REAL;
ALTER TABLE parcels ADD COLUMN sewer TEXT;
ALTER TABLE parcels ADD COLUMN water_source TEXT;
ALTER TABLE parcels ADD COLUMN zoning TEXT;
ALTER TABLE parcels ADD COLUMN frontage_length REAL;
ALTER TABLE parcels ADD COLUMN land_lease_yn REAL;

-- how a source's columns are read; used again when a file brings the same columns
CREATE TABLE source_mappings (
    source_id INTEGER NOT NULL REFERENCES sources,
    kind TEXT NOT NULL,
    columns_key TEXT NOT NULL,
    mapping TEXT NOT NULL,
    PRIMARY KEY (source_id, kind, columns_key)
) WITHOUT ROWID;

ALTER TABLE imports ADD COLUMN undone_at TEXT;
ALTER TABLE imports ADD COLUMN columns TEXT;

-- what the agent has said of a record against what was concluded from it; outlives every import
CREATE TABLE rulings (
    kind TEXT NOT NULL,
    record_key TEXT NOT NULL,
    about TEXT NOT NULL,
    says TEXT NOT NULL,
    ruled_at TEXT NOT NULL,
    PRIMARY KEY (kind, record_key, about)
) WITHOUT ROWID;

-- where a feed was last read to
CREATE TABLE feeds (
    address TEXT PRIMARY KEY,
    source_id INTEGER NOT NULL REFERENCES sources,
    read_to TEXT,
    next_page TEXT,
    last_pulled_at TEXT
) WITHOUT ROWID;

ALTER TABLE photos ADD COLUMN first_import INTEGER REFERENCES imports;
CREATE INDEX transfers_by_import ON transfers (last_import);
CREATE INDEX assessments_by_import ON assessments (last_import);
CREATE INDEX events_by_import ON events (last_import);

-- what an import changed holds only the fields that changed, and which import the record was last of
DELETE FROM import_changes;
ALTER TABLE import_changes ADD COLUMN was_import INTEGER;
ALTER TABLE import_changes ADD COLUMN was_source INTEGER;
ALTER TABLE areas ADD COLUMN suspect TEXT;
