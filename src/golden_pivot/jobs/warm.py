"""Loaded once, by the process that workers are forked from: what the first request would otherwise pay for."""

from __future__ import annotations

import gc

from ..core.budget import Budget
from .tasks import TASKS

_SMALL = "Pack: 9 cards\nPlace A 2nd\nSpectator names a number n from 1 to 2\nDeal n cards from deck\n"

TASKS["prove"]({"text": _SMALL}, Budget())
TASKS["read"]({"text": f"{_SMALL}She drops the rest\n", "keep_words": False}, Budget())
gc.freeze()  # what is loaded stays: no worker need go through it again when it looks for what it can throw away
