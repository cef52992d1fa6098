#!/usr/bin/env bash
# The server with reload beside Vite, which passes /api on to it.
set -eu
data=$1 port=$2
trap 'kill 0' EXIT
MILKWORT_PORT=$port .venv/bin/watchfiles --filter python \
  ".venv/bin/milkwort demo --data $data --port $port" milkwort &
cd web && MILKWORT_PORT=$port npx vite --host 127.0.0.1
