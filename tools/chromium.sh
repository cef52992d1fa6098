#!/usr/bin/env bash
# Make sure that Debian's Chromium is there for the browser tests.
set -eu
[ -x /usr/bin/chromium ] && exit 0
if ! command -v apt-get >/dev/null; then
  echo "milkwort: the browser tests need Chromium at /usr/bin/chromium." >&2
  exit 1
fi
echo "Installing Chromium …"
sudo=""
[ "$(id -u)" -eq 0 ] || sudo="sudo"
export DEBIAN_FRONTEND=noninteractive
$sudo apt-get update -qq && $sudo apt-get install -y -qq chromium >/dev/null
