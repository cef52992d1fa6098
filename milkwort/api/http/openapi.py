"""Print the API's description: ``python -m milkwort.api.http.openapi``."""

from __future__ import annotations

import json
import tempfile
from pathlib import Path

from milkwort.api.http.app import make_app
from milkwort.settings import Settings

__all__ = ["openapi_text"]


def openapi_text() -> str:
    """Return the OpenAPI document as JSON with sorted keys."""
    with tempfile.TemporaryDirectory() as folder:
        app = make_app(Settings(data=Path(folder)))
        text = json.dumps(app.openapi(), indent=1, sort_keys=True, ensure_ascii=False)
        app.state.workspace.close()
    return text + "\n"


if __name__ == "__main__":
    print(openapi_text(), end="")
