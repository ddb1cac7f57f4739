"""Several routines for one occasion: the pack between them, what may be said against the order, and a better one."""
