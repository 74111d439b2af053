"""Settings from the environment, each documented here."""

from pathlib import Path

from pydantic import Field
from pydantic_settings import BaseSettings, SettingsConfigDict


class Settings(BaseSettings):
    """`TIDY_TRUNK_…` in the environment."""

    model_config = SettingsConfigDict(env_prefix="TIDY_TRUNK_", env_ignore_empty=True)

    home: Path = Field(default=Path(".tidy"), description="Data folder: the private PostgreSQL and its files")
    database_url: str | None = Field(default=None, description="Another PostgreSQL to use instead of the private one")
    web: Path = Field(default=Path("web/dist"), description="The built front end")
