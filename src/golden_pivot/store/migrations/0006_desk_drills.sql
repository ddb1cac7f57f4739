-- What is learned from a desk: what was asked there and the questions that follow from what it answered then, as JSON.
-- Answers to them stand with the others, by its uid.
CREATE TABLE desk_drill (
    id INTEGER PRIMARY KEY,
    uid TEXT NOT NULL UNIQUE,
    desk TEXT NOT NULL,
    title TEXT NOT NULL,
    asks TEXT NOT NULL,
    questions TEXT NOT NULL,
    kept_at TEXT NOT NULL
);
