#!/bin/sh
# Starts the companion of Mint Shelf.
java=java
jar=/usr/share/mint-shelf/companion.jar
classes=
launcher=/usr/bin/mint-shelf

# A link of a page goes to the watch where one runs: it is awake already.
if [ "$1 $2" = "desk open" ] && [ $# -eq 3 ]; then
    box="${XDG_DATA_HOME:-$HOME/.local/share}/mint-shelf/links"
    if watch=$(cat "$box/.watch" 2>/dev/null) && kill -0 "$watch" 2>/dev/null; then
        umask 077
        printf '%s' "$3" > "$box/.$$" && mv "$box/.$$" "$box/$$.link" && exit 0
    fi
fi

# A watch runs for weeks and stays small; what compares models for a moment may be large.
memory=512m
small=
if [ "$1 $2" = "desk watch" ]; then
    memory=80m
    small="-Xms12m -Xss512k -XX:MaxNewSize=12m -XX:-ShrinkHeapInSteps -XX:MinHeapFreeRatio=5 -XX:MaxHeapFreeRatio=15 -XX:ReservedCodeCacheSize=24m"
fi
if [ -n "$classes" ]; then set -- -cp "$classes" mintshelf.companion.Companion "$@"; else set -- -jar "$jar" "$@"; fi
exec "$java" -Xshare:auto -XX:TieredStopAtLevel=1 -XX:+UseSerialGC "-Xmx$memory" $small "-Dmintshelf.launcher=$launcher" "$@"
