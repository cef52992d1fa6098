"""What the routers have in common."""

from __future__ import annotations

from typing import Annotated, Any

import orjson
from fastapi import Depends, Header, Request, Response

from milkwort.api.plan.workspace import Workspace

__all__ = ["Job", "Window", "Work", "download_of", "sent"]


def _workspace(request: Request) -> Workspace:
    workspace: Workspace = request.app.state.workspace
    return workspace


Work = Annotated[Workspace, Depends(_workspace)]
Job = Annotated[str, Header(alias="X-Milkwort-Job", max_length=64)]
"""Name a window gave to long work, to be told of it and to stop it by."""
Window = Annotated[str, Header(alias="X-Milkwort-Window", max_length=64)]


def download_of(*types: str) -> dict[int | str, dict[str, Any]]:
    """Return the documented answer of a route that sends a file."""
    binary = {"schema": {"type": "string", "format": "binary"}}
    return {200: {"content": dict.fromkeys(types, binary), "description": "The file."}}


def attached(content: bytes, media_type: str, filename: str) -> Response:
    """Return bytes as a file to be saved; what is not plain in its name becomes a dash."""
    name = "".join(c if c.isascii() and (c.isalnum() or c in "-_.") else "-" for c in filename)
    headers = {"Content-Disposition": f'attachment; filename="{name}"'}
    return Response(content, media_type=media_type, headers=headers)


def sent(content: Any) -> Response:
    """Return content as JSON without another pass over its columns; NaN becomes null."""
    body = orjson.dumps(content, option=orjson.OPT_SERIALIZE_NUMPY)
    return Response(body, media_type="application/json")
