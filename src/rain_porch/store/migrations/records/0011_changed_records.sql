-- Which records changed since an earlier state of them, so that columns need not be read anew as a whole (incoming/changed.py).
-- version: of the records before the change. Nothing is noted while meta 'noting' is '0', as in an import of a whole county.
CREATE TABLE changed_records (
    kind TEXT NOT NULL,
    record_key TEXT NOT NULL,
    version INTEGER NOT NULL,
    PRIMARY KEY (version, kind, record_key)
) WITHOUT ROWID;
-- marks of the states since which everything is noted
CREATE TABLE earlier_marks (mark TEXT PRIMARY KEY, version INTEGER NOT NULL) WITHOUT ROWID;
INSERT INTO earlier_marks
SELECT m.value, CAST(v.value AS INTEGER) FROM meta m JOIN meta v ON v.name = 'version' WHERE m.name = 'mark';
INSERT INTO meta VALUES ('noting', '1');

CREATE TRIGGER listing_comes AFTER INSERT ON listings
WHEN (SELECT value FROM meta WHERE name = 'noting') = '1' BEGIN
    INSERT OR IGNORE INTO changed_records
    SELECT 'listing', NEW.listing_id, CAST(value AS INTEGER) FROM meta WHERE name = 'version';
END;
CREATE TRIGGER listing_changes AFTER UPDATE ON listings
WHEN (SELECT value FROM meta WHERE name = 'noting') = '1' BEGIN
    INSERT OR IGNORE INTO changed_records
    SELECT 'listing', NEW.listing_id, CAST(value AS INTEGER) FROM meta WHERE name = 'version';
END;
CREATE TRIGGER listing_goes AFTER DELETE ON listings
WHEN (SELECT value FROM meta WHERE name = 'noting') = '1' BEGIN
    INSERT OR IGNORE INTO changed_records
    SELECT 'listing', OLD.listing_id, CAST(value AS INTEGER) FROM meta WHERE name = 'version';
END;
CREATE TRIGGER transfer_comes AFTER INSERT ON transfers
WHEN (SELECT value FROM meta WHERE name = 'noting') = '1' BEGIN
    INSERT OR IGNORE INTO changed_records
    SELECT 'transfer', NEW.transfer_key, CAST(value AS INTEGER) FROM meta WHERE name = 'version';
END;
CREATE TRIGGER transfer_changes AFTER UPDATE ON transfers
WHEN (SELECT value FROM meta WHERE name = 'noting') = '1' BEGIN
    INSERT OR IGNORE INTO changed_records
    SELECT 'transfer', NEW.transfer_key, CAST(value AS INTEGER) FROM meta WHERE name = 'version';
END;
CREATE TRIGGER transfer_goes AFTER DELETE ON transfers
WHEN (SELECT value FROM meta WHERE name = 'noting') = '1' BEGIN
    INSERT OR IGNORE INTO changed_records
    SELECT 'transfer', OLD.transfer_key, CAST(value AS INTEGER) FROM meta WHERE name = 'version';
END;
CREATE TRIGGER parcel_comes AFTER INSERT ON parcels
WHEN (SELECT value FROM meta WHERE name = 'noting') = '1' BEGIN
    INSERT OR IGNORE INTO changed_records
    SELECT 'parcel', NEW.parcel_number, CAST(value AS INTEGER) FROM meta WHERE name = 'version';
END;
CREATE TRIGGER parcel_changes AFTER UPDATE ON parcels
WHEN (SELECT value FROM meta WHERE name = 'noting') = '1' BEGIN
    INSERT OR IGNORE INTO changed_records
    SELECT 'parcel', NEW.parcel_number, CAST(value AS INTEGER) FROM meta WHERE name = 'version';
END;
CREATE TRIGGER parcel_goes AFTER DELETE ON parcels
WHEN (SELECT value FROM meta WHERE name = 'noting') = '1' BEGIN
    INSERT OR IGNORE INTO changed_records
    SELECT 'parcel', OLD.parcel_number, CAST(value AS INTEGER) FROM meta WHERE name = 'version';
END;
CREATE TRIGGER event_comes AFTER INSERT ON events
WHEN (SELECT value FROM meta WHERE name = 'noting') = '1' AND NEW.listing_id IS NOT NULL BEGIN
    INSERT OR IGNORE INTO changed_records
    SELECT 'listing', NEW.listing_id, CAST(value AS INTEGER) FROM meta WHERE name = 'version';
END;
CREATE TRIGGER event_changes AFTER UPDATE ON events
WHEN (SELECT value FROM meta WHERE name = 'noting') = '1' AND NEW.listing_id IS NOT NULL BEGIN
    INSERT OR IGNORE INTO changed_records
    SELECT 'listing', NEW.listing_id, CAST(value AS INTEGER) FROM meta WHERE name = 'version'
    UNION SELECT 'listing', OLD.listing_id, CAST(value AS INTEGER) FROM meta
    WHERE name = 'version' AND OLD.listing_id IS NOT NULL;
END;
CREATE TRIGGER event_goes AFTER DELETE ON events
WHEN (SELECT value FROM meta WHERE name = 'noting') = '1' AND OLD.listing_id IS NOT NULL BEGIN
    INSERT OR IGNORE INTO changed_records
    SELECT 'listing', OLD.listing_id, CAST(value AS INTEGER) FROM meta WHERE name = 'version';
END;
CREATE TRIGGER ruling_comes AFTER INSERT ON rulings
WHEN (SELECT value FROM meta WHERE name = 'noting') = '1' AND NEW.kind = 'listings' BEGIN
    INSERT OR IGNORE INTO changed_records
    SELECT 'listing', NEW.record_key, CAST(value AS INTEGER) FROM meta WHERE name = 'version';
END;
CREATE TRIGGER ruling_changes AFTER UPDATE ON rulings
WHEN (SELECT value FROM meta WHERE name = 'noting') = '1' AND NEW.kind = 'listings' BEGIN
    INSERT OR IGNORE INTO changed_records
    SELECT 'listing', NEW.record_key, CAST(value AS INTEGER) FROM meta WHERE name = 'version';
END;
CREATE TRIGGER ruling_goes AFTER DELETE ON rulings
WHEN (SELECT value FROM meta WHERE name = 'noting') = '1' AND OLD.kind = 'listings' BEGIN
    INSERT OR IGNORE INTO changed_records
    SELECT 'listing', OLD.record_key, CAST(value AS INTEGER) FROM meta WHERE name = 'version';
END;
