-- How a routine stands on the shelf; one without a row stands as it came.
CREATE TABLE standing (
    routine_id INTEGER PRIMARY KEY REFERENCES routine (id) ON DELETE CASCADE,
    pinned INTEGER NOT NULL,
    put_away INTEGER NOT NULL,
    tags TEXT NOT NULL
);
