"""The HTTP interface under /api, and the built front end beside it."""

from tidy_trunk.api.app import create_app

__all__ = ["create_app"]
