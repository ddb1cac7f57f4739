"""From a routine as it was read to a program that can be explored or played."""

from .builder import Builder, compile_routine, compile_what_can_be, lowered
from .purpose import LEDGER, ODDS, PROOF, REGION, REPLAY, TABLE, Purpose

__all__ = [
    "LEDGER", "ODDS", "PROOF", "REGION", "REPLAY", "TABLE", "Builder", "Purpose", "compile_routine", "compile_what_can_be", "lowered",
]  # fmt: skip
