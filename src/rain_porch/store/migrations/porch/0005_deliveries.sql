-- people to whom reports go, and what was delivered: frozen, with the papers themselves
CREATE TABLE clients (
    client_id INTEGER PRIMARY KEY,
    owner INTEGER NOT NULL REFERENCES accounts,
    name TEXT NOT NULL,
    email TEXT NOT NULL DEFAULT '',
    phone TEXT NOT NULL DEFAULT '',
    address TEXT NOT NULL DEFAULT '',
    note TEXT NOT NULL DEFAULT ''
);
CREATE INDEX clients_by_owner ON clients (owner, name);

CREATE TABLE deliveries (
    delivery_id INTEGER PRIMARY KEY,
    owner INTEGER NOT NULL REFERENCES accounts,
    workup_id INTEGER NOT NULL,
    revision INTEGER NOT NULL,
    title TEXT NOT NULL,
    client TEXT NOT NULL,
    email TEXT NOT NULL,
    subject TEXT NOT NULL,
    state TEXT NOT NULL,
    said TEXT NOT NULL DEFAULT '',
    pages INTEGER NOT NULL,
    list_price REAL,
    made_at TEXT NOT NULL,
    sent_at TEXT
);
CREATE INDEX deliveries_by_workup ON deliveries (owner, workup_id, made_at);

-- form: pdf, html, eml, or json (the workup and the records that it stood on)
CREATE TABLE delivered_papers (
    delivery_id INTEGER NOT NULL REFERENCES deliveries ON DELETE CASCADE,
    form TEXT NOT NULL,
    data BLOB NOT NULL,
    PRIMARY KEY (delivery_id, form)
) WITHOUT ROWID;
