#!/usr/bin/env bash
# Ask both registries for known faults of what is installed; what can't be asked is said as such.
set -u
cd "$(dirname "$0")/.."
faults=0
unasked=0
if [ ! -x .venv/audit/bin/pip-audit ]; then
  python3 -m venv .venv/audit && .venv/audit/bin/python -m pip install -q --disable-pip-version-check pip-audit ||
    rm -rf .venv/audit
fi
echo "── Python packages"
if [ -x .venv/audit/bin/pip-audit ]; then
  said=$(timeout 180 .venv/audit/bin/pip-audit --disable-pip --require-hashes -r requirements.lock 2>&1)
  rc=$?
  echo "$said" | tail -30
  grep -q "could not be audited" <<<"$said" && unasked=1
  if [ $rc -ne 0 ] && ! grep -q "Found .* known vulnerabilit" <<<"$said"; then unasked=1
  elif [ $rc -ne 0 ]; then faults=1; fi
else
  unasked=1
fi
echo "── web packages"
said=$(cd web && timeout 180 npm audit --omit=dev 2>&1)
rc=$?
echo "$said" | tail -30
if [ $rc -ne 0 ] && ! grep -qE "[0-9]+ .*vulnerabilit" <<<"$said"; then unasked=1
elif [ $rc -ne 0 ]; then faults=1; fi
[ $unasked -ne 0 ] && echo "MILKWORT: not audited: a registry has no answer for audits here"
[ $faults -ne 0 ] && echo "MILKWORT: known faults; see above"
[ $unasked -eq 0 ] && [ $faults -eq 0 ] && echo "MILKWORT: no known faults"
exit $((faults))
