-- saved market views; pinned ones stand on the desk
CREATE TABLE views (
    view_id INTEGER PRIMARY KEY,
    owner INTEGER NOT NULL REFERENCES accounts,
    name TEXT NOT NULL,
    document TEXT NOT NULL,
    pinned INTEGER NOT NULL DEFAULT 0,
    UNIQUE (owner, name)
);
