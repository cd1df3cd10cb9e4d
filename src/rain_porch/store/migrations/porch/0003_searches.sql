-- searches kept by name, with the home they were made for, so that they can be taken to another
CREATE TABLE searches (
    search_id INTEGER PRIMARY KEY,
    owner INTEGER NOT NULL REFERENCES accounts,
    name TEXT NOT NULL,
    document TEXT NOT NULL,
    UNIQUE (owner, name)
);
