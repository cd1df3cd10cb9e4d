-- points are found by an index that keeps itself; boxes in a tree are for areas alone
DROP TABLE listing_places;
DROP TABLE parcel_places;
CREATE INDEX listings_by_place ON listings (latitude, longitude);
CREATE INDEX parcels_by_place ON parcels (latitude, longitude);
-- words of addresses gathered in memory by 16 MB before they are written
INSERT INTO addresses (addresses, rank) VALUES ('hashsize', 16777216);
