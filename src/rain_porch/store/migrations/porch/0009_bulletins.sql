-- what was called a letter is a bulletin
UPDATE kept SET kind = 'bulletin' WHERE kind = 'letter';

-- a bulletin that was made is kept like any delivery, of workup 0. through: the last day of its records.
-- papers_of: the delivery whose papers these are, of a message to one of its readers; words: that message's
ALTER TABLE deliveries ADD COLUMN bulletin_id INTEGER;
ALTER TABLE deliveries ADD COLUMN through TEXT;
ALTER TABLE deliveries ADD COLUMN papers_of INTEGER REFERENCES deliveries;
ALTER TABLE deliveries ADD COLUMN words TEXT NOT NULL DEFAULT '';
CREATE INDEX deliveries_by_bulletin ON deliveries (owner, bulletin_id, made_at);
