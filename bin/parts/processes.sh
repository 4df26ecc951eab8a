# Processes that a command started, by number and time of start: a number alone may have gone to another program since.
# Sourced by the commands in bin/.

# started_at PID: when the process was started, in ticks since the machine's start; nothing when there is none.
started_at() { sed 's/.*) //' "/proc/$1/stat" 2>/dev/null | cut -d' ' -f20 || true; }

# note_process FILE PID: writes down one that is to be ended later.
note_process() { printf '%s %s\n' "$2" "$(started_at "$2")" >>"$1"; }

# still_runs PID STARTED: true while it is that very process, and has not ended but for its parent's noticing.
still_runs() {
  [ -n "$2" ] && [ "$(started_at "$1")" = "$2" ] || return 1
  [ "$(sed 's/.*) //' "/proc/$1/stat" 2>/dev/null | cut -d' ' -f1)" != Z ]
}

# any_runs FILE: true while one that is written down runs.
any_runs() {
  local pid started
  [ -f "$1" ] || return 1
  while read -r pid started; do still_runs "$pid" "$started" && return 0; done <"$1"
  return 1
}

# end_process PID STARTED SECONDS: asks it to end, and makes it end after that. False when it runs all the same.
end_process() {
  still_runs "$1" "$2" || return 0
  kill -TERM "$1" 2>/dev/null || true
  local _
  for _ in $(seq 1 $(($3 * 10))); do still_runs "$1" "$2" || return 0; sleep 0.1; done
  kill -KILL "$1" 2>/dev/null || true
  for _ in $(seq 1 50); do still_runs "$1" "$2" || return 0; sleep 0.1; done
  return 1
}
