-- What was shown. A performance keeps the text that was played and outlives its routine: no reference, its uid alone.
CREATE TABLE performance (
    id INTEGER PRIMARY KEY,
    uid TEXT NOT NULL UNIQUE,
    played_on TEXT NOT NULL,
    routine TEXT NOT NULL,
    title TEXT NOT NULL,
    text TEXT NOT NULL,
    occasion TEXT NOT NULL,
    audience TEXT NOT NULL,
    ended TEXT NOT NULL,
    chosen TEXT NOT NULL,
    slip TEXT NOT NULL,
    minutes REAL,
    went INTEGER,
    note TEXT NOT NULL
);
CREATE INDEX performance_of ON performance (routine, played_on);
