"""Recordings that are measured already, for tests of what comes after that."""

from datetime import UTC, datetime

from tidy_trunk.store import RecordingRecord, RecordingState
from tidy_trunk.tasks.requests import request_document


def measured(services, job, recording, name, request, result):
    """A finished recording in the list of a job; the same where it is there already."""
    store = services.recordings._store
    values = {"size": 0, "state": RecordingState.WAITING, "progress": 0.0, "message": "", "result": None}
    asked = request_document(request)
    store.add(RecordingRecord(id=recording, job=job, name=name, asked=asked, created=datetime.now(UTC), **values))
    store.finish(recording, RecordingState.DONE, result=result)
    return store.get(job, recording)
