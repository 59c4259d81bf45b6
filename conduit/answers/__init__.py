"""What is asked of a run document without keeping it, and the answers: plan, ways, marks, field note, bench.

Knows every room that answers such a question, and what each refuses.
Gives: QUESTIONS by name, `Unanswerable`, what they take, and `answer_text` for whoever asks with text.
Never imports what keeps runs: the same question has the same answer on a server and in a browser without one.
"""

from conduit.answers.as_text import answer_text
from conduit.answers.bench import BenchIn, BenchTold
from conduit.answers.cuts import CutListIn
from conduit.answers.questions import (
    BENCH,
    CLOSING,
    COMPARED,
    CUTS,
    MARKS,
    NOTE_READ,
    NOTE_WRITTEN,
    PLAN,
    QUESTIONS,
    RACK,
    RACK_WAYS,
    REMEDIES,
    WAYS,
    Rules,
    Unanswerable,
)
from conduit.answers.schema import (
    ClosingIn,
    CompareIn,
    Draft,
    MarksIn,
    NoteFault,
    NoteIn,
    NoteOut,
    PreviewIn,
    WaysIn,
)

__all__ = [
    "BENCH",
    "CLOSING",
    "COMPARED",
    "CUTS",
    "MARKS",
    "NOTE_READ",
    "NOTE_WRITTEN",
    "PLAN",
    "QUESTIONS",
    "RACK",
    "RACK_WAYS",
    "REMEDIES",
    "WAYS",
    "BenchIn",
    "BenchTold",
    "ClosingIn",
    "CompareIn",
    "CutListIn",
    "Draft",
    "MarksIn",
    "NoteFault",
    "NoteIn",
    "NoteOut",
    "PreviewIn",
    "Rules",
    "Unanswerable",
    "WaysIn",
    "answer_text",
]
