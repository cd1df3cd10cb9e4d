-- work that waits for its time, and comes back where `every_minutes` says so
CREATE TABLE due_work (
    work_id INTEGER PRIMARY KEY,
    owner INTEGER NOT NULL REFERENCES accounts,
    kind TEXT NOT NULL,
    details TEXT NOT NULL,
    every_minutes INTEGER,
    due_at TEXT NOT NULL,
    stopped INTEGER NOT NULL DEFAULT 0,
    running_since TEXT,
    failures INTEGER NOT NULL DEFAULT 0,
    last_at TEXT,
    last_said TEXT NOT NULL DEFAULT ''
);
CREATE INDEX due_work_by_time ON due_work (due_at) WHERE stopped = 0;
