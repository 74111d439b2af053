"""Requests drawn from the API's own description, with ids of things that are there, held against what it promises."""

from collections.abc import Callable
from contextlib import suppress
from typing import Any
from uuid import UUID

import numpy as np
import requests
import schemathesis
from hypothesis import HealthCheck, Phase, given, seed, settings
from hypothesis import strategies as st
from hypothesis.errors import Unsatisfiable
from schemathesis.checks import not_a_server_error
from schemathesis.generation import GenerationMode
from schemathesis.specs.openapi.checks import response_schema_conformance, status_code_conformance

from tests.measured import measured
from tests.plans import line_into_camera
from tests.sounds import RATE, wav
from tests.waiting import wait
from tidy_trunk.errors import InputError, NotFoundError
from tidy_trunk.services.container import Services
from tidy_trunk.tasks.requests import Measure

JOB, WALK, RECORDING = (UUID(int=number, version=4) for number in range(1, 4))
NEVER_ENDS = "/api/jobs/{job_id}/news"
REAL: dict[str, list[Any]] = {
    "job_id": [str(JOB)],
    "walk_id": [str(WALK)],
    "recording_id": [str(RECORDING)],
    "file_id": [],  # those that are there now
    "device_id": ["cam", "bag", "boom"],
    "run_id": ["run-1", "run-2"],
    "track_id": ["cam.L", "cam.R", "bag.1"],
    "number": [1, 0],
    "device": ["cam"],
    "line": [0],
    "kind": ["otio", "edl", "csv"],
}


@schemathesis.serializer("audio/wav")
def sound(context: Any, value: Any) -> Any:
    """A sound is sent as it is."""
    return value if isinstance(value, bytes) else str(value).encode()


def there(services: Services) -> None:
    """The job with a walk and a recording, whatever an earlier request did to them."""
    try:
        services.jobs.plan(JOB)
    except NotFoundError:
        services.jobs.create(line_into_camera(), job_id=JOB)
    with suppress(InputError):  # an edit may have left nothing to walk along
        services.walks.begin(JOB, WALK)
    measured(services, JOB, RECORDING, "take", Measure(track="cam.L"), None)


def laid(services: Services, address: str) -> None:
    """Two files over each other, as a user lays them."""
    there(services)
    if services.jobs.plan(JOB) != line_into_camera():
        services.jobs.bring_back(JOB, services.jobs.newest(JOB).revision.number, 1)
    if services.sync.view(JOB).layout is not None and len(services.sync.view(JOB).files) == 2:
        return
    take = np.random.default_rng(5).normal(0, 0.1, 4 * RATE) * np.repeat([1, 0.01, 0.7, 0.1], RATE)
    for file in services.sync.view(JOB).records:
        services.sync.remove(JOB, file.id)
    for side, sound in (("recorder", take), ("camera", take[RATE // 2 :])):
        asked = {"side": side, "name": f"{side}.wav"}
        requests.post(f"{address}/api/jobs/{JOB}/sync/files", params=asked, data=wav(sound), timeout=60)
    wait(lambda: len(services.sync.view(JOB).files) == 2)
    REAL["file_id"] = [file.id for file in services.sync.view(JOB).files]
    services.sync.match(JOB)
    wait(lambda: not services.sync.view(JOB).is_under_way)


def operations(services: Services, address: str) -> list[Any]:
    """All that the description names, first what only reads: it finds what it names as it was laid."""
    laid(services, address)
    schema = schemathesis.openapi.from_url(f"{address}/api/openapi.json")
    found = [result.ok() for result in schema.get_all_operations()]
    found = [operation for operation in found if operation.full_path != NEVER_ENDS]
    return sorted(found, key=changes)


def changes(operation: Any) -> bool:
    return bool(operation.method.upper() != "GET")


def check(operation: Any, services: Services, address: str, count: int, turn: int = 0) -> None:
    """Draw so many requests, right and wrong ones, of which most name what is there, and hold each answer against the promise."""
    if changes(operation):
        laid(services, address)
    for mode in (GenerationMode.POSITIVE, GenerationMode.NEGATIVE):
        with suppress(Unsatisfiable):  # without a parameter nothing can be wrong
            _checked(operation, mode, services, address, count, turn)()


def _checked(
    operation: Any, mode: GenerationMode, services: Services, address: str, count: int, turn: int
) -> Callable[[], None]:
    @seed(turn)
    @settings(
        max_examples=count,
        deadline=None,
        database=None,
        suppress_health_check=list(HealthCheck),
        phases=[Phase.generate],
    )
    @given(case=operation.as_strategy(generation_mode=mode), real=st.integers(0, 3), pick=st.integers(0, 5))
    def call(case: Any, real: int, pick: int) -> None:
        if changes(operation):
            there(services)
        if real:
            named = case.path_parameters or {}
            case.path_parameters = {
                name: REAL[name][pick % len(REAL[name])] if name in REAL else value for name, value in named.items()
            }
            if isinstance(case.body, dict) and "base_revision" in case.body:
                case.body["base_revision"] = services.jobs._store.head(JOB)
        response = case.call(base_url=address, timeout=60)
        case.validate_response(
            response, checks=[not_a_server_error, status_code_conformance, response_schema_conformance]
        )

    return call
