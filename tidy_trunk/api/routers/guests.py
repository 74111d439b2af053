"""Keys of telephones on the set's own network, for the owner; and who one is, for everybody."""

from datetime import datetime
from typing import Annotated

from fastapi import APIRouter, Query, Request, Response
from pydantic import Field

from tidy_trunk.api.dependencies import Guests, OwnId
from tidy_trunk.api.guard import KEPT_S, cookie_of
from tidy_trunk.api.schemas.jobs import PROBLEMS, In
from tidy_trunk.errors import InputError, NotFoundError
from tidy_trunk.results.numbers import Out
from tidy_trunk.services.guests import LONGEST_KEY, LONGEST_NAME, LocalNetwork, MadeKey
from tidy_trunk.store import Access, GuestKeyRecord

router = APIRouter(tags=["guests"], responses=PROBLEMS)
Page = Annotated[str, Query(max_length=200, pattern="^/[a-z0-9/-]*$", description="Page that is opened first")]


class NetworkOut(Out):
    """How telephones reach this machine: address is null where nobody is let in, fingerprint empty where nothing is encrypted."""

    address: str | None
    fingerprint: str


class GuestOut(Out):
    """A key. seen: when it was last used, null if never; address: from where."""

    id: str
    name: str
    access: Access
    created: datetime
    seen: datetime | None
    address: str


class GuestsOut(Out):
    network: NetworkOut
    keys: list[GuestOut]


class MadeKeyOut(Out):
    """A key in the only moment in which it is known. link: what the telephone opens; code: the same as a square of dots, SVG."""

    guest: GuestOut
    link: str
    code: str


class KeyIn(In):
    """For whose telephone, and what it may do."""

    name: str = Field(min_length=1, max_length=LONGEST_NAME, examples=["Second assistant"])
    access: Access


class NameIn(In):
    name: str = Field(min_length=1, max_length=LONGEST_NAME, examples=["Second assistant"])


class EnterIn(In):
    """What stands behind the # of a link."""

    key: str = Field(max_length=LONGEST_KEY, examples=["Zk3vQd1x.mY7r4wQe0bJtS2uVnXp9aA"])


class MeOut(Out):
    """Who asks. access: null for whoever sits at the machine itself."""

    name: str
    access: Access | None


@router.get("/me")
def read_me(request: Request) -> MeOut:
    """Who asks, and what that one may do."""
    guest: GuestKeyRecord | None = request.scope.get("guest")
    return MeOut(name="", access=None) if guest is None else MeOut(name=guest.name, access=guest.access)


@router.post("/enter", status_code=204)
def enter(request: Request, body: EnterIn, guests: Guests) -> Response:
    """Let a telephone in by the key of its link, which is used once."""
    network, client = _network(request), request.client
    answer = Response(status_code=204)
    answer.set_cookie(
        cookie_of(network),
        guests.enter(body.key, client.host if client is not None else ""),
        max_age=KEPT_S,
        httponly=True,
        samesite="lax",
        secure=network.address.startswith("https:"),
    )
    return answer


@router.get("/guests")
def list_guests(request: Request, guests: Guests) -> GuestsOut:
    """The keys that were made, the newest first."""
    network: LocalNetwork | None = request.app.state.network
    told = NetworkOut(
        address=None if network is None else network.address, fingerprint="" if network is None else network.fingerprint
    )
    return GuestsOut(network=told, keys=[_out(record) for record in guests.all()])


@router.post("/guests", status_code=201)
def make_key(request: Request, own_id: OwnId, body: KeyIn, guests: Guests, page: Page = "/") -> MadeKeyOut:
    """A key for one telephone. It is shown now, and never again."""
    return _made(guests.make(_network(request), own_id, body.name, body.access, page))


@router.post("/guests/{key_id}/renew")
def renew_key(request: Request, key_id: str, guests: Guests, page: Page = "/") -> MadeKeyOut:
    """Another key in the place of one, which opens nothing any more."""
    return _made(guests.renew(_network(request), key_id, page))


@router.put("/guests/{key_id}/name")
def rename_key(key_id: str, body: NameIn, guests: Guests) -> GuestOut:
    """Another name for a key."""
    return _out(guests.rename(key_id, body.name))


@router.delete("/guests/{key_id}", status_code=204)
def revoke_key(key_id: str, guests: Guests) -> None:
    """The key opens nothing any more, from now on."""
    guests.revoke(key_id)


@router.get("/certificate", response_class=Response, responses={200: {"content": {"application/x-x509-ca-cert": {}}}})
def read_certificate(request: Request) -> Response:
    """The authority behind this machine's certificate: a telephone that trusts it asks no more."""
    network: LocalNetwork | None = request.app.state.network
    if network is None or not network.authority:
        raise NotFoundError("nothing is encrypted here: start with --nearby")
    headers = {"Content-Disposition": 'attachment; filename="tidy-trunk.crt"'}
    return Response(network.authority, media_type="application/x-x509-ca-cert", headers=headers)


def _network(request: Request) -> LocalNetwork:
    network: LocalNetwork | None = request.app.state.network
    if network is None:
        raise InputError("nobody is let in from the network: end the program and start it with --nearby")
    return network


def _out(record: GuestKeyRecord) -> GuestOut:
    return GuestOut(
        id=record.id,
        name=record.name,
        access=record.access,
        created=record.created,
        seen=record.seen,
        address=record.address,
    )


def _made(made: MadeKey) -> MadeKeyOut:
    return MadeKeyOut(guest=_out(made.record), link=made.link, code=made.code)
