"""Questions and answers as JSON text: for whoever asks from another language, as a worker of a browser does."""

from collections.abc import Mapping

from pydantic import ValidationError
from pydantic_core import to_json

from conduit.answers.questions import QUESTIONS, Rules, Unanswerable
from conduit.catalogue import message, said_by, speaking, told
from conduit.document import UnreadableDocument, fault_in_words
from conduit.plan import check_run
from conduit.tables import Limits


def answer_text(question: str, given: str, limits: str, language: str) -> tuple[bool, str]:
    """Whether there is an answer, and it as JSON; else what the refusal says: `detail`, and `places` by field.

    `question`: one of QUESTIONS; `given` and `limits`: JSON. Raises KeyError for another question.
    """
    asked = QUESTIONS[question]
    with speaking(language):
        try:
            rules = Rules(Limits.model_validate_json(limits), check_run)
            return True, to_json(asked.answer(asked.given.model_validate_json(given), rules)).decode()
        except UnreadableDocument as error:
            return False, _refusal(message("answers.no_run", error=said_by(error)), {})
        except Unanswerable as error:
            return False, _refusal(said_by(error), error.places)
        except ValidationError as error:
            places = {".".join(map(str, one["loc"])): fault_in_words(one) for one in error.errors()}
            return False, _refusal(message("answers.unreadable"), places)


def _refusal(says: str, places: Mapping[str, str]) -> str:
    return to_json({"detail": told(says), "places": {place: told(one) for place, one in places.items()}}).decode()
