"""What a worker tells about a request."""

DONE, PROGRESS, CANCELLED, FAILED, NO_MEMORY = "done", "progress", "cancelled", "failed", "no memory"
