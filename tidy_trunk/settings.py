"""Settings from the environment, each documented here."""

from pathlib import Path
from typing import Final

from pydantic import Field
from pydantic_settings import BaseSettings, SettingsConfigDict

AT_ONCE: Final = 2
"""ASSUMED_ recordings that one process has read at once; the others wait."""


class EnvironmentSettings(BaseSettings):
    """`TIDY_TRUNK_…` in the environment."""

    model_config = SettingsConfigDict(env_prefix="TIDY_TRUNK_", env_ignore_empty=True)

    home: Path = Field(default=Path(".tidy"), description="Data folder: the private PostgreSQL and its files")
    database_url: str | None = Field(default=None, description="Another PostgreSQL to use instead of the private one")
    media: Path | None = Field(
        default=None, description="Folder of recordings that all machines share; in the data folder unless it is given"
    )
    at_once: int = Field(
        default=AT_ONCE, ge=0, le=64, description="Recordings that this machine reads at once; 0: none"
    )
    web: Path = Field(default=Path("web/dist"), description="The built front end")

    @property
    def recordings(self) -> Path:
        """Where the files of recordings lie, apart from the demo's."""
        return self.media or self.home / "recordings"
