# tmppass.sh out path… : each path as light, then all as dark
out=$1; shift; files=(); i=0
for p in "$@"; do
  IFS='|' read -r path mode click <<< "$p"
  f=/tmp/pass$i.png; args=(); [ "$mode" = dark ] && args+=(dark); [ "$mode" = wait ] && args+=(wait); [ "$mode" = darkwait ] && args+=(dark wait)
  [ -n "$click" ] && args+=("$click")
  node scripts/screenshot.mjs "$path" $f "${args[@]}" 2>&1 | grep -v "^$" | head -3
  files+=($f); i=$((i+1))
done
node scripts/tmpsheet.mjs $out "${files[@]}"
