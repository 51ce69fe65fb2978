#!/usr/bin/env bash
# Installs the package in a Debian of its own that has no Java, starts and uses it, removes it, and looks at what is left.
# Needs root, debootstrap and a mirror; see docs/MEASURED.md. It touches nothing but the folder that it makes.
set -eu
deb=$(readlink -f "${1:?which package? for example dist/zesty-signal_0.1.0-1_amd64.deb}")
root=${2:-$(mktemp -d)/root}
say() { echo "installer: $*"; }
[ "$(id -u)" = 0 ] || { say "only root can install" >&2; exit 2; }
command -v debootstrap >/dev/null || { say "debootstrap is not on this machine" >&2; exit 2; }
[ -e "$root/etc/debian_version" ] || debootstrap --variant=minbase bookworm "$root" >/dev/null
inside() { chroot "$root" /usr/bin/env -i HOME=/var/maker PATH=/usr/bin:/bin:/usr/sbin:/sbin LC_ALL=C.UTF-8 DEBIAN_FRONTEND=noninteractive "$@"; }
mount --bind /proc "$root/proc"
trap 'umount "$root/proc"' EXIT
cp "$deb" "$root/tmp/it.deb"
inside sh -c 'command -v java' && { say "there is a Java in it already" >&2; exit 1; }
# A bare system lacks the folders that any desktop has, and the menu entry needs.
mkdir -p "$root/usr/share/desktop-directories" "$root/usr/share/applications" "$root/etc/xdg/menus"
inside apt-get update -q >/dev/null
inside apt-get install -y -q --no-install-recommends /tmp/it.deb xvfb xauth >"$root/tmp/apt.log" 2>&1 || { tail -n 5 "$root/tmp/apt.log" >&2; exit 1; }
inside sh -c 'find / -xdev -name "java" -type f -perm -u+x | grep -v /opt/zesty-signal' && { say "it brought another Java" >&2; exit 1; }
say "installed: $(inside du -sm /opt/zesty-signal | cut -f1) MB, package $(du -m "$deb" | cut -f1) MB"
inside sh -c 'ls /usr/share/applications/*zesty* >/dev/null' && say "a menu entry: yes"
inside sh -c 'grep -ho "application/x-zesty[a-z+-]*" /usr/share/mime/packages/*.xml' | sort -u | sed 's/^/installer: type /'
inside useradd -m -d /var/maker maker
run() { inside su maker -c "cd; $*"; }
run '/opt/zesty-signal/bin/zesty-signal boards' >/dev/null && say "lists boards"
run '/opt/zesty-signal/bin/zesty-signal record sim:deck --out take.zest --for 5s --show' >"$root/tmp/recorded" 2>&1
say "recorded: $(tail -n 1 "$root/tmp/recorded")"
run '/opt/zesty-signal/bin/zesty-signal extract pulse take.zest --column pulse --json' | head -c 120 | tr '\n' ' ' | sed 's/^/installer: read: /'; echo
from=$(date +%s.%N)
run 'ZESTY_FIRST_LANE=1 xvfb-run -a /opt/zesty-signal/bin/zesty-signal demo' 2>/dev/null | { read -r said; say "window: $said after $(awk -v a="$from" -v b="$(date +%s.%N)" 'BEGIN {printf "%.1f s", b - a}')"; }
inside apt-get remove -y -q zesty-signal >/dev/null 2>&1
inside sh -c 'find / -xdev \( -path /proc -o -path /tmp -o -path /var/cache -o -path /var/lib/dpkg -o -path /var/lib/apt -o -path /var/log \) -prune -o -iname "*zesty*" -print' >"$root/tmp/left"
say "left behind after removal:"
sed 's/^/installer:   /' "$root/tmp/left"
grep -v '^/var/maker/' "$root/tmp/left" && { say "more than the maker's own is left" >&2; exit 1; }
say "nothing but the maker's own"
