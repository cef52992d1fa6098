# Sourced: put Debian packages in, the first of some that can be had.
#   first_of "what needs them" "what they are" package …
first_of() {
  local needs=$1 called=$2 sudo=""
  shift 2
  if ! command -v apt-get >/dev/null; then
    echo "milkwort: $needs" >&2
    return 1
  fi
  echo "Installing $called …"
  [ "$(id -u)" -eq 0 ] || sudo="sudo"
  export DEBIAN_FRONTEND=noninteractive
  $sudo apt-get update -qq
  for package in "$@"; do
    $sudo apt-get install -y -qq --no-install-recommends "$package" >/dev/null && return 0
  done
  return 1
}
