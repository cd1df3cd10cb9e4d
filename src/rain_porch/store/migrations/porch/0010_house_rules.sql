-- what was chosen of the house's rules, by whom and when; the newest line of a rule counts.
-- owner: whose own value it is, none: the office's. value: none: as usual, or an own one as the office has it.
CREATE TABLE rule_changes (
    change_id INTEGER PRIMARY KEY,
    owner INTEGER REFERENCES accounts,
    name TEXT NOT NULL,
    value REAL,
    by_account INTEGER REFERENCES accounts,
    made_at TEXT NOT NULL
);
CREATE INDEX rule_changes_by_name ON rule_changes (name, owner, change_id);
