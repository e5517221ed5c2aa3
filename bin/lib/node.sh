# Node is there, and new enough. Read by the commands in bin/.
command -v node >/dev/null || { echo "Zinc Gate needs Node 20.12 or newer, and finds no node here." >&2; exit 1; }
node -e 'const [a, b] = process.versions.node.split(".").map(Number); process.exit(a > 20 || (a === 20 && b >= 12) ? 0 : 1)' ||
  { echo "Zinc Gate needs Node 20.12 or newer; this is $(node --version)." >&2; exit 1; }
