"""From the bench to a table in front of people: what to prepare, what to say and do, how to begin again, what it costs."""
