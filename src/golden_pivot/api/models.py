"""Shapes of requests and replies. Values of the core are converted explicitly, never handed out as they are."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import AfterValidator, BaseModel, ConfigDict, Field


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


class FaultOut(Shape):
    line: int
    column: int
    end: int
    message: str
    expected: str
    remedy: str


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
    unread: str | None = Field(default=None, description="why no more than its text is told")


class RevisionOut(Shape):
    revision: int


class NewRoutine(Shape):
    text: Text


class ImportRoutine(Shape):
    document: dict[str, Any] = Field(description="a routine in the JSON form; see /api/routine.schema.json")


class FamilyOut(Shape):
    name: str
    about: str
    text: str = Field(description="a short working routine to begin with")


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


class SlotOut(Shape):
    name: str
    type: str
    start: int = Field(description="column, from 0")
    end: int


class SheetLine(Shape):
    number: int
    is_: str = Field(alias="is")
    step: str | None
    phase: str | None
    spectator: bool
    knowledge: Literal["secret", "told"] | None
    level: int
    slots: list[SlotOut]
    faults: list[FaultOut]


class SheetOut(Shape):
    title: str | None
    note: str | None
    lines: list[SheetLine]
    faults: list[FaultOut]
    to_read: bool = Field(description="some line may be in everyday words")


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


class WhereOut(Shape):
    place: str
    position: int
    paths: int | None = Field(description="null where paths have no number")


class RuleRowOut(Shape):
    known: list[int | None] = Field(description="null: not settled on that path")
    words: list[str]
    place: str
    position: int


class LandingOut(Shape):
    card: str
    text: str
    where: list[WhereOut]
    known: list[str]
    formula: str | None
    table: list[RuleRowOut]


class ClaimOut(Shape):
    line: int
    text: str
    holds: bool
    failing_paths: int | None = Field(description="null where paths have no number")
    reached: int | None = Field(description="paths that come to it")


class CounterexampleOut(Shape):
    choices: dict[str, int]
    labels: list[str]
    sentence: str
    stuck_at: int | None


class RegionOut(Shape):
    text: str | None
    fails: str | None = Field(description="with which choices it fails, where only that has a short form")
    passing: int
    paths: int
    reached: int = Field(description="paths that come to a claim")
    says: str
    values: dict[str, list[int]]


class VerdictOut(Shape):
    verdict: Literal["proved", "refuted", "unsettled", "fixed", "rule", "one-of", "lost"]
    headline: str
    landing: LandingOut | None
    claims: list[ClaimOut]
    paths: int | None
    again_paths: int | None = Field(description="of the paths, those that start again")
    failing_paths: int | None = Field(description="null where paths have no number")
    reached: int | None = Field(description="paths that come to a claim of an ending, or get stuck")
    counted: str = Field(description="on how many paths it holds, in words; empty where they have no number")
    states_widest: int
    transitions: int
    covers_every_order: bool
    covers: str = Field(description="which orders of the pack, in words")
    seconds: float
    counterexample: CounterexampleOut | None
    holds_when: RegionOut | None
    assumed: list[str]
    limit: str | None


class LedgerPlace(Shape):
    place: str
    positions: list[int]


class LedgerEntry(Shape):
    line: int
    round: list[int]
    text: str
    sure: bool
    where: list[LedgerPlace]


class ProofOut(Shape):
    verdict: VerdictOut | None = Field(description="null while the text has faults")
    faults: list[FaultOut]


class LedgerIn(Shape):
    text: Text
    job: str = Field(max_length=64)
    card: Text | None = Field(default=None, max_length=100, description="a card by name; else the one it is about")


class LedgerOut(Shape):
    card: str | None = Field(description="the card that is followed")
    cards: list[str] = Field(description="those that could be")
    ledger: list[LedgerEntry]


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


class PlaceOut(Shape):
    name: str
    lies: str = Field(description="how its cards lie, such as *in a row*")
    spots: list[tuple[int, int]] = Field(
        description="of each card: how many lie to its left, how many rows above it; none for a heap"
    )
    cards: list[int] = Field(description="top first; 128 is added to a card that lies face up")


class PositionOut(Shape):
    place: str
    position: int = Field(description="from the top or the left, from 1")


class FrameOut(Shape):
    line: int
    round: list[int]
    names: dict[str, str] = Field(description="card number → what the card is called by now")
    at: PositionOut | None = Field(description="where the card is that the routine is about")
    places: list[PlaceOut]
    numbers: dict[str, int]


class DecisionOut(Shape):
    key: str
    label: str
    line: int
    by: str
    secret: bool
    options: list[int]
    words: list[str] = Field(description="the options in words")
    value: int


class PlayOut(Shape):
    target: str | None
    odd: list[int] = Field(description="cards with another back")
    frames: list[FrameOut]
    decisions: list[DecisionOut]
    failures: list[str]
    stuck_at: int | None
    faults: list[FaultOut]


class RememberedOut(Shape):
    name: str
    learned: int = Field(description="line at which you learn it")
    needed: list[int] = Field(description="lines of yours that need it")


class ShowsOut(Shape):
    line: int = Field(description="0 for the set-up")
    what: str


class SaidOut(Shape):
    words: str
    true: bool
    line: int | None = Field(description="line of the patter that says it")


class Notes(Shape):
    badges: list[str]
    remembered: list[RememberedOut]
    shows: list[ShowsOut]
    recap: list[SaidOut]
    asks_odds: bool = Field(description="chance has a part in it, or odds are asked for")


class NotesOut(Shape):
    notes: Notes | None = Field(description="null while the text has faults")


class ChanceOut(Shape):
    about: str
    outcome: str
    least: float
    most: float
    exact: bool
    seen: float | None = Field(description="share of the paths drawn; null where the chances are exact")
    text: str


class Odds(Shape):
    chances: list[ChanceOut]
    samples: int | None = Field(description="null where the chances are exact")
    says: str = Field(description="how sure the numbers are")
    assumes: str | None


class OddsOut(Shape):
    odds: Odds | None = Field(description="null while the text has faults")


class AnalysisIn(Shape):
    text: Text
    job: str = Field(max_length=64)


class BeginningOut(Shape):
    line: int = Field(description="0 for the set-up")
    last: int
    turn: int | None
    where: list[PositionOut]


class EdgeOut(Shape):
    from_: PositionOut = Field(alias="from")
    to: PositionOut | None = Field(description="null where these paths cannot go on")
    paths: int
    can_succeed: bool
    can_fail: bool


class ColumnOut(Shape):
    line: int
    last: int = Field(description="last line of the block that `line` opens")
    turn: int | None = Field(description="which time round, for a repetition")
    edges: list[EdgeOut]


class Strands(Shape):
    card: str
    beginning: BeginningOut
    columns: list[ColumnOut]


class StrandsOut(Shape):
    strands: Strands | None


class JobOut(Shape):
    progress: str


class Done(Shape):
    done: bool


ErrorOut.model_rebuild()
