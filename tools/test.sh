#!/usr/bin/env bash
# Every check, what can be side by side; all are run, and the last line says how it went.
set -u
cd "$(dirname "$0")/.."
# what is printed may be kept in a file
export NO_COLOR=1
# programs that tests start begin in half the time where bytecode is kept
unset PYTHONDONTWRITEBYTECODE
export PYTHONPYCACHEPREFIX="$PWD/.venv/bytecode"
failed=()
step() {
  local name=$1; shift
  echo "── $name"
  "$@" || failed+=("$name")
}
must() {
  "$@" || { echo "MILKWORT: FAILED while installing"; exit 1; }
}
web_checks() {
  failed=()
  step "tsc" npm --prefix web run -s check
  step "eslint, dependency-cruiser and prettier" npm --prefix web run -s lint
  step "vitest" npm --prefix web run -s test
  echo "${failed[*]}" > "$1"
}
# three sources, one beside the other
bash tools/chromium.sh & chromium=$!
must make -s -j2 install-dev web/node_modules/.ready
must wait "$chromium"
said=$(mktemp) && told=$(mktemp)
web_checks "$told" > "$said" 2>&1 &
step "web build" make -s web
step "ruff" .venv/bin/ruff check -q .
step "ruff format" .venv/bin/ruff format -q --check .
step "mypy" .venv/bin/mypy
step "import-linter" .venv/bin/lint-imports --no-cache
wait
cat "$said"
[ -s "$told" ] && [ -n "$(tr -d '[:space:]' < "$told")" ] && failed+=("$(cat "$told")")
[ -s "$told" ] || failed+=("the web client's checks")
rm -f "$said" "$told"
step "pytest" .venv/bin/python -m pytest -n 2 --dist worksteal --durations 10 --durations-min 1
if [ ${#failed[@]} -gt 0 ]; then
  echo "MILKWORT: FAILED in ${failed[*]}"
  exit 1
fi
echo "MILKWORT: all checks passed"
