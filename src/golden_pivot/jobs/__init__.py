"""Long computations in processes of their own, so that the server never blocks."""

from .lanes import Busy, Gone, Jobs, LaneName, Superseded, TooMuch

__all__ = ["Busy", "Gone", "Jobs", "LaneName", "Superseded", "TooMuch"]
