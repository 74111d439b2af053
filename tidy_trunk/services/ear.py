"""Ear training: pairs of sounds, answered until the difference is found that is just heard."""

from collections.abc import Callable
from dataclasses import replace
from datetime import UTC, datetime
from uuid import UUID

from tidy_trunk.core.drill import EarState, EarTask, ear_sound, has_more, staircase
from tidy_trunk.errors import InputError, NotFoundError
from tidy_trunk.media.simulated import loop_file
from tidy_trunk.results.ear import EarOut, EarTaskOut, ThresholdOut
from tidy_trunk.store import EarRecord, EarStore
from tidy_trunk.words.drill import EAR_TASKS


class EarService:
    """One method for one thing that a user does to train the ear."""

    def __init__(self, store: EarStore, now: Callable[[], datetime] = lambda: datetime.now(UTC)) -> None:
        self._store = store
        self.now = now

    def tasks(self) -> list[EarTaskOut]:
        """What can be listened for, each with the thresholds that were found on this machine, the oldest first."""
        records = [record for record in self._store.all() if record.threshold_db is not None]
        return [
            EarTaskOut(
                task=task,
                label=label,
                question=question,
                found=[
                    ThresholdOut(
                        who=record.who,
                        begun=record.begun.isoformat(),
                        threshold_db=round(record.threshold_db or 0.0, 1),
                    )
                    for record in records
                    if record.task is task
                ],
            )
            for task, (label, question) in EAR_TASKS.items()
        ]

    def begin(self, session_id: UUID, task: EarTask, who: str = "") -> EarOut:
        """A session; begun again under the same id it is the same."""
        seed = session_id.int % 1_000_000
        return self._out(self._store.begin(EarRecord(id=session_id, task=task, seed=seed, who=who, begun=self.now())))

    def read(self, session_id: UUID) -> EarOut:
        """Raises NotFoundError."""
        return self._out(self._store.get(session_id))

    def sound(self, session_id: UUID, trial: int, which: int) -> bytes:
        """One sound of the pair that is to be answered, or was answered, as a WAV. Raises NotFoundError: there is none yet."""
        record = self._store.get(session_id)
        if not 0 <= trial <= len(record.answers):
            raise NotFoundError("that pair has not come yet")
        state = _state(replace(record, answers=record.answers[:trial]))
        return loop_file(ear_sound(record.task, record.seed, trial, which, state.difference_db))

    def answer(self, session_id: UUID, which: int, number: int) -> EarOut:
        """Which of the two has more, for the pair of that number, from 0; sent again it counts once.

        Raises NotFoundError; InputError: it is over, or another window has gone on.
        """

        def answered(record: EarRecord) -> EarRecord:
            if record.answers[number : number + 1] == (which,):
                return record
            if _state(record).is_over:
                raise InputError("this session is over: begin another one")
            if number != len(record.answers):
                raise InputError("another window has gone on with this session: look again")
            gone = replace(record, answers=(*record.answers, which))
            return replace(gone, threshold_db=_state(gone).threshold_db)

        return self._out(self._store.change(session_id, answered))

    def _out(self, record: EarRecord) -> EarOut:
        state = _state(record)
        label, question = EAR_TASKS[record.task]
        last = len(record.answers) - 1
        return EarOut(
            id=str(record.id),
            task=record.task,
            label=label,
            question=question,
            trial=len(record.answers),
            turns=len(state.turns),
            was_right=None if last < 0 else record.answers[last] == has_more(record.seed, last),
            difference_db=state.difference_db,
            threshold_db=None if state.threshold_db is None else round(state.threshold_db, 1),
        )


def _state(record: EarRecord) -> EarState:
    return staircase([which == has_more(record.seed, trial) for trial, which in enumerate(record.answers)])
