# What bin/demo, bin/test and bin/almanac share. Sourced, not run.
cd "$(dirname "${BASH_SOURCE[0]}")/.." || exit 1

need_node() {
  command -v node >/dev/null || { echo "Node 20 is needed and was not found." >&2; exit 1; }
  node -e 'process.exit(Number(process.versions.node.split(".")[0]) >= 20 ? 0 : 1)' || { echo "Node 20 or newer is needed; this is $(node -v)." >&2; exit 1; }
}

# Installs when the lockfile is newer than what is installed.
install() {
  if [ ! -f node_modules/.package-lock.json ] || [ package-lock.json -nt node_modules/.package-lock.json ]; then
    echo "Installing packages …"
    npm ci --no-audit --no-fund --loglevel=error || { echo "The packages could not be installed." >&2; exit 1; }
    touch node_modules/.package-lock.json
  fi
  # What is known of the world is made when packages are installed; a newer script makes more of it.
  if [ ! -f world/lakes.json ] || [ scripts/world.mjs -nt world/lakes.json ]; then
    node scripts/world.mjs || { echo "What is known of the world could not be put together." >&2; exit 1; }
  fi
}

# Builds when anything that goes into the build is newer than it.
build() {
  if [ ! -f dist/built ] || [ -n "$(find src demo public migrations scripts/bundle-cli.mjs astro.config.mjs package-lock.json -newer dist/built -type f -print -quit)" ]; then
    echo "Building …"
    npm run --silent build > dist.log 2>&1 || { tail -n 40 dist.log >&2; echo "The build failed." >&2; exit 1; }
    rm -f dist.log
  fi
}

# Bundles what computes without a site (dates, read) when it is missing or older than its sources.
words() {
  if [ ! -f dist/cli/words.mjs ] || [ -n "$(find src/core src/cli scripts/bundle-words.mjs package-lock.json -newer dist/cli/words.mjs -type f -print -quit)" ]; then
    need_node
    install
    node scripts/bundle-words.mjs || { echo "The command could not be bundled." >&2; exit 1; }
  fi
}
