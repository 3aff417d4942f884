// Builds every package: declarations and modules by the TypeScript compiler, then the program of self-contained pages.
import { execFileSync } from 'node:child_process'
import { copyFileSync, existsSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'

const root = fileURLToPath(new URL('..', import.meta.url))
const fromRoot = path => fileURLToPath(new URL(`../${path}`, import.meta.url))
// What is left of modules that have been moved must not be packed; then all is built anew.
for (const name of readdirSync(fromRoot('packages'))) {
  const source = fromRoot(`packages/${name}/src`)
  const built = fromRoot(`packages/${name}/dist`)
  if (!existsSync(built)) continue
  const orphan = readdirSync(built, { recursive: true })
    .map(String)
    .some(file => file.endsWith('.d.ts') && !existsSync(join(source, file.replace(/\.d\.ts$/, '.ts'))))
  if (!orphan) continue
  rmSync(built, { recursive: true })
}

execFileSync(
  process.execPath,
  [
    fromRoot('node_modules/typescript/bin/tsc'),
    '-b',
    'packages/core',
    'packages/browser',
    'packages/node',
    'packages/engines',
    'packages/cli',
    'packages/react',
    'packages/compose',
  ],
  { cwd: root, stdio: 'inherit' },
)
const { rolldown } = await import('rolldown')
const { default: license } = await import('rollup-plugin-license')
const { thirdParty } = await import('./third-party.mjs')

const bundle = async (from, to, format, notices) => {
  const made = await rolldown({
    input: fromRoot(`packages/browser/dist/element/${from}`),
    platform: 'browser',
    plugins: [license(thirdParty(root, fromRoot(notices)))],
  })
  await made.write({ file: fromRoot(to), format, minify: true, codeSplitting: false })
  // These files travel alone, also within pages of others: their notices travel with them.
  const code = readFileSync(fromRoot(to), 'utf8')
  writeFileSync(
    fromRoot(to),
    `/*!\n${readFileSync(fromRoot(notices), 'utf8').replaceAll('*/', '* /')}*/\n${code}`,
  )
}
await bundle('page.js', 'packages/node/dist/page.js', 'es', 'packages/node/dist/THIRD-PARTY.txt')
// The element for pages without a bundler: as a script of old, and as a module.
const notices = 'packages/browser/dist/THIRD-PARTY.txt'
await bundle('alone.js', 'packages/browser/dist/dapplo.element.js', 'iife', notices)
await bundle('alone-module.js', 'packages/browser/dist/dapplo.element.mjs', 'es', notices)
copyFileSync(
  fromRoot('packages/browser/dist/dapplo.element.js'),
  fromRoot('packages/node/dist/dapplo.element.js'),
)

// The command is a few files: loading two hundred would take longer than most charts take to draw, and so would reading
// what a command does not need.
const command = await rolldown({
  input: fromRoot('packages/cli/dist/main.js'),
  platform: 'node',
  external: ['apache-arrow', /^@napi-rs\//, /^@duckdb\//, 'nodemailer', 'pg', 'upng-js'],
  // The package for arguments can start commands that are programs of their own. Ours are none, and what it would take to
  // start them is slow to load.
  plugins: [
    {
      name: 'no-programs',
      resolveId: (source, importer) =>
        source === 'node:child_process' && importer?.includes('commander') ? '\0no-programs' : null,
      load: id => (id === '\0no-programs' ? 'export default {}' : null),
    },
    license(thirdParty(root, fromRoot('packages/cli/dist/THIRD-PARTY.txt'))),
  ],
})
rmSync(fromRoot('packages/cli/dist/parts'), { recursive: true, force: true })
await command.write({
  dir: fromRoot('packages/cli/dist'),
  entryFileNames: 'dapplo.js',
  chunkFileNames: 'parts/[name].js',
  codeSplitting: { groups: [{ name: 'shared', minShareCount: 4 }] },
  format: 'es',
  minify: true,
})

// What `dapplo explain` knows.
const { codesOf } = await import('./codes.mjs')
writeFileSync(fromRoot('packages/cli/dist/codes.json'), JSON.stringify(codesOf(root)))

// Whoever unpacks a package finds its licence.
for (const name of readdirSync(fromRoot('packages')))
  copyFileSync(fromRoot('LICENSE'), fromRoot(`packages/${name}/LICENSE`))
