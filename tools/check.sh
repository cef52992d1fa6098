#!/usr/bin/env bash
# Say in one line what is missing.
set -eu
lack() { echo "milkwort: $1" >&2; exit 1; }
command -v python3 >/dev/null || lack "Python 3.11 or later is needed; python3 was not found."
python3 -c 'import sys; sys.exit(sys.version_info < (3, 11))' \
  || lack "Python 3.11 or later is needed; $(python3 --version 2>&1) was found."
python3 -c 'import venv, ensurepip' 2>/dev/null \
  || lack "Python's venv is needed; on Debian: apt-get install python3-venv."
command -v npm >/dev/null || lack "Node 20 or later with npm is needed; npm was not found."
[ "$(node -p 'process.versions.node.split(".")[0]')" -ge 20 ] \
  || lack "Node 20 or later is needed; $(node --version) was found."
