# What the machine must have: Node, packages of Debian, the packages of package-lock.json, a build.
# Sourced by the commands in bin/. Expects $ROOT and the shell options of its caller.

# Debian keeps servers where an ordinary user's PATH does not look.
PATH=$PATH:/usr/sbin:/sbin

say() { printf '%s\n' "$*"; }
die() { printf '%s\n' "$*" >&2; exit 1; }
seconds_since() { echo $(( $(date +%s) - $1 )); }

need_node() {
  command -v node >/dev/null 2>&1 || die "Node.js 20 is needed and not on this machine. Install it, then run this again."
  node -e 'const [a, b] = process.versions.node.split(".").map(Number); process.exit(a > 20 || (a === 20 && b >= 12) ? 0 : 1)' || die "Node.js 20.12 or newer is needed; this is $(node --version)."
}

# need_debian COMMAND PACKAGE...: installs the packages when the command is missing.
need_debian() {
  local cmd=$1; shift
  command -v "$cmd" >/dev/null 2>&1 && return 0
  local as=()
  if [ "$(id -u)" != 0 ]; then
    command -v sudo >/dev/null 2>&1 || die "$cmd is missing. It comes with Debian's $*: install it as root (apt-get install $*), or run this as root or as a user with sudo."
    as=(sudo)
  fi
  command -v apt-get >/dev/null 2>&1 || die "$cmd is missing and this is not a Debian machine: install $* by its own means, then run this again."
  say "Installing Debian's $* …"
  local log="$ROOT/.data/apt.log"
  { "${as[@]}" apt-get update -q && "${as[@]}" env DEBIAN_FRONTEND=noninteractive apt-get install -y -q --no-install-recommends "$@"; } >"$log" 2>&1 \
    || { tail -5 "$log" >&2; die "Debian's $* could not be installed; the whole log is $log"; }
}

# npm packages, once for each package-lock.json.
need_packages() {
  local want; want=$(sha256sum <"$ROOT/package-lock.json")
  [ -f "$ROOT/node_modules/.mile-stamp" ] && [ "$(cat "$ROOT/node_modules/.mile-stamp")" = "$want" ] && return 0
  local t; t=$(date +%s)
  say "Installing the npm packages …"
  (cd "$ROOT" && PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD=1 npm ci --ignore-scripts --no-fund --no-audit >"$ROOT/.data/npm.log" 2>&1) \
    || { tail -15 "$ROOT/.data/npm.log" >&2; die "npm ci failed; the whole log is .data/npm.log"; }
  printf '%s' "$want" >"$ROOT/node_modules/.mile-stamp"
  say "  done in $(seconds_since "$t") s"
}

# The built application, once for each state of its sources.
need_build() {
  local want t
  want=$(cd "$ROOT" && find app client core server ui public proxy.ts next.config.ts postcss.config.mjs tsconfig.json package-lock.json -type f ! -name '*.test.ts' -print0 | sort -z | xargs -0 sha256sum | sha256sum)
  [ -f "$ROOT/.next/mile-stamp" ] && [ "$(cat "$ROOT/.next/mile-stamp")" = "$want" ] && return 0
  t=$(date +%s)
  say "Building the application …"
  rm -rf "$ROOT/.next"
  (cd "$ROOT" && NEXT_TELEMETRY_DISABLED=1 node_modules/.bin/next build >"$ROOT/.data/build.log" 2>&1 && node server/commands/collect-script-hashes.mjs >>"$ROOT/.data/build.log" 2>&1) \
    || { tail -40 "$ROOT/.data/build.log" >&2; die "the build failed; the whole log is .data/build.log"; }
  printf '%s' "$want" >"$ROOT/.next/mile-stamp"
  say "  done in $(seconds_since "$t") s"
}

# free_port WISH: the wished port when nothing listens there, else another.
free_port() {
  node -e '
    const net = require("node:net");
    const at = (port, then) => { const s = net.createServer(); s.once("error", () => then(null)); s.listen(port, "127.0.0.1", () => { const p = s.address().port; s.close(() => then(p)); }); };
    at(Number(process.argv[1]), (p) => (p ? console.log(String(p)) : at(0, (q) => console.log(String(q)))));
  ' "$1"
}

# run_ts FILE ARG...: one of the project's own commands.
run_ts() { (cd "$ROOT" && node --import tsx "$@"); }

# clock_of LEDGER: the demo runs on its own day, and so does what is done to it.
clock_of() {
  [ "$1" = demo ] || return 0
  MILE_CLOCK_OFFSET_MS=$(run_ts demo/clock-offset.ts)
  export MILE_CLOCK_OFFSET_MS
}

# wait_for URL PID: until the address answers or the process is gone.
wait_for() {
  node -e '
    const [url, pid] = process.argv.slice(1);
    const alive = () => { try { process.kill(Number(pid), 0); return true; } catch { return false; } };
    (async () => {
      for (let i = 0; i < 300; i++) {
        if (await fetch(url).then((r) => r.ok, () => false)) process.exit(0);
        if (!alive()) process.exit(1);
        await new Promise((r) => setTimeout(r, 100));
      }
      process.exit(1);
    })();
  ' "$1" "$2"
}
