-- Why a version was made, in the designer's words.
ALTER TABLE version ADD COLUMN reason TEXT NOT NULL DEFAULT '';
