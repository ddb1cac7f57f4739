-- Routines are text and nothing else; whatever is known about one is computed from its text.
CREATE TABLE routine (
    id INTEGER PRIMARY KEY,
    text TEXT NOT NULL,
    revision INTEGER NOT NULL DEFAULT 1,
    created_at TEXT NOT NULL,
    changed_at TEXT NOT NULL,
    removed_at TEXT
);

CREATE TABLE version (
    id INTEGER PRIMARY KEY,
    routine_id INTEGER NOT NULL REFERENCES routine (id) ON DELETE CASCADE,
    number INTEGER NOT NULL,
    name TEXT NOT NULL,
    text TEXT NOT NULL,
    created_at TEXT NOT NULL,
    UNIQUE (routine_id, number)
);

CREATE TABLE setting (
    name TEXT PRIMARY KEY,
    value TEXT NOT NULL
);
