-- Which program the file belongs to, which shelf it is, and a name for each routine that no other shelf gives.
PRAGMA application_id = 1196447796;

CREATE TABLE identity (
    uid TEXT NOT NULL
);
INSERT INTO identity (uid) VALUES (lower(hex(randomblob(16))));

ALTER TABLE routine ADD COLUMN uid TEXT;
UPDATE routine SET uid = lower(hex(randomblob(8)));
CREATE UNIQUE INDEX routine_uid ON routine (uid);
