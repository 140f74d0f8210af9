# Shared by bin/demo and bin/test.

need_packages() {
  command -v node >/dev/null || { echo 'Node.js 20.19 or newer is needed: https://nodejs.org' >&2; exit 1; }
  if [ ! -f node_modules/.installed ] || [ package-lock.json -nt node_modules/.installed ]; then
    echo 'Installing packages.'
    # Not `npm ci`: it refuses a lock file that was written where a registry does not hold the
    # optional packages of every other platform. The versions are those of the lock file all the same.
    npm install --no-save --loglevel=error
    touch node_modules/.installed
  fi
}

# Whether a file that was built is missing, or older than something of what it is built from.
is_stale() {
  built=$1
  shift
  [ ! -f "$built" ] || [ -n "$(find "$@" package-lock.json -newer "$built" -print -quit)" ]
}

need_build() {
  if is_stale build/handler.js src static svelte.config.js vite.config.ts; then
    echo 'Building.'
    npm run --silent build
    touch build/handler.js
  fi
  need_commands
}

# The commands and the rehearsal hosts, compiled so that running them needs no compiler.
need_commands() {
  if is_stale build/bin/twin.js src/lib bin hosts vite.bin.config.ts; then
    npm run --silent build:commands
    touch build/bin/twin.js
  fi
}

# Installs one of Debian's packages where it is missing: its command, its name, what needs it.
need_debian() {
  command -v "$1" >/dev/null && return
  if [ "$(id -u)" -ne 0 ] || ! command -v apt-get >/dev/null; then
    echo "$3 need $2. Install it first: sudo apt-get install $2" >&2
    exit 1
  fi
  echo "Installing $2."
  apt-get update -qq
  DEBIAN_FRONTEND=noninteractive apt-get install -y -qq "$2" >/dev/null
}

# The shell without a window of its own is half as much work for the machine; any Chromium does.
need_chromium() {
  chromium() { command -v chromium-headless-shell || command -v chromium || command -v chromium-browser; }
  if [ -z "$(command -v chromium-headless-shell)" ] && [ "$(id -u)" -eq 0 ] && command -v apt-get >/dev/null; then
    need_debian chromium-headless-shell chromium-headless-shell 'The browser tests'
  fi
  chromium >/dev/null || need_debian chromium chromium 'The browser tests'
  CHROMIUM=$(chromium)
  export CHROMIUM
}
