"""From a proved routine to one that is mastered: drills, when each is due, and rehearsals with a spectator who is not there."""
