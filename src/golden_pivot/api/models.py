"""Shapes of requests and replies. What is told of a routine has its shape in the core; here stands what is around it."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import AfterValidator, BaseModel, ConfigDict, Field

from ..core.answers.notes import Notes
from ..core.answers.report import EntryReport, OddsReport, StrandsReport, VerdictName, VerdictReport
from ..core.faults import Fault
from ..core.language.sheet import SheetLine
from ..core.variants.fields import NumberInText
from ..witness import Opinion


def _storable(text: str) -> str:
    """Half a surrogate pair is legal in JSON but is no text."""
    try:
        text.encode()
    except UnicodeEncodeError:
        raise ValueError("text that can be written as UTF-8") from None
    return text


Text = Annotated[str, AfterValidator(_storable)]


class Shape(BaseModel):
    model_config = ConfigDict(extra="forbid", populate_by_name=True)


class ErrorOut(Shape):
    """The one shape of every error."""

    message: str
    where: str
    expected: str
    remedy: str
    kind: str = Field(default="", description="full, read-only, locked, disk, damaged, gone: of the shelf’s file")
    saved: str = Field(default="", description="what was and what was not saved")
    current: RoutineOut | None = Field(
        default=None, description="what the shelf has, where another revision was saved"
    )


class Health(Shape):
    status: Literal["ok"] = "ok"
    version: str
    shelf: str | None = Field(description="which shelf is served; null while it cannot be read")


class StepKindOut(Shape):
    name: str
    family: str
    phase: str
    sentence: str
    summary: str
    notes: str
    example: str
    spectator: bool = Field(description="whether the spectator can be its subject as well")
    also: str = Field(description="what performers call it, to find it by")


class GlimpseOut(Shape):
    picture: str | None = Field(
        description="the ways of its card, as SVG; null where no card is followed, or too many ways to draw"
    )


class StandingIn(Shape):
    """What of its standing is another now; null for what stays."""

    pinned: bool | None = None
    put_away: bool | None = None
    tags: list[Text] | None = Field(default=None, max_length=100)


class FoundOut(Shape):
    verdict: VerdictName | None = Field(description="null while the text has faults")
    says: str = Field(description="the verdict, or what is still missing, in a sentence")


class RoutineOut(Shape):
    id: int
    title: str
    note: str | None
    text: str
    revision: int
    created_at: str
    changed_at: str
    badges: list[str] = Field(description="what can be said of it at a glance; none while it is being written")
    uid: str = Field(description="the same on every shelf")
    shelf: str = Field(description="which shelf it stands on")
    removed_at: str | None = None
    pinned: bool = Field(default=False, description="stands at the top of the shelf")
    put_away: bool = Field(default=False, description="is on the shelf, and out of sight")
    tags: list[str] = []
    unread: str | None = Field(default=None, description="why no more than its text is told")
    found: FoundOut | None = Field(
        default=None, description="in a list: what was found of this text before, if it was"
    )


class RevisionOut(Shape):
    revision: int


class NewRoutine(Shape):
    text: Text


class ImportRoutine(Shape):
    document: dict[str, Any] = Field(description="a routine in the JSON form; see /api/routine.schema.json")


class ParameterOut(Shape):
    """A number of a principle that may be changed."""

    name: str
    says: str
    lowest: int
    highest: int
    at: int
    step: int


class PrincipleOut(Shape):
    name: str
    about: str
    source: str = Field(description="whose it is, or *common practice*")
    text: str = Field(description="a short working routine to begin with")
    parameters: list[ParameterOut]


class PrincipleIn(Shape):
    name: str = Field(max_length=100)
    values: Annotated[
        dict[str, int], Field(max_length=10, description="parameter → its value; brought into its range")
    ] = {}


class PrincipleText(Shape):
    text: str


class SaveRoutine(Shape):
    text: Text
    revision: int


class VersionOut(Shape):
    number: int
    name: str
    reason: str = Field(description="why it was made, in the designer's words")
    text: str
    created_at: str


class NewVersion(Shape):
    name: Text = Field(min_length=1, max_length=200)
    reason: Text = Field(default="", max_length=500)
    text: Text | None = Field(default=None, description="another text than the one on the shelf, such as a draft")


class RestoreVersion(Shape):
    revision: int


class PacesSet(Shape):
    """How long things take in the user's own hands, in seconds."""

    card: float = Field(default=0.8, ge=0, le=60)
    count: float = Field(default=0.4, ge=0, le=60)
    look: float = Field(default=0.25, ge=0, le=60)
    step: float = Field(default=2.0, ge=0, le=60)
    decision: float = Field(default=4.0, ge=0, le=60)
    word: float = Field(default=0.4, ge=0, le=60)
    sum: float = Field(default=3.0, ge=0, le=60)


