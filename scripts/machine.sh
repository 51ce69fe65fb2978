# What Zesty Signal needs of a machine: sourced by ./zesty and ./check, not run. Expects $here.

say() { echo "zesty: $*" >&2; }

# Installs Debian packages where that is possible without asking; else names them and gives up.
install_packages() {
  local why=$1
  shift
  if command -v apt-get >/dev/null 2>&1 && [ "$(id -u)" = 0 ]; then
    say "$why: installing $*"
    export DEBIAN_FRONTEND=noninteractive
    apt-get install -y --no-install-recommends "$@" >/dev/null 2>&1 && return 0
    apt-get update >/dev/null 2>&1 && apt-get install -y --no-install-recommends "$@" >/dev/null 2>&1 && return 0
    say "that did not work."
  fi
  say "$why. Install, by the names Debian gives them: $*"
  say "for example: sudo apt-get install $*"
  exit 1
}

# Installs what is useful and not needed, given as COMMAND:PACKAGE; says what is left out where that does not work.
want_packages() {
  local why=$1 one missing=()
  shift
  for one in "$@"; do
    command -v "${one%%:*}" >/dev/null 2>&1 || [ -x "/usr/sbin/${one%%:*}" ] || missing+=("${one##*:}")
  done
  [ ${#missing[@]} -eq 0 ] && return 0
  ( install_packages "$why" "${missing[@]}" ) || say "going on without: $why are skipped"
}

# Whatever the variables for the virtual machine make it say before, the version is in the line that names it.
java_version() { "$1" -version 2>&1 | sed -n 's/.* version "\([0-9]*\).*/\1/p' | head -n 1; }

need_java() {
  local candidate known="$here/app/target/java"
  # Which one it was is known from the last time, as long as that one stays as it is: asking takes a tenth of a second.
  if [ -s "$known" ]; then
    JAVA=$(<"$known")
    [ -x "$JAVA" ] && [ "$known" -nt "$JAVA" ] && { [ -z "${JAVA_HOME:-}" ] || [ "$JAVA" = "$JAVA_HOME/bin/java" ]; } && return
  fi
  for candidate in "${JAVA_HOME:-/nowhere}/bin/java" java /usr/lib/jvm/java-17-openjdk-*/bin/java; do
    if command -v "$candidate" >/dev/null 2>&1 && [ "$(java_version "$candidate")" -ge 17 ] 2>/dev/null; then
      JAVA=$(command -v "$candidate")
      [ -d "$here/app/target" ] && echo "$JAVA" >"$known" 2>/dev/null
      return
    fi
  done
  install_packages "Java 17 or later is missing" openjdk-17-jdk
  JAVA=$(command -v java || echo /usr/lib/jvm/java-17-openjdk-*/bin/java)
}

need_maven() {
  command -v mvn >/dev/null 2>&1 || install_packages "Maven is missing" maven
}

# Asked once: each question takes some milliseconds of every start.
libraries=
library_there() {
  : "${libraries:=$(ldconfig -p 2>/dev/null)}"
  [[ $libraries == *"$1"* ]] || compgen -G "/usr/lib/*/$1*" >/dev/null
}

# The window toolkit needs GTK 3; without a display one is made with Xvfb, and said so.
need_window() {
  [[ $OSTYPE == linux* ]] || return 0
  local missing=()
  library_there libgtk-3.so || missing+=(libgtk-3-0)
  library_there libXtst.so || missing+=(libxtst6)
  library_there libXxf86vm.so || missing+=(libxxf86vm1)
  library_there libGL.so || missing+=(libgl1)
  if [ -z "${DISPLAY:-}" ] && [ -z "${WAYLAND_DISPLAY:-}" ]; then
    command -v Xvfb >/dev/null 2>&1 || missing+=(xvfb)
  fi
  [ ${#missing[@]} -eq 0 ] || install_packages "the window needs parts this machine lacks" "${missing[@]}"
  if [ "${1:-}" = fourfold ]; then
    start_displays
  elif [ -z "${DISPLAY:-}" ] && [ -z "${WAYLAND_DISPLAY:-}" ]; then
    start_display
  fi
}

start_display() {
  local number
  for number in $(seq 90 140); do
    [ -e "/tmp/.X$number-lock" ] && continue
    Xvfb ":$number" -screen 0 1400x900x24 -nolisten tcp >/dev/null 2>&1 &
    DISPLAY_PROCESS=$!
    for _ in $(seq 50); do
      [ -e "/tmp/.X11-unix/X$number" ] && kill -0 "$DISPLAY_PROCESS" 2>/dev/null && break
      sleep 0.1
    done
    if kill -0 "$DISPLAY_PROCESS" 2>/dev/null; then
      export DISPLAY=":$number"
      say "no monitor found: running on a virtual display ($DISPLAY)"
      # The display goes when this process, or the program that takes its place, has gone.
      ( while kill -0 $$ 2>/dev/null; do sleep 1; done; kill "$DISPLAY_PROCESS" 2>/dev/null ) >/dev/null 2>&1 &
      return
    fi
  done
  say "no virtual display could be started"
  exit 1
}

# Three displays beside each other for the window tests, numbered $DISPLAY_BASE 1 to 3, whether or not there is a monitor.
start_displays() {
  command -v Xvfb >/dev/null 2>&1 || install_packages "the window tests need a virtual display" xvfb
  local base number processes
  for base in $(seq 9 30); do
    compgen -G "/tmp/.X${base}[1-4]-lock" >/dev/null && continue
    processes=()
    for number in 1 2 3 4; do
      # On a slow machine a key that is struck would repeat before it is released (-r: it does not).
      Xvfb ":$base$number" -screen 0 1400x900x24 -nolisten tcp -r >/dev/null 2>&1 &
      processes+=($!)
    done
    for _ in $(seq 50); do
      [ "$(compgen -G "/tmp/.X11-unix/X${base}[1-4]" | wc -l)" = 4 ] && break
      sleep 0.1
    done
    if kill -0 "${processes[@]}" 2>/dev/null; then
      DISPLAY_BASE=$base
      export DISPLAY=":${base}1"
      say "window tests run on four virtual displays (:${base}1 to :${base}4)"
      ( while kill -0 $$ 2>/dev/null; do sleep 1; done; kill "${processes[@]}" 2>/dev/null ) >/dev/null 2>&1 &
      return
    fi
    kill "${processes[@]}" 2>/dev/null
  done
  say "no virtual displays could be started"
  exit 1
}

# Built means: newer than every source and build file.
built() {
  local stamp="$here/app/target/built"
  [ -f "$stamp" ] && [ -z "$(find "$here"/pom.xml "$here"/*/pom.xml "$here"/{core,boards,takes,exchange,engine,app}/src/main \
    -newer "$stamp" -print -quit 2>/dev/null)" ]
}

# Offline when everything needed is at hand, else with the network.
build() {
  (cd "$here" && { mvn -o -q -DskipTests -Dspotless.check.skip -pl app -am package >"$here/.build.log" 2>&1 \
    || mvn -q -B -DskipTests -Dspotless.check.skip -pl app -am package >&2; }) || return 1
  rm -f "$here/.build.log" "$here/app/target/zesty.jsa"
  touch "$here/app/target/built"
}
