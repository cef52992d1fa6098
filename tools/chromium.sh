#!/usr/bin/env bash
# Make sure that Debian's Chromium without a screen is there for the browser tests.
set -eu
[ -x /usr/bin/chromium-headless-shell ] || [ -x /usr/bin/chromium ] && exit 0
if ! command -v apt-get >/dev/null; then
  echo "milkwort: the browser tests need chromium-headless-shell or chromium in /usr/bin." >&2
  exit 1
fi
echo "Installing Chromium …"
sudo=""
[ "$(id -u)" -eq 0 ] || sudo="sudo"
export DEBIAN_FRONTEND=noninteractive
$sudo apt-get update -qq
# the one without windows is smaller and starts sooner; where there is none, the whole one will do
for package in chromium-headless-shell chromium; do
  $sudo apt-get install -y -qq --no-install-recommends "$package" >/dev/null && exit 0
done
exit 1
