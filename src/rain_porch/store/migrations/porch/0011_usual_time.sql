-- a time of the work's rhythm, from which the others are counted, whatever was done out of turn; NULL in what was kept before: due_at
ALTER TABLE due_work ADD COLUMN usual_at TEXT;
