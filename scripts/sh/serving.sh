# The server of this instance: started, watched, mended, stopped. Sourced by ./surrik.
#
# `up` stays and watches: a server or a database that has ended or hangs is replaced, and that is said. Who serves is
# found by looking at the processes themselves, never by a file alone: a file outlives what it speaks of.

APP_PID=""; APP_DB_PORT=""; DB_STARTED=""
WORKER_PID=(); WORKER_SINCE=(); WORKER_DB=()
LOG_LIMIT=10000000 LOGS_KEPT=5
WATCH_EVERY=2 ANSWER_WITHIN="${SURRIK_ANSWER_WITHIN:-5}" MISSES=3
WORKER_SILENT=$((ANSWER_WITHIN * MISSES))

now() { date -u +%Y-%m-%dT%H:%M:%SZ; }
told() { step "$(now) $*"; printf '{"level":"warn","time":"%s","msg":"up: %s"}\n' "$(now)" "$*" >> "$BASE/app.log"; }

# Ended children that nobody has waited for still have a number.
alive() { [ -n "$1" ] && [ -r "/proc/$1/stat" ] && ! grep -q '^[0-9]* (.*) Z' "/proc/$1/stat"; }

# Every process that serves this instance, or watches over it (first word of what it runs).
processes() { # processes PATTERN
  local d
  for d in /proc/[0-9]*; do
    { tr '\0' ' ' < "$d/cmdline" | grep -qE "$1"; } 2>/dev/null || continue
    { tr '\0' '\n' < "$d/environ" | grep -qxF "SURRIK_BASE=$BASE"; } 2>/dev/null || continue
    echo "${d#/proc/}"
  done
}
our_apps() { processes '^node scripts/serve\.mjs'; }
our_workers() { processes '^node \.build/worker\.mjs'; }
# When a process began: a number that is given out again begins at another time.
begun() { sed 's/.*) //' "/proc/$1/stat" 2>/dev/null | cut -d' ' -f20; }
our_watch() { local pid at; [ -f "$BASE/up.pid" ] && read -r pid at < "$BASE/up.pid" && alive "$pid" && [ "$(begun "$pid")" = "$at" ] && echo "$pid"; }

end_of() { # end_of PID SECONDS: asked to stop, then made to
  kill -CONT "$1" 2>/dev/null || true; kill -TERM "$1" 2>/dev/null || true
  local k; for k in $(seq $(($2 * 10))); do alive "$1" || return 0; sleep 0.1; done
  kill -KILL "$1" 2>/dev/null || true
}

# The certificate is for the shop's name, not for the address asked here: -k, on our own machine only.
answers() { curl -fsSk -m "${2:-$ANSWER_WITHIN}" "$1/api/health" 2>/dev/null | grep -q '"surrik":true'; }
ready() { curl -fsSk -m "${2:-$ANSWER_WITHIN}" "$1/api/ready" 2>/dev/null | grep -q '"ready":true'; }

rotate() {
  local size k; size=$(stat -c %s "$BASE/app.log" 2>/dev/null || echo 0)
  [ "$size" -gt "$LOG_LIMIT" ] || return 0
  for k in $(seq $((LOGS_KEPT - 1)) -1 1); do [ -f "$BASE/app.log.$k" ] && mv "$BASE/app.log.$k" "$BASE/app.log.$((k + 1))"; done
  # Written on by the server meanwhile: copied, then emptied, as it stays open.
  cp "$BASE/app.log" "$BASE/app.log.1"; : > "$BASE/app.log"
}

stop_all() {
  trap - INT TERM EXIT
  local pid
  for pid in $APP_PID $(our_workers); do kill -TERM "$pid" 2>/dev/null || true; done
  for pid in $APP_PID $(our_workers); do end_of "$pid" 10; done
  rm -f "$BASE/app.url" "$BASE/up.pid"
  [ -n "$DB_STARTED" ] && { db_down || true; }
  exit "${1:-0}"
}

# Starts the app and waits until it answers with its data. Fails where it ends at once, does not within a minute, or its
# database has gone meanwhile: waited for, that would never come.
app_start() { # app_start PORT URL
  ( umask 077; touch "$BASE/app.log" )
  NODE_ENV=production SURRIK_PORT="$1" node scripts/serve.mjs >>"$BASE/app.log" 2>&1 9>&- &
  APP_PID=$!; APP_DB_PORT="$DB_PORT"; echo "$2" > "$BASE/app.url"
  disown "$APP_PID" # told in our own words when it ends
  local end=$((SECONDS + 60))
  while [ $SECONDS -lt $end ]; do
    ready "$2" 2 && return 0
    alive "$APP_PID" || return 1
    pg_running || pg_running || return 1
    sleep 0.1
  done
  return 1
}

