"""Golden Pivot: a bench for self-working card routines."""

__version__ = "0.1.0"
