#!/usr/bin/env bash
# Make sure that LibreOffice Calc is there: the long tests open every book with it.
set -eu
command -v soffice >/dev/null && exit 0
if ! command -v apt-get >/dev/null; then
  echo "milkwort: the long tests need LibreOffice Calc (soffice)." >&2
  exit 1
fi
echo "Installing LibreOffice Calc …"
sudo=""
[ "$(id -u)" -eq 0 ] || sudo="sudo"
export DEBIAN_FRONTEND=noninteractive
$sudo apt-get update -qq
$sudo apt-get install -y -qq --no-install-recommends libreoffice-calc >/dev/null