# Workers take up what takes a while. Each has a number and touches a file as long as it is alive.
worker_start() { # worker_start NUMBER
  rm -f "$BASE/worker.$1"
  NODE_ENV=production SURRIK_WORKER="$1" node .build/worker.mjs >>"$BASE/app.log" 2>&1 9>&- &
  WORKER_PID[$1]=$!; WORKER_SINCE[$1]=$(date +%s); WORKER_DB[$1]="$DB_PORT"
  disown "${WORKER_PID[$1]}"
}

workers_mend() { # each that has ended, says nothing any more, or looks for its database where that was
  local k why at now; now=$(date +%s)
  for k in $(seq "${SURRIK_WORKERS:-1}"); do
    why=""; at=$(stat -c %Y "$BASE/worker.$k" 2>/dev/null || echo "${WORKER_SINCE[$k]:-0}")
    if [ "${WORKER_DB[$k]}" != "$DB_PORT" ]; then why="its database moved to port $DB_PORT"
    elif ! alive "${WORKER_PID[$k]}"; then why="it has ended"
    elif [ $((now - at)) -ge $WORKER_SILENT ]; then why="it says nothing any more"; fi
    [ -n "$why" ] || continue
    told "worker $k begins anew: $why"
    { kill -CONT "${WORKER_PID[$k]}"; kill -KILL "${WORKER_PID[$k]}"; } 2>/dev/null || true
    worker_start "$k"
  done
}

app_replace() { # app_replace PORT URL WHY
  told "$3"
  [ -n "$APP_PID" ] && { kill -CONT "$APP_PID" 2>/dev/null || true; kill -KILL "$APP_PID" 2>/dev/null || true; }
  local k
  for k in 1 2 4 8 15 30; do
    if app_start "$1" "$2"; then told "the server is back"; return 0; fi
    kill -KILL "$APP_PID" 2>/dev/null || true
    pg_running || return 0 # not its fault: the watch sees to the database, then to a server again
    told "it does not come up; the end of its log:"; tail -3 "$BASE/app.log"
    sleep "$k"
  done
  die "the server does not stay up" "look at $BASE/app.log"
}

# Sleeps so that a signal is heard at once.
rest() { sleep "$1" & wait $! || true; }

# Once a day, beside everything else, by a process of its own.
KEEPING=""
keep_now() {
  if [ -n "$KEEPING" ]; then
    alive "$KEEPING" && return 0
    KEEPING=""; KEPT_TRY=$(date +%s)
  fi
  # One that failed is tried again in an hour.
  [ $(($(date +%s) - ${KEPT_TRY:-0})) -ge 3600 ] && keep_is_due || return 0
  nice ./surrik backup keep >>"$BASE/backup.log" 2>&1 9>&- &
  KEEPING=$!; disown "$KEEPING"
}

watch() { # watch PORT URL: for as long as `up` stays
  local missed=0 silent=0
  while :; do
    rest "$WATCH_EVERY"
    rotate
    keep_now
    if pg_running; then silent=0; else
      silent=$((silent + 1))
      # One that is there and silent once may only be busy.
      if [ $silent -ge 2 ] || ! postmaster >/dev/null; then
        told "the database does not answer: it is started again"
        db_lock; db_start || { told "PostgreSQL did not start; the end of its log:"; tail -3 "$LOG"; }; db_unlock
        DB_STARTED=1; export SURRIK_DB_PORT="$DB_PORT"; silent=0
      fi
    fi
    workers_mend
    if [ "$DB_PORT" != "$APP_DB_PORT" ]; then app_replace "$1" "$2" "its database moved to port $DB_PORT: the server starts anew"; missed=0
    elif ! alive "$APP_PID"; then app_replace "$1" "$2" "the server has ended: it is started again"; missed=0
    elif answers "$2"; then missed=0
    else
      missed=$((missed + 1))
      [ $missed -lt $MISSES ] || { app_replace "$1" "$2" "the server has not answered for a while: it is replaced"; missed=0; }
    fi
  done
}

# The address of what is up and watched over; fails where nothing is. What nobody watches over is ended: the server
# that comes instead is.
standing() {
  local url pid others k
  others=$(our_apps); url=$(cat "$BASE/app.url" 2>/dev/null || true)
  if our_watch >/dev/null; then
    # Someone watches: what is broken is being mended, which takes up to half a minute.
    for k in $(seq 45); do
      if [ -n "$url" ] && ready "$url" 2; then echo "$url"; return 0; fi
      our_watch >/dev/null || break
      sleep 1
    done
    if pid=$(our_watch); then step "the one that watches does not mend it: replaced" >&2; end_of "$pid" 3; fi
  fi
  for pid in $(our_apps); do step "a server was left behind by an earlier one (process $pid): ended" >&2; end_of "$pid" 3; done
  for pid in $(our_workers); do step "a worker was left behind by an earlier one (process $pid): ended" >&2; end_of "$pid" 3; done
  rm -f "$BASE/app.url" "$BASE/up.pid"
  [ -n "$others" ] && sleep 0.3
  return 1
}

