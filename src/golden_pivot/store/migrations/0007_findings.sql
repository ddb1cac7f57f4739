-- What a program found out about a text, so that no start of it finds it out anew. Nothing of it is the user's: it can be thrown
-- away at any time, and another program takes no notice of it.
CREATE TABLE finding (
    text_mark TEXT NOT NULL,
    what TEXT NOT NULL,
    program TEXT NOT NULL,
    value TEXT NOT NULL,
    PRIMARY KEY (text_mark, what)
) WITHOUT ROWID;
