ALTER TABLE listings ADD COLUMN expiration_date TEXT;
ALTER TABLE listings ADD COLUMN attached_garage_yn REAL;
ALTER TABLE parcels ADD COLUMN attached_garage_yn REAL;
