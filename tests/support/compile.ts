import { execFileSync } from 'node:child_process'
import { writeFileSync } from 'node:fs'
import { join } from 'node:path'

const root = join(import.meta.dirname, '../..')

/** What the compiler says about files, in the strict setting of a page's project; empty when it is content. `config`: where its settings are written. */
export function compile(files: string | readonly string[], config: string, types: string[] = []): string {
  const compilerOptions = {
    strict: true,
    noEmit: true,
    target: 'ES2022',
    module: 'ESNext',
    moduleResolution: 'Bundler',
    jsx: 'react-jsx',
    lib: ['ES2023', 'DOM'],
    types,
    typeRoots: [join(root, 'node_modules/@types')],
    skipLibCheck: true,
  }
  writeFileSync(config, JSON.stringify({ compilerOptions, files: [files].flat() }))
  try {
    execFileSync(process.execPath, [join(root, 'node_modules/typescript/bin/tsc'), '-p', config], {
      encoding: 'utf8',
      stdio: 'pipe',
    })
    return ''
  } catch (error) {
    return (error as { stdout: string }).stdout
  }
}
