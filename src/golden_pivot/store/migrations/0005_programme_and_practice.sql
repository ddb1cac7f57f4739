-- Programmes by what they are, as JSON; practice by routine: what was answered, when each question is due, and rehearsals.
CREATE TABLE programme (
    id INTEGER PRIMARY KEY,
    uid TEXT NOT NULL UNIQUE,
    occasion TEXT NOT NULL,
    revision INTEGER NOT NULL DEFAULT 1,
    changed_at TEXT NOT NULL
);
CREATE TABLE answer (
    id INTEGER PRIMARY KEY,
    uid TEXT NOT NULL UNIQUE,
    routine TEXT NOT NULL,
    drill TEXT NOT NULL,
    question TEXT NOT NULL,
    answered_at TEXT NOT NULL,
    "right" INTEGER NOT NULL,
    seconds REAL NOT NULL
);
CREATE INDEX answer_to ON answer (routine, drill, question, answered_at);
CREATE TABLE rehearsal (
    id INTEGER PRIMARY KEY,
    uid TEXT NOT NULL UNIQUE,
    routine TEXT NOT NULL,
    held_at TEXT NOT NULL,
    told TEXT NOT NULL
);
CREATE INDEX rehearsal_of ON rehearsal (routine, held_at);
