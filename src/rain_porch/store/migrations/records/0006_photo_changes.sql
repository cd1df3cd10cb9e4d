-- whose picture stands in a place now: an import that put another there is taken back by what stood before
ALTER TABLE photos ADD COLUMN last_import INTEGER REFERENCES imports;
UPDATE photos SET last_import = first_import;
CREATE INDEX photos_by_file ON photos (file_name);
