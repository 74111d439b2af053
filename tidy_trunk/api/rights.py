"""What the holder of a key may do: one table for all operations. Whoever is on this machine itself may do everything."""

from collections.abc import Mapping
from typing import Final

from fastapi import Request
from fastapi.routing import APIRoute

from tidy_trunk.errors import NotAllowedError
from tidy_trunk.store import Access, GuestKeyRecord

READS: Final = frozenset({"GET", "HEAD", "OPTIONS"})
"""Methods that change nothing. [RFC9110]"""

KEEPS_NOTHING: Final = frozenset(
    {
        ("POST", "/jobs/{job_id}/plan/preview"),
        ("POST", "/jobs/{job_id}/tracks/{track_id}/ladder"),
        ("POST", "/jobs/{job_id}/gain-plan"),
        ("DELETE", "/jobs/{job_id}/gain-plan/{task_id}"),
        ("POST", "/jobs/{job_id}/joined"),
        ("POST", "/jobs/{job_id}/say"),
        ("POST", "/jobs/{job_id}/runs/{run_id}/compare"),
        ("POST", "/jobs/{job_id}/classes/try"),
        ("POST", "/jobs/{job_id}/day/sheet"),
        ("POST", "/trunk/preview"),
        ("POST", "/trunk/table/preview"),
        ("POST", "/trunk/pieces/{piece_id}/stand-in"),
        ("POST", "/jobs/{job_id}/trunk"),
        ("POST", "/jobs/{job_id}/fault-search"),
        ("POST", "/equipment/preview"),
        ("POST", "/equipment/datasheet"),
        ("POST", "/two-things"),
        ("POST", "/pads"),
        ("POST", "/leads/judge"),
    }
)
"""Operations that only work something out, by the patterns of their addresses below /api. ASSUMED_"""

OF_A_WALK: Final = frozenset(
    {
        ("POST", "/drills"),
        ("POST", "/ear"),
        ("POST", "/ear/{session_id}/answer"),
        ("POST", "/drills/{drill_id}/probes"),
        ("POST", "/drills/{drill_id}/answer"),
        ("POST", "/jobs/{job_id}/log"),
        ("POST", "/jobs/{job_id}/log/timecode"),
        ("POST", "/jobs/{job_id}/log/photos"),
        ("DELETE", "/jobs/{job_id}/log/photos/{photo_id}"),
        ("POST", "/jobs/{job_id}/walks"),
        ("PUT", "/jobs/{job_id}/trunk/ticks"),
        ("PUT", "/jobs/{job_id}/walks/{walk_id}/marks"),
    }
)
"""Operations of whoever goes along the chain, logs, or practises. ASSUMED_"""

OF_THE_OWNER: Final = ("/guests", "/copies", "/everything", "/jobs/{job_id}/files")
"""Beginnings of the addresses that are nobody's but the owner's: keys, all data at once, folders of this machine. ASSUMED_"""

ENTRANCE: Final = "/enter"
"""Where a telephone becomes somebody: open to all. ASSUMED_"""

STEPS: Final[Mapping[Access, int]] = {Access.LOOK: 0, Access.WALK: 1, Access.CREW: 2}
"""Each may do what those before it may. ASSUMED_"""

WHAT: Final[Mapping[Access, str]] = {
    Access.LOOK: "this key lets you look, and change nothing",
    Access.WALK: "this key lets you walk and log, and change nothing else",
    Access.CREW: "this is for whoever sits at the machine itself",
}
"""Said to whoever may not. ASSUMED_"""


def needed(method: str, path: str) -> Access | None:
    """The least access that an operation takes; None where no key is enough. `path`: the pattern of its address."""
    if path == ENTRANCE:
        return Access.LOOK
    if path.startswith(OF_THE_OWNER):
        return None
    if method in READS or (method, path) in KEEPS_NOTHING:
        return Access.LOOK
    return Access.WALK if (method, path) in OF_A_WALK else Access.CREW


def may(access: Access, method: str, path: str) -> bool:
    """Whether a access is enough for an operation."""
    least = needed(method, path)
    return least is not None and STEPS[access] >= STEPS[least]


def check_rights(request: Request) -> None:
    """Before any operation. Raises NotAllowedError: the key of this guest is not enough."""
    guest: GuestKeyRecord | None = request.scope.get("guest")
    route = request.scope.get("route")
    if guest is not None and isinstance(route, APIRoute) and not may(guest.access, request.method, route.path):
        raise NotAllowedError(WHAT[guest.access])
