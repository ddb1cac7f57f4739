"""Long computations in processes of their own, so that the server never blocks."""

from .lanes import Gone, Jobs, Superseded

__all__ = ["Gone", "Jobs", "Superseded"]
