"""The one table of settings; each may be given as MILKWORT_<NAME> in the environment."""

from __future__ import annotations

from pathlib import Path

from platformdirs import user_data_path
from pydantic import Field
from pydantic_settings import BaseSettings, SettingsConfigDict

__all__ = ["Settings"]


class Settings(BaseSettings):
    """What a person may set about a running Milkwort."""

    model_config = SettingsConfigDict(env_prefix="MILKWORT_")

    data: Path = Field(
        default_factory=lambda: user_data_path("milkwort"),
        description="Folder of the database (path).",
    )
    host: str = Field(default="127.0.0.1", description="Address to listen on.")
    port: int = Field(
        default=8710, ge=1, le=65535, description="First port tried (TCP port number)."
    )
    hosts: list[str] = Field(
        default=["127.0.0.1", "localhost", "[::1]"],
        description="Host names a request may name (list; as JSON in the environment).",
    )
    market: str = Field(
        default="",
        description="Address of a practice market elsewhere (URL; empty for the program’s own).",
    )
    history: int = Field(
        default=6, ge=0, le=12,
        description="Months of made-up results that the sample plans begin with (count).",
    )  # fmt: skip
    draws: int = Field(
        default=2000, ge=200, le=20_000,
        description="Times a month is drawn to say how sure it is; fewer where slow (count).",
    )  # fmt: skip
    trays: int = Field(
        default=16, ge=1, description="Files read but not yet taken in that are held (count)."
    )

    @property
    def served_hosts(self) -> list[str]:
        """Host names that requests may name, the listening address among them."""
        wildcard = self.host in ("0.0.0.0", "::")
        return self.hosts if wildcard else [*self.hosts, self.host]

    @property
    def database(self) -> Path:
        """The database's file."""
        return self.data / "milkwort.db"
