"""What a kind of step is to those who speak about routines: sheets, notes, other ways to do it, blanks.

A declaration says which facets it has; whoever is outside of this package asks for a facet and never for a kind by its
name, so that a new kind is spoken of as soon as it is declared. The slots that a facet names are there in every kind that
has it, under these names.
"""

from __future__ import annotations

from enum import Enum


class Facet(Enum):
    """Each with the slots that its kinds have; the first is the one it is about."""

    # The page
    TITLE = "title", ("title",)
    NOTE = "what the routine is about", ("note",)
    CREDIT = "whose it is", ("credit",)
    ASSUMPTION = "taken for granted, not proved", ("what",)

    # The set-up
    PACK = "lays the pack; nothing can come before it", ()
    COUNTED_PACK = "lays so many cards, of which any may be any card", ("count",)
    ORDERED_PACK = "lays a pack in a known order", ()
    ARRANGED_BY_SORT = "says of what colour or suit the cards of the pack are", ()
    NO_ORDER = "says of no card of the pack where it lies", ()
    EXTRA_CARD = "brings something into play that a borrowed pack does not have", ()
    PLACED = "a card at a known place of the pack", ("card", "position", "up", "odd", "short", "mate")
    PLACED_LISTED = "several cards at known places", ("cards", "position")

    # Predictions
    PREDICTED_NUMBER = "a number, foretold on paper", ("number", "name", "place")
    PREDICTED_CARDS = "cards foretold by cards or on paper", ("cards", "how", "place", "turn")
    PREDICTED_ON_BACK = "cards foretold on the back of another", ("cards", "bearer", "turn")

    # What is chosen, told and seen
    TELLS = "numbers come to be known to everybody", ("names",)
    DOER_SEES = "whoever does it sees the face of a card", ()
    SPECTATOR_SEES = "a spectator who does it sees the face of a card", ()
    FACE_NEEDED = "the spectator goes by the face of a card", ()
    GLIMPSE = "a card where it lies is looked at and remembered", ("spot", "card")
    NARROWS = "of some piles those are kept, or not, that are pointed to", ("count", "card")
    PILE_NUMBER = "numbers that are the number of a pile", ()
    PILES_BESIDE = "numbers of piles over or under one", ()

    # What is done
    DEALS_PILES = "deals into so many piles", ("piles",)
    NOTHING_MOVED = "no card is moved in it, though cards are spoken of", ()
    SHUFFLES = "the order of a heap is lost", ("place",)
    SEEKS = "a card is looked for, face or back", ("card",)
    COUNTS_DOWN = "numbers are counted down until a card has the number said", ()

    # Order of events
    RESTARTS = "the routine begins again", ()
    OTHERWISE = "what is done where the case above it does not come about", ()

    # Endings
    OF_ALL_PATHS = "what is claimed is about all paths together, so that it cannot be asked of one", ()
    JOINS_CLAIMS = "several claims in one ending", ("claims",)
    HAS_CASE = "an If of its own asks whether it is so", ()
    HAS_LIMIT = "lines of its own keep to it, or go on as long as it is so", ()
    CLAIMS_CARD_AT = "a card lies where the ending says", ("spot", "card")
    FORBIDS = "something must not be seen on the whole way", ()
    FORBIDS_ODD_BACKS = "no odd back may be seen", ()

    def __init__(self, about: str, slots: tuple[str, ...]) -> None:
        self.about, self.slots = about, slots
