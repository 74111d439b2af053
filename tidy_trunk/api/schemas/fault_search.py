"""What is asked when something is wrong."""

from typing import Annotated

from pydantic import Field

from tidy_trunk.api.schemas.jobs import In
from tidy_trunk.core.advice.fault_search import SearchAnswer, Symptom


class AnswerIn(In):
    """What came of a test; null where nobody could tell."""

    test: Annotated[str, Field(max_length=200)]
    yes: bool | None

    def to_core(self) -> SearchAnswer:
        return SearchAnswer(test=self.test, yes=self.yes)


class SearchIn(In):
    """A symptom, chosen or in words, on a track ("" for the last one), and the answers so far, in their order."""

    symptom: Symptom | None = None
    text: Annotated[str, Field(max_length=200, examples=["hum on the camera alone"])] = ""
    track: Annotated[str, Field(max_length=120)] = ""
    answers: Annotated[tuple[AnswerIn, ...], Field(max_length=100)] = ()
