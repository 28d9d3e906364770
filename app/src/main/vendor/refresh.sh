#!/usr/bin/env bash
# Fetches the scripts that are shipped and come from npm, at the versions of manifest.txt, and bundles what needs it.
# Wants Node and the network; nobody needs it to build or run Mint Shelf.
set -euo pipefail
here=$(cd "$(dirname "$0")" && pwd)
static="$here/../resources/static"
work=$(mktemp -d)
trap 'rm -rf "$work"' EXIT
version() { awk -v name="$1" '$1 == name { print $2 }' "$here/manifest.txt"; }
cd "$work"
npm init -y >/dev/null
npm install "@noble/hashes@$(version @noble/hashes)" "three@$(version three)" "occt-import-js@$(version occt-import-js)" "esbuild@$(version esbuild)" >/dev/null
cp "$here/three-viewer.entry.js" entry.js
npx esbuild entry.js --bundle --minify --format=esm --outfile="$static/vendor/three-viewer.js"
echo 'export { sha256 } from "@noble/hashes/sha2.js";' > hash.js
npx esbuild hash.js --bundle --minify --format=esm --outfile="$static/vendor/sha256.js"
cp node_modules/@noble/hashes/LICENSE "$static/vendor/noble-hashes-LICENSE.txt"
cp node_modules/three/LICENSE "$static/vendor/three-LICENSE.txt"
dist=node_modules/occt-import-js/dist
cp "$dist/occt-import-js.js" "$dist"/license.*.txt "$static/occt/"
gzip -9 -n -c "$dist/occt-import-js.wasm" > "$static/occt/occt-import-js.wasm.gz"
cd "$static"
sha256sum vendor/three-viewer.js vendor/sha256.js occt/occt-import-js.js occt/occt-import-js.wasm.gz
