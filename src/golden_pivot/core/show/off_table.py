"""Places that are not on the table."""

OFF_THE_TABLE = ("pocket", "hand", "box", "envelope", "wallet")
HIDDEN = ("pocket", "box", "envelope", "wallet")
"""whose cards nobody sees"""