cmd_up() {
  local port=4310 listen="" cert="" key="" hosts=""
  while [ $# -gt 0 ]; do case "$1" in
    --port) port="${2:-}"; [[ "$port" =~ ^[0-9]{2,5}$ ]] || die "--port wants a number" "for instance --port 4311"; shift 2 ;;
    --listen) listen="${2:-}"; [[ "$listen" =~ ^[0-9a-fA-F.:]+$ ]] || die "--listen wants an address of this machine" "for instance --listen 192.168.1.20"; shift 2 ;;
    --cert) cert="${2:-}"; [ -r "$cert" ] || die "--cert wants a certificate file in PEM" "found: ${cert:-nothing}"; cert=$(readlink -f "$cert"); shift 2 ;;
    --key) key="${2:-}"; [ -r "$key" ] || die "--key wants the certificate's key file in PEM" "found: ${key:-nothing}"; key=$(readlink -f "$key"); shift 2 ;;
    --host) [ -n "${2:-}" ] || die "--host wants a name" "for instance --host surrik.shop.lan"; hosts="$hosts,$2"; shift 2 ;;
    --apps) [[ "${2:-}" =~ ^([1-9]|[12][0-9]|3[0-2])$ ]] || die "--apps wants a number from 1 to 32" "for instance --apps 2"; export SURRIK_APPS="$2"; shift 2 ;;
    --workers) [[ "${2:-}" =~ ^([1-9]|[12][0-9]|3[0-2])$ ]] || die "--workers wants a number from 1 to 32" "for instance --workers 2"; export SURRIK_WORKERS="$2"; shift 2 ;;
    *) die "up does not know $1" "./surrik help" ;;
  esac; done
  local url="http://127.0.0.1:$port"
  case "$listen" in
    ""|127.*|::1) [ -z "$cert$key" ] || die "a certificate is for --listen ADDR" "on loopback Surrik serves plain HTTP" ;;
    *) [ -n "$cert" ] && [ -n "$key" ] || die "--listen $listen needs --cert F and --key F" "without a certificate Surrik serves this machine only: passwords must not cross a network in the clear"
       if [[ "$listen" == *:* ]]; then url="https://[$listen]:$port"; else url="https://$listen:$port"; fi
       [ "$listen" = 0.0.0.0 ] && url="https://127.0.0.1:$port"
       export SURRIK_EXPOSED=1 SURRIK_LISTEN="$listen" SURRIK_CERT="$cert" SURRIK_KEY="$key" SURRIK_HOSTS="$hosts" ;;
  esac
  need_node
  command -v curl >/dev/null || apt_need curl curl
  local up
  if up=$(standing); then say "already running: $up  (./surrik down stops it)"; return; fi
  port_free "$port" || die "port $port is taken by another program" "use another: ./surrik up --port $((port + 1))"
  need_packages; need_bundle
  trap 'stop_all 0' INT TERM; trap 'stop_all $?' EXIT
  db_up; echo "$$ $(begun $$)" > "$BASE/up.pid"
  db_migrate; [ -f "$BASE/no-demo" ] || node .build/maintain.mjs seed
  need_build
  port_free "$port" || die "port $port was taken meanwhile by another program" "use another: ./surrik up --port $((port + 1))"
  app_start "$port" "$url" || { tail -5 "$BASE/app.log" >&2; die "the server did not come up with its data" "the lines above are the end of $BASE/app.log"; }
  local k; for k in $(seq "${SURRIK_WORKERS:-1}"); do worker_start "$k"; done
  say ""
  say "  Surrik is at      $url"
  if [ -n "${SURRIK_EXPOSED:-}" ]; then
    say "  sign-in           people of your shop; the demo people only on loopback"
    [ "$(boot_psql -d surrik -Atc "SELECT count(*) FROM people p JOIN shops s ON s.id = p.shop_id WHERE NOT s.demo AND p.active")" != 0 ] \
      || say "                    nobody yet: ./surrik person add HANDLE \"NAME\" \"SHOP\""
  else
    say "  demo sign-in      bay2  /  $(secret DEMO_PASSWORD)"
    say "                    the same for owner, bay1, apprentice, desk, viewer"
  fi
  say "  data              $BASE"
  say "  Ctrl-C stops it. Until then what ends or hangs is started again."
  KEPT_TRY=$(($(date +%s) - 3000)) # not while the first pages are opened
  watch "$port" "$url"
}

cmd_down() {
  local stopped=0 pid
  if pid=$(our_watch); then end_of "$pid" 20; stopped=1; fi
  for pid in $(our_apps) $(our_workers); do end_of "$pid" 5; stopped=1; done
  rm -f "$BASE/app.url" "$BASE/up.pid" 2>/dev/null || true
  if db_down; then stopped=1; fi
  if [ $stopped = 1 ]; then say "stopped"; else say "nothing was running"; fi
}
