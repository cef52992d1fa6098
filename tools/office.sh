#!/usr/bin/env bash
# Make sure that LibreOffice Calc is there: the long tests open every book with it.
set -eu
command -v soffice >/dev/null && exit 0
. "$(dirname "$0")/apt.sh"
first_of "the long tests need LibreOffice Calc (soffice)." "LibreOffice Calc" libreoffice-calc
