-- who may sign in and what they may do; the first account is the folder's own, and keeps what the folder held before
ALTER TABLE accounts ADD COLUMN password_hash TEXT;
ALTER TABLE accounts ADD COLUMN role TEXT NOT NULL DEFAULT 'agent' CHECK (role IN ('agent', 'manager'));
ALTER TABLE accounts ADD COLUMN may_import INTEGER NOT NULL DEFAULT 0;
ALTER TABLE accounts ADD COLUMN disabled INTEGER NOT NULL DEFAULT 0;
UPDATE accounts SET role = 'manager', may_import = 1 WHERE account_id = 1;

-- digest: of the random text in the browser's cookie, which itself is kept nowhere
CREATE TABLE sessions (
    digest TEXT PRIMARY KEY,
    account_id INTEGER NOT NULL REFERENCES accounts ON DELETE CASCADE,
    begun_at TEXT NOT NULL,
    seen_at TEXT NOT NULL
) WITHOUT ROWID;

CREATE TABLE failed_sign_ins (
    name TEXT PRIMARY KEY,
    failures INTEGER NOT NULL,
    last_at TEXT NOT NULL
) WITHOUT ROWID;

-- a workup shown to a colleague
CREATE TABLE shares (
    workup_id INTEGER NOT NULL REFERENCES workups ON DELETE CASCADE,
    account_id INTEGER NOT NULL REFERENCES accounts ON DELETE CASCADE,
    may_edit INTEGER NOT NULL,
    PRIMARY KEY (workup_id, account_id)
) WITHOUT ROWID;

-- whose hand made a revision; none where it was the owner's own, before there were accounts
ALTER TABLE workup_revisions ADD COLUMN by_account INTEGER REFERENCES accounts;

-- who did what, when; the same again within some minutes is one row
CREATE TABLE acts (
    act_id INTEGER PRIMARY KEY,
    account_id INTEGER NOT NULL REFERENCES accounts,
    what TEXT NOT NULL,
    of_what TEXT NOT NULL,
    first_at TEXT NOT NULL,
    last_at TEXT NOT NULL,
    times INTEGER NOT NULL
);
CREATE INDEX acts_by_time ON acts (last_at);

-- one delivered paper, to be read by whoever has the link until its day
CREATE TABLE reader_links (
    link_id INTEGER PRIMARY KEY,
    digest TEXT NOT NULL UNIQUE,
    owner INTEGER NOT NULL REFERENCES accounts,
    delivery_id INTEGER NOT NULL REFERENCES deliveries ON DELETE CASCADE,
    made_at TEXT NOT NULL,
    until TEXT NOT NULL,
    times_read INTEGER NOT NULL DEFAULT 0,
    last_read_at TEXT
);

-- whose a picture or page in the photos folder is; what was there before is the first account's
CREATE TABLE own_files (
    owner INTEGER NOT NULL REFERENCES accounts,
    name TEXT NOT NULL,
    PRIMARY KEY (owner, name)
) WITHOUT ROWID;
