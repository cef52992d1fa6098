#!/usr/bin/env bash
# Make sure that Debian's Chromium without a screen is there for the browser tests.
set -eu
[ -x /usr/bin/chromium-headless-shell ] || [ -x /usr/bin/chromium ] && exit 0
. "$(dirname "$0")/apt.sh"
# the one without windows is smaller and starts sooner; where there is none, the whole one will do
first_of "the browser tests need chromium-headless-shell or chromium in /usr/bin." Chromium \
  chromium-headless-shell chromium
