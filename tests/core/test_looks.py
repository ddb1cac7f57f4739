"""Every look is at a card, not at the words of its place: routines in which these mean another card each time.

The reference plays some of their paths, and holds verdict, counts and odds against what comes of them.
"""

from __future__ import annotations

import os

from hypothesis import HealthCheck, event, given, settings

from golden_pivot.core.faults import BadRoutine
from golden_pivot.core.language.parser import read_routine
from golden_pivot.jobs.by_hand import opinion_on
from tests.strategies import PHASES
from tests.strategies.changing_places import changing_places
from tests.witness.telling import told

MANY = int(os.environ.get("RANDOM_ROUTINES", "80"))
PLAYED = 250


@settings(max_examples=MANY, deadline=None, suppress_health_check=list(HealthCheck), phases=PHASES)
@given(changing_places())
def test_a_face_is_that_of_the_card_that_lies_there_now(text: str) -> None:
    assert not read_routine(text).faults, (text, read_routine(text).faults)
    try:
        answers = told(text)
    except BadRoutine as bad:
        event(bad.faults[0].message[:40])
        return
    found = opinion_on(text, answers, PLAYED, seconds=None)
    assert found is not None and found.agrees, (found, text)
    event(answers["verdict"]["verdict"])
