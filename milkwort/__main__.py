"""``python -m milkwort``."""

from milkwort.cli import app

if __name__ == "__main__":
    app()
