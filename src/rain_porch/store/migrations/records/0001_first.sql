-- Records: what can be brought in again. One row a record; unknown is NULL.

CREATE TABLE meta (name TEXT PRIMARY KEY, value TEXT NOT NULL) WITHOUT ROWID;
INSERT INTO meta VALUES ('version', '0');

CREATE TABLE sources (
    source_id INTEGER PRIMARY KEY,
    name TEXT NOT NULL UNIQUE
);

CREATE TABLE imports (
    import_id INTEGER PRIMARY KEY,
    source_id INTEGER NOT NULL REFERENCES sources,
    kind TEXT NOT NULL,
    file_name TEXT NOT NULL,
    finished_at TEXT NOT NULL,
    row_count INTEGER NOT NULL,
    new_count INTEGER NOT NULL,
    changed_count INTEGER NOT NULL,
    same_count INTEGER NOT NULL,
    suspect_count INTEGER NOT NULL,
    rejected_count INTEGER NOT NULL,
    reasons TEXT NOT NULL
);

-- rows that were rejected or hold something suspect, as they stood in the file
CREATE TABLE import_rows (
    import_id INTEGER NOT NULL REFERENCES imports,
    row_number INTEGER NOT NULL,
    outcome TEXT NOT NULL,
    reasons TEXT NOT NULL,
    original TEXT NOT NULL,
    PRIMARY KEY (import_id, row_number)
) WITHOUT ROWID;

-- what stood before an import changed it: enough to put it back
CREATE TABLE import_changes (
    import_id INTEGER NOT NULL REFERENCES imports,
    record_key TEXT NOT NULL,
    before TEXT NOT NULL,
    PRIMARY KEY (import_id, record_key)
) WITHOUT ROWID;

CREATE TABLE listings (
    row_id INTEGER PRIMARY KEY,
    listing_id TEXT NOT NULL UNIQUE,
    parcel_number TEXT,
    standard_status TEXT,
    local_status TEXT,
    property_type TEXT,
    property_sub_type TEXT,
    unparsed_address TEXT,
    unit_number TEXT,
    city TEXT,
    postal_code TEXT,
    subdivision_name TEXT,
    latitude REAL,
    longitude REAL,
    on_market_date TEXT,
    purchase_contract_date TEXT,
    close_date TEXT,
    off_market_date TEXT,
    modification_timestamp TEXT,
    list_price REAL,
    original_list_price REAL,
    close_price REAL,
    concessions_amount REAL,
    living_area REAL,
    above_grade_finished_area REAL,
    below_grade_finished_area REAL,
    basement TEXT,
    lot_size_square_feet REAL,
    year_built REAL,
    year_remodelled REAL,
    bedrooms_total REAL,
    bathrooms_full REAL,
    bathrooms_half REAL,
    stories REAL,
    architectural_style TEXT,
    garage_spaces REAL,
    fireplaces_total REAL,
    main_level_bedrooms REAL,
    number_of_units_total REAL,
    pool_private_yn REAL,
    waterfront_yn REAL,
    new_construction_yn REAL,
    builder_name TEXT,
    property_condition TEXT,
    heating TEXT,
    cooling TEXT,
    utilities TEXT,
    flooring TEXT,
    lot_features TEXT,
    view TEXT,
    special_listing_conditions TEXT,
    association_fee REAL,
    association_fee_frequency TEXT,
    tax_annual_amount REAL,
    tax_assessed_value REAL,
    days_on_market REAL,
    cumulative_days_on_market REAL,
    public_remarks TEXT,
    private_remarks TEXT,
    list_agent_full_name TEXT,
    list_office_name TEXT,
    home_kind TEXT NOT NULL,
    is_lease INTEGER NOT NULL,
    manner TEXT NOT NULL,
    home_key TEXT NOT NULL,
    suspect TEXT,
    source_id INTEGER NOT NULL REFERENCES sources,
    first_import INTEGER NOT NULL REFERENCES imports,
    last_import INTEGER NOT NULL REFERENCES imports
);
CREATE INDEX listings_by_home ON listings (home_key);
CREATE INDEX listings_by_import ON listings (last_import);

