#!/usr/bin/env bash
# The browser of the interface's tests and a proxy to stand behind, from Debian, where they are missing. The browser without windows
# of its own is quicker; where it cannot be had, the other does as well.
set -euo pipefail
export DEBIAN_FRONTEND=noninteractive
quick=/usr/bin/chromium-headless-shell
has_all() { test -x /usr/sbin/nginx -a -x /usr/bin/openssl && { test -x $quick || test -x /usr/bin/chromium; }; }
if test -x $quick && has_all; then exit 0; fi
if has_all; then
  { apt-get update -qq && apt-get install -y -qq chromium-headless-shell; } || echo "The journeys run in chromium."
  exit 0
fi
apt-get update -qq
apt-get install -y -qq nginx-light openssl
test -x $quick || apt-get install -y -qq chromium-headless-shell || test -x /usr/bin/chromium || apt-get install -y -qq chromium
