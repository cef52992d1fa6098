"""The server's face: REST under /api, the event stream, and the web client's files."""