CREATE TABLE parcels (
    row_id INTEGER PRIMARY KEY,
    parcel_number TEXT NOT NULL UNIQUE,
    property_type TEXT,
    property_sub_type TEXT,
    unparsed_address TEXT,
    unit_number TEXT,
    city TEXT,
    postal_code TEXT,
    subdivision_name TEXT,
    latitude REAL,
    longitude REAL,
    living_area REAL,
    above_grade_finished_area REAL,
    below_grade_finished_area REAL,
    basement TEXT,
    lot_size_square_feet REAL,
    year_built REAL,
    year_remodelled REAL,
    bedrooms_total REAL,
    bathrooms_full REAL,
    bathrooms_half REAL,
    stories REAL,
    architectural_style TEXT,
    garage_spaces REAL,
    fireplaces_total REAL,
    number_of_units_total REAL,
    pool_private_yn REAL,
    waterfront_yn REAL,
    heating TEXT,
    cooling TEXT,
    lot_features TEXT,
    view TEXT,
    tax_annual_amount REAL,
    tax_assessed_value REAL,
    home_kind TEXT NOT NULL,
    home_key TEXT NOT NULL,
    suspect TEXT,
    source_id INTEGER NOT NULL REFERENCES sources,
    first_import INTEGER NOT NULL REFERENCES imports,
    last_import INTEGER NOT NULL REFERENCES imports
);
CREATE INDEX parcels_by_import ON parcels (last_import);

CREATE TABLE transfers (
    row_id INTEGER PRIMARY KEY,
    transfer_key TEXT NOT NULL UNIQUE,
    parcel_number TEXT,
    recording_date TEXT,
    sale_date TEXT,
    price REAL,
    document_type TEXT,
    grantor TEXT,
    grantee TEXT,
    parcel_count REAL,
    not_arms_length TEXT,
    listing_id TEXT,
    suspect TEXT,
    source_id INTEGER NOT NULL REFERENCES sources,
    first_import INTEGER NOT NULL REFERENCES imports,
    last_import INTEGER NOT NULL REFERENCES imports
);
CREATE INDEX transfers_by_parcel ON transfers (parcel_number);

CREATE TABLE assessments (
    row_id INTEGER PRIMARY KEY,
    assessment_key TEXT NOT NULL UNIQUE,
    parcel_number TEXT,
    tax_year REAL,
    land_value REAL,
    improvement_value REAL,
    total_value REAL,
    tax_amount REAL,
    suspect TEXT,
    source_id INTEGER NOT NULL REFERENCES sources,
    first_import INTEGER NOT NULL REFERENCES imports,
    last_import INTEGER NOT NULL REFERENCES imports
);
CREATE INDEX assessments_by_parcel ON assessments (parcel_number);

CREATE TABLE events (
    row_id INTEGER PRIMARY KEY,
    event_key TEXT NOT NULL UNIQUE,
    listing_id TEXT,
    at TEXT,
    event TEXT,
    old_value TEXT,
    new_value TEXT,
    suspect TEXT,
    source_id INTEGER NOT NULL REFERENCES sources,
    first_import INTEGER NOT NULL REFERENCES imports,
    last_import INTEGER NOT NULL REFERENCES imports
);
CREATE INDEX events_by_listing ON events (listing_id, at);

CREATE TABLE series (
    row_id INTEGER PRIMARY KEY,
    series_key TEXT NOT NULL UNIQUE,
    date TEXT,
    value REAL,
    suspect TEXT,
    source_id INTEGER NOT NULL REFERENCES sources,
    first_import INTEGER NOT NULL REFERENCES imports,
    last_import INTEGER NOT NULL REFERENCES imports
);

CREATE TABLE photos (
    photo_id INTEGER PRIMARY KEY,
    listing_id TEXT NOT NULL,
    place INTEGER NOT NULL,
    file_name TEXT NOT NULL,
    caption TEXT,
    UNIQUE (listing_id, place)
);

-- polygons that name a place, and the lines and shapes of the base map
CREATE TABLE areas (
    row_id INTEGER PRIMARY KEY,
    area_key TEXT NOT NULL UNIQUE,
    name TEXT NOT NULL,
    kind TEXT NOT NULL,
    geometry TEXT NOT NULL,
    source_id INTEGER NOT NULL REFERENCES sources,
    first_import INTEGER NOT NULL REFERENCES imports,
    last_import INTEGER NOT NULL REFERENCES imports
);

CREATE VIRTUAL TABLE listing_places USING rtree (row_id, south, north, west, east);
CREATE VIRTUAL TABLE parcel_places USING rtree (row_id, south, north, west, east);

-- one row a home: folded words of its address; kind and key say which record to open
CREATE VIRTUAL TABLE addresses USING fts5 (words, kind UNINDEXED, key UNINDEXED, shown UNINDEXED, tokenize = 'ascii');
CREATE VIRTUAL TABLE address_words USING fts5vocab (addresses, row);
