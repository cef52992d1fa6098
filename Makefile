# The verbs of the project; `make` alone lists them.
SHELL := /bin/bash
PY := .venv/bin/python
PORT ?= 8710
DATA ?= .data

HOSTILE := tests/api/test_any_request.py tests/api/test_hostile.py tests/api/test_living.py \
	tests/api/test_turns.py tests/api/test_hard_rows.py tests/api/test_plan_files.py \
	tests/api/test_practice.py tests/api/test_office.py tests/standins tests/store tests/formats tests/test_start.py

LOCK := -q --universal --generate-hashes --python-version 3.11 --no-emit-index-url

.DEFAULT_GOAL := help
.PHONY: help demo test dev bench truth hostile crowd kills audit lint format shots lock types web install install-dev clean check-tools

help: ## list the verbs
	@grep -hE '^[a-z-]+:.*## ' Makefile | sed -E 's/^([a-z-]+):.*## /  make \1\t/' | expand -t 18

demo: install web ## serve the program with the sample plan (FRESH=1 starts the sample anew)
	@.venv/bin/milkwort demo --data "$(DATA)" --port $(PORT) $(if $(FRESH),--fresh,)

test: ## install what is missing, then every check and test (DEEP=1 tries many more cases)
	@DEEP=$(DEEP) bash tools/test.sh

hostile: install-dev web/node_modules/.ready ## thousands of odd requests, files and kills; half an hour or so
	@bash tools/office.sh
	DEEP=1 $(PY) -m pytest -n 2 --dist worksteal $(HOSTILE)

crowd: install-dev web ## eight windows at once for ten minutes (MINUTES=2: two)
	$(PY) -m tools.crowd $(or $(MINUTES),10)

kills: install-dev ## a server killed outright 300 times while a plan is changed, sent and lived in (N=50: fifty)
	$(PY) -m tools.kills $(or $(N),300)

audit: install-dev web/node_modules/.ready ## ask for known faults of what is installed (needs the registries' answers)
	@bash tools/audit.sh

lint: install-dev web/node_modules/.ready ## ruff, mypy, import-linter, tsc, eslint, prettier
	.venv/bin/ruff check . && .venv/bin/ruff format --check . && .venv/bin/mypy
	.venv/bin/lint-imports --no-cache
	cd web && npm run -s check && npm run -s lint

format: install-dev web/node_modules/.ready ## put the code in its usual shape
	.venv/bin/ruff check --fix -q . ; .venv/bin/ruff format -q .
	cd web && npx prettier --write --log-level warn src

dev: install-dev web/node_modules/.ready ## serve with reload on both sides (open the address Vite prints)
	@bash tools/dev.sh "$(DATA)" $(PORT)

truth: install-dev ## hold forecasts and advice against hidden truths, <= 25 minutes (FEW=1: one)
	$(PY) -m tools.truth $(if $(FEW),--few,) $(if $(OUT),--out "$(OUT)",)

bench: install-dev ## print every speed and size as figures
	$(PY) -m bench

shots: install-dev web ## make docs/screenshots anew from the sample
	@bash tools/chromium.sh
	$(PY) -m tools.shots

lock: .venv/bin/uv ## write the hash-checked locks anew
	@.venv/bin/uv pip compile $(LOCK) --extra build pyproject.toml -o requirements.lock
	@.venv/bin/uv pip compile $(LOCK) --extra build --extra dev pyproject.toml -o requirements-dev.lock

types: install-dev web/node_modules/.ready ## the client's types from the API's description
	@$(PY) -m milkwort.api.http.openapi > web/openapi.json
	cd web && npm run -s types && rm -f openapi.json
	@$(PY) -m milkwort.api.plan.shown > web/src/data/columns.generated.ts

web: milkwort/static/index.html ## build the web client

install: .venv/.ready

install-dev: .venv/.ready-dev

clean: ## remove what was built
	rm -rf .venv web/node_modules milkwort/static build *.egg-info

check-tools:
	@bash tools/check.sh

.venv/bin/uv: | check-tools
	@python3 -m venv .venv
	@.venv/bin/python -m pip install -q --disable-pip-version-check "uv>=0.5,<1"

.venv/.ready: requirements.lock pyproject.toml | .venv/bin/uv
	@echo "Installing Python packages …"
	@.venv/bin/uv pip install -q --python $(PY) --require-hashes -r requirements.lock
	@.venv/bin/uv pip install -q --python $(PY) --no-deps --no-build-isolation -e .
	@touch $@

.venv/.ready-dev: requirements-dev.lock .venv/.ready
	@.venv/bin/uv pip install -q --python $(PY) --require-hashes -r requirements-dev.lock
	@touch $@

web/node_modules/.ready: web/package-lock.json web/package.json | check-tools
	@echo "Installing web packages …"
	@cd web && npm ci --silent --no-audit --no-fund
	@touch $@

milkwort/static/index.html: web/node_modules/.ready web/index.html web/vite.config.ts $(shell find web/src web/public -type f 2>/dev/null)
	@echo "Building the web client …"
	@cd web && npm run -s build -- --logLevel warn
	@touch $@
