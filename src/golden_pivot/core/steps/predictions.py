"""Predictions: what is committed to before it happens, where it waits and how it is shown. Nothing moves."""

from __future__ import annotations

from typing import TYPE_CHECKING

from ..language.facets import Facet
from ..search.program import Cells
from .declare import HANDLING, SETUP, step

if TYPE_CHECKING:
    from ..building import Builder

TURNED = "{turn=turned over sideways|turned end for end|turned face up}"


@step(
    "Write {number:number} as the prediction {name:name}[, to wait in {place:place}]",
    family="Choices",
    example="Write n + 1 as the prediction p",
    facets=(Facet.PREDICTED_NUMBER,),
    wordings=(
        "(write|write down|jot down|note down) {number} on [a] (piece of paper|slip of paper|bit of paper|sheet) [as] [a|my|your] [prediction] => score=1",
        "predict number {number} => score=1.5",
        "predict {number} => score=1",
        "(write|jot|note) [down] {number} as [a|your|my|their] prediction",
        "(write|jot) [down] {number} on [a|your|my] (pad|paper|slip|card|board) [as a prediction|as prediction]",
        "(write|jot) [down] {number} on [a] pad [,] and leave [it|pad] under [a] glass => place=glass",
        "(write|jot) down {number} [as your prediction]",
        "(predict|prediction) {number}",
        "write {number} on [a|your|my] pad as [a] prediction",
    ),
)
def predict(b: Builder) -> None:
    """A number that you commit yourself to here, from what you know at this line. An ending may compare with it."""
    number = b.number("number")
    cell = b.new_number("name", b.phrase("name"), secret=False)

    def run(cells: Cells) -> None:
        cells[cell] = number(cells)

    b.act(run)


@step(
    "Prediction: {cards:together}[,] {how=on paper|ready|reversed} in {place:place}[, " + TURNED + "]",
    family="The page",
    phase=HANDLING,
    example="Prediction: FORCE, on paper in pocket, turned over sideways",
    facets=(Facet.PREDICTED_CARDS,),
    wordings=(
        "[a|my|your] prediction be {cards} [,] [write] [on] [a] [card|paper|slip|piece of paper] (in|inside) [a] {place} => how=on paper; score=2",
        "[a|my|your] prediction [:|,] {cards} [,] [write] [on] [a] [card|paper|slip|piece of paper] (in|inside|under) [a] {place} => how=on paper; score=2",
        "(write|write down|jot down) {cards} on [a] (slip|paper|piece of paper|card|slip of paper) [,] [and] (keep|leave|put) it (in|under|on) {place} => how=on paper; score=1",
        "write {cards} on [a] (slip|paper|piece of paper|card|slip of paper) and (put|seal|place|hide|lay) it in [a] {place} => how=on paper; score=1",
        "write {cards} on [a] (slip|paper|card) in {place} => how=on paper",
        "[a] (slip|paper|note|card) in {place} have its name [write] [on it] => cards=previous; how=on paper",
        "(slip|paper|prediction) in {place} (say|read|name) {cards} => how=on paper",
        "[a] prediction of {cards} (be|wait|lie) in {place} => how=on paper",
        "{cards} be (predict|write) on [a] (slip|paper|piece of paper|card) in {place} => how=on paper",
        "... slip ... in {place} that reads {cards} => how=on paper",
        "... (paper|prediction|written prediction) of {cards} in [a] {place} => how=on paper",
        "{cards} on [a] [piece of|slip of|bit of] paper in {place} => how=on paper",
        "[a] (slip|paper|note) in {place} (has|say|says|reads|have) {cards} ... => how=on paper",
        "prediction [,] {cards} [,] lie face up in {place} ... => how=ready",
        "seal [a] [written] prediction of {cards} in [a|an] {place} => how=on paper",
        "write {cards} on [a] ... and ... in {place} => how=on paper",
        "write {cards} on [a] (slip|paper|piece of paper) ... => how=on paper; place=table",
    ),
)
def predict_card(b: Builder) -> None:
    """Cards you commit yourself to here: written on paper, or the cards themselves, ready or reversed in a heap.

    It is printed with where it waits and which way it is turned to be shown. Nothing moves; an ending says what
    must come true, and a prediction that no ending speaks of is told among what is said and not so.
    """
    b.known_cards("cards")
    if b.phrase("how") != "on paper":
        b.looked_at("place")


@step(
    "Prediction: {cards:together}[,] on the back of {bearer:card}[, " + TURNED + "]",
    family="Set-up",
    phase=SETUP,
    example="Prediction: FORCE, on the back of MARKER",
    facets=(
        Facet.PREDICTED_ON_BACK,
        Facet.EXTRA_CARD,
    ),
    wordings=(
        "{bearer} ... has {cards} write ... back",
        "{bearer} [in my pocket|in their pocket|in pocket] (have|has) {cards} (write|written) ...",
        "{cards} (be|is) write on back of {bearer}",
        "write {cards} on back of {bearer}",
    ),
)
def predict_on_back(b: Builder) -> None:
    """Cards you commit yourself to, written on the back of a card of the set-up, which then has an odd back."""
    b.known_cards("cards")
    b.mark_back("bearer")
