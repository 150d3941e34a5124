"""Running the migrations, without any file of settings."""

from __future__ import annotations

from pathlib import Path

from alembic import command
from alembic.config import Config
from sqlalchemy import Engine

SCRIPTS = Path(__file__).with_name("migrations")


def config_for(engine: Engine) -> Config:
    """Return the settings of the migration tool for a database."""
    config = Config()
    config.set_main_option("script_location", str(SCRIPTS).replace("%", "%%"))
    config.attributes["engine"] = engine
    return config


def upgrade(engine: Engine) -> None:
    """Bring a database to the newest form."""
    command.upgrade(config_for(engine), "head")
