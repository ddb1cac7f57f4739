"""The book: what was shown when, to whom, how it ended and what the spectators chose; and what that teaches."""
