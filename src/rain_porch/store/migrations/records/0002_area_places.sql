-- where each area and each shape of the map lies, so that the fine ones can be asked for by what is in view
CREATE VIRTUAL TABLE area_places USING rtree (row_id, south, north, west, east);
