#!/usr/bin/env bash
# Every check, one after another; all are run, and the last line says how it went.
set -u
cd "$(dirname "$0")/.."
failed=()
step() {
  local name=$1; shift
  echo "── $name"
  "$@" || failed+=("$name")
}
must() {
  "$@" || { echo "MILKWORT: FAILED while installing"; exit 1; }
}
must bash tools/chromium.sh
must make -s install-dev web/node_modules/.ready
step "web build" make -s web
step "ruff" .venv/bin/ruff check -q .
step "ruff format" .venv/bin/ruff format -q --check .
step "mypy" .venv/bin/mypy
step "import-linter" .venv/bin/lint-imports --no-cache
step "tsc" npm --prefix web run -s check
step "eslint and prettier" npm --prefix web run -s lint
step "vitest" npm --prefix web run -s test
step "pytest" .venv/bin/python -m pytest -n 2
if [ ${#failed[@]} -gt 0 ]; then
  echo "MILKWORT: FAILED in ${failed[*]}"
  exit 1
fi
echo "MILKWORT: all checks passed"
