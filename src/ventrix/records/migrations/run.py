"""Runs the migrations that ship in this package, without an ini file."""

from __future__ import annotations

from pathlib import Path

from alembic import command
from alembic.config import Config
from sqlalchemy import Engine


def configuration() -> Config:
    """Alembic's configuration for the scripts beside this file."""
    config = Config()
    config.set_main_option("script_location", str(Path(__file__).parent))
    config.set_main_option("path_separator", "os")
    return config


def upgrade(engine: Engine, target: str = "head") -> None:
    """Bring a database to `target`, each step in one transaction with its version number."""
    config = configuration()
    config.attributes["engine"] = engine
    command.upgrade(config, target)
