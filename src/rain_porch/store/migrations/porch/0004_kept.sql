-- documents kept by name: market letters, layouts of reports
CREATE TABLE kept (
    kept_id INTEGER PRIMARY KEY,
    owner INTEGER NOT NULL REFERENCES accounts,
    kind TEXT NOT NULL,
    name TEXT NOT NULL,
    document TEXT NOT NULL,
    UNIQUE (owner, kind, name)
);
