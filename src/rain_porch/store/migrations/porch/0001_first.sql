-- What cannot be brought in again. Every row that belongs to an agent carries its owner.

CREATE TABLE accounts (
    account_id INTEGER PRIMARY KEY,
    name TEXT NOT NULL UNIQUE
);
INSERT INTO accounts (account_id, name) VALUES (1, 'agent');

CREATE TABLE workups (
    workup_id INTEGER PRIMARY KEY,
    owner INTEGER NOT NULL REFERENCES accounts,
    title TEXT NOT NULL,
    revision INTEGER NOT NULL,
    document TEXT NOT NULL,
    created_at TEXT NOT NULL,
    changed_at TEXT NOT NULL
);
CREATE INDEX workups_by_owner ON workups (owner, changed_at);

-- every state that a workup has been in, with what was done in words; undo walks back along it
CREATE TABLE workup_revisions (
    workup_id INTEGER NOT NULL REFERENCES workups ON DELETE CASCADE,
    revision INTEGER NOT NULL,
    owner INTEGER NOT NULL REFERENCES accounts,
    what TEXT NOT NULL,
    document TEXT NOT NULL,
    at TEXT NOT NULL,
    PRIMARY KEY (workup_id, revision)
) WITHOUT ROWID;

CREATE TABLE settings (
    owner INTEGER NOT NULL REFERENCES accounts,
    name TEXT NOT NULL,
    value TEXT NOT NULL,
    PRIMARY KEY (owner, name)
) WITHOUT ROWID;
