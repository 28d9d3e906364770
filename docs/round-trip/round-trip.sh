#!/bin/sh
# A round trip over the interface for programs, with nothing but a shell and curl: take the hold, bring the file, run a program on it, check it in.
#   MINT_SHELF=http://localhost:8080 MINT_TOKEN=mint_... round-trip.sh TG40-3030 "what changed" PROGRAM [ARGUMENT ...]
# The program gets the file as its last argument; what it leaves there is checked in. Where anything is refused, its words are printed and the file stays.
set -eu
number=$1 comment=$2
shift 2
api=${MINT_SHELF:?the address of the shelf}/api/v1
auth="Authorization: Bearer ${MINT_TOKEN:?a token that may write, of the page Companion and tokens}"

key() { cat /proc/sys/kernel/random/uuid; }
# An answer that is a refusal ends it: the server's own words say why.
ask() {
    body=$(curl -sS --fail-with-body -H "$auth" -H 'Content-Type: application/json' "$@") || { printf '%s\n' "$body" >&2; exit 1; }
    printf '%s' "$body"
}
# What stands between two words of an answer.
between() { sed -n "s/.*$1\([^\",}]*\)$2.*/\1/p"; }

found=$(ask -G --data-urlencode "q=$number" "$api/documents")
document=$(printf '%s' "$found" | between '"id":' ",\"number\":\"$number\"")
[ -n "$document" ] || { echo "No document that you see has the number $number." >&2; exit 1; }

held=$(ask -H "Idempotency-Key: $(key)" -d "{\"documents\":[$document],\"desk\":\"\",\"purpose\":\"$comment\"}" "$api/holds")
version=$(printf '%s' "$held" | between '"version":' ',')
hold=$(printf '%s' "$held" | between '"hold":{"id":' ',')
path=$(printf '%s' "$held" | sed -n 's/.*"path":"\([^"]*\)".*/\1/p')
file=${path##*/}
curl -sS --fail -H "$auth" -o "$file" "$api/documents/$document/versions/$version/content"

"$@" "$file"

size=$(wc -c < "$file" | tr -d ' ')
upload=$(ask -X POST "$api/uploads?name=$(printf '%s' "$file" | sed 's/ /%20/g')&size=$size" | between '"token":"' '"')
ask -X PUT -H 'Content-Type: application/octet-stream' --data-binary "@$file" "$api/uploads/$upload?from=0" > /dev/null
ask -H "Idempotency-Key: $(key)" "$api/check-ins" \
    -d "{\"rows\":[{\"document\":$document,\"upload\":\"$upload\",\"hold\":$hold}],\"comment\":\"$comment\"}"
echo