class Settings(Shape):
    """What the user can set; each has a default until then."""

    scheme: Literal["light", "dark", "auto"] = "auto"
    motion: bool = True
    keep_words: bool = Field(
        default=False, description="keep what was written as a remark where a reading takes its place"
    )
    reckoning_seconds: float = Field(default=2.0, ge=0, le=60)
    paces: PacesSet = Field(default_factory=PacesSet)


class TextIn(Shape):
    text: Text


class SheetOut(Shape):
    title: str | None
    note: str | None
    lines: list[SheetLine]
    faults: list[Fault]
    to_read: bool = Field(description="some line may be in everyday words")
    blanks: list[int] = Field(description="the line of each `?`, in order")
    numbers: list[NumberInText] = Field(description="the numbers for which others may be tried")


class SuggestIn(Shape):
    text: Text
    line: int = Field(ge=1, description="line of the cursor, from 1")
    column: int = Field(ge=0, description="characters before the cursor in that line")


class SuggestionOut(Shape):
    text: str
    family: str
    summary: str


class ProveIn(Shape):
    text: Text
    job: str = Field(max_length=64, description="a name by which this request can be cancelled")
    lane: Literal["interactive", "long"] = "interactive"


class FindIn(Shape):
    text: Text
    job: str = Field(max_length=64, description="a name by which this request can be cancelled")


class ProofOut(Shape):
    verdict: VerdictReport | None = Field(description="null while the text has faults")
    faults: list[Fault]


class LedgerIn(Shape):
    text: Text
    job: str = Field(max_length=64)
    card: Text | None = Field(default=None, max_length=100, description="a card by name; else the one it is about")


class LedgerOut(Shape):
    card: str | None = Field(description="the card that is followed")
    cards: list[str] = Field(description="those that could be")
    ledger: list[EntryReport]


class SecondOpinionIn(Shape):
    text: Text
    job: str = Field(max_length=64)
    verdict: VerdictReport = Field(description="as it was told of this text; so are the others")
    ledger: LedgerOut | None = None
    odds: OddsReport | None = None


class SecondOpinionOut(Shape):
    opinion: Opinion | None = Field(description="null where nothing could be played")


class PlayIn(Shape):
    text: Text
    job: str = Field(max_length=64)
    choices: dict[str, int] = Field(default_factory=dict)
    seed: int | None = None
    worst: bool = False


class ReadAsIn(Shape):
    text: Text = Field(max_length=100_000)
    keep_words: bool = Field(default=False, description="the words that were read stand above as a remark")
    job: Text = ""


class NotesPageIn(Shape):
    text: Text = Field(max_length=20_000)
    chosen: dict[Text, int] = Field(
        default={}, description="sentence → which of its readings is meant, from 0; -1 to keep it as a remark"
    )
    job: Text = ""


class NotesOut(Shape):
    notes: Notes | None = Field(description="null while the text has faults")


class OddsOut(Shape):
    odds: OddsReport | None = Field(description="null while the text has faults")


class AnalysisIn(Shape):
    text: Text
    job: str = Field(max_length=64)


class StrandsOut(Shape):
    strands: StrandsReport | None


class JobOut(Shape):
    progress: str


class Done(Shape):
    done: bool


ErrorOut.model_rebuild()

ERRORS: dict[int | str, dict[str, Any]] = {"4XX": {"model": ErrorOut}, "5XX": {"model": ErrorOut}}
"""what every route can answer besides"""
