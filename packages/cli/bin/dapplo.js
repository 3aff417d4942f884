#!/usr/bin/env node
import { existsSync } from 'node:fs'

// A file of its own, so that the command is there from the first installation on, also where nothing is built yet.
const program = new URL('../dist/dapplo.js', import.meta.url)
const [major, minor] = process.versions.node.split('.').map(Number)
if (major < 20 || (major === 20 && minor < 19)) {
  console.error(`dapplo: Node 20.19 or newer is needed, and this is ${process.versions.node}.`)
  process.exitCode = 2
} else if (existsSync(program)) await import(program.href)
else {
  console.error(
    'dapplo: The command is not built yet. In a checkout of Dapplo: npm run setup && npm run build.',
  )
  process.exitCode = 2
}
