"""Marks that somebody laid: the pipe they make, whether they are right, and which known mistake they look like.

Knows the plan's marks, the card's, and the mistakes of the trade.
Gives: judge_marks and its schema.
Never imports the bench or cutting.
"""

from conduit.mark_check.answer import GivenMark, MarksJudged, UnreadableMark, judge_marks
from conduit.mark_check.mistakes import MarksDoNotMatch

__all__ = [
    "GivenMark",
    "MarksDoNotMatch",
    "MarksJudged",
    "UnreadableMark",
    "judge_marks",
]
