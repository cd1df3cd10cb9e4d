-- a workup that is put away: it is found when it is looked for, and stands in no list else
ALTER TABLE workups ADD COLUMN archived_at TEXT;
