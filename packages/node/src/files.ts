import { lstatSync, readFileSync, realpathSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { basename, dirname, join, relative, resolve, sep } from 'node:path'
import { DapploError } from '@dapplo/core'

/** What the system calls an error, such as `ENOENT`; undefined where it is none of the system's. */
export const systemCode = (error: unknown): string | undefined =>
  error instanceof Error && 'code' in error ? String(error.code) : undefined

const codeOf = (error: unknown): string =>
  systemCode(error) ?? (error instanceof Error ? error.message : String(error))

/** What is wrong when a file cannot be read, and what to do about it. */
const READING: Readonly<Record<string, readonly [reason: string, hint: string]>> = {
  EACCES: ['it may not be read', 'Check its permissions.'],
  EPERM: ['it may not be read', 'Check its permissions.'],
  EISDIR: ['it is a folder', 'Name a file in it.'],
  ELOOP: ['its links lead in a circle', 'Name the file itself.'],
  ERR_STRING_TOO_LONG: ['it is larger than half a gigabyte', 'Take a part of it, or sum it up before.'],
  ERR_FS_FILE_TOO_LARGE: ['it is larger than can be read', 'Take a part of it, or sum it up before.'],
}

/** The text of a file. Throws `no-file` in plain words. */
export function readFileText(path: string): string {
  try {
    return readFileSync(path, 'utf8')
  } catch (error) {
    const code = codeOf(error)
    if (code === 'ENOENT' || code === 'ENOTDIR' || code === 'ENAMETOOLONG')
      throw new DapploError(
        'no-file',
        `There is no file ${path}`,
        path,
        'Check the name, and the folder that you are in.',
      )
    const [reason, hint] = READING[code] ?? [code, 'Check whether it can be opened otherwise.']
    throw new DapploError('no-file', `${path} cannot be read: ${reason}`, path, hint)
  }
}

/** A source's file, which must be a plain path: what is on the network is not fetched behind the caller's back. */
export function fileBeside(folder: string, url: string): string {
  if (/^[a-z][a-z\d+.-]+:/i.test(url)) {
    throw new DapploError(
      'not-a-file',
      `"${url}" is not a file beside the description`,
      'tables',
      'Save the data in a file and name that.',
    )
  }
  return join(folder, url)
}

/**
 * The path of a file that must lie in a folder, whatever its path and its links say; one that is not there has none.
 * Throws `outside-folder`, and `no-file` for what is no plain file, such as a pipe that would never end.
 */
export function confinedFile(folder: string, path: string, what: string): string | undefined {
  const asked = resolve(path)
  let real = asked
  let there = true
  try {
    real = realpathSync(asked)
  } catch {
    there = false
  }
  const home = there ? realpathSync(folder) : resolve(folder)
  const way = relative(home, real)
  if (way === '..' || way.startsWith(`..${sep}`) || resolve(home, way) !== real)
    throw new DapploError(
      'outside-folder',
      `${basename(path)} lies outside the folder of the description`,
      what,
      'Put it beside the description: nothing else is reached.',
    )
  if (!there) return undefined
  if (!statSync(real).isFile())
    throw new DapploError('no-file', `${basename(path)} is no plain file`, what, 'Name a file.')
  return real
}

const WRITING: Readonly<Record<string, string>> = {
  EACCES: 'it may not be written there',
  EPERM: 'it may not be written there',
  EROFS: 'nothing may be written there',
  ENOSPC: 'the disk is full',
  EDQUOT: 'the disk is full',
  EISDIR: 'it is a folder',
  ENOTDIR: 'a part of its path is no folder',
  ENAMETOOLONG: 'its name is too long',
}

export function notWritten(path: string, error: unknown): DapploError {
  if (error instanceof DapploError) return error
  const code = codeOf(error)
  const reason = code === 'ENOENT' ? `there is no folder ${dirname(path)}` : (WRITING[code] ?? code)
  return new DapploError(
    'not-written',
    `${path} cannot be written: ${reason}`,
    path,
    'Name a file in a folder that exists and may be written to.',
  )
}

/** Where a file is written: behind links, and under another name first unless it is no plain file, such as a device. */
export function placeFor(path: string): { target: string; part: string | undefined } {
  let target = path
  try {
    target = realpathSync(path)
  } catch {
    // A link to what is not there yet is followed as far as it leads; what is not there at all is made.
    try {
      if (lstatSync(path).isSymbolicLink()) return { target: path, part: undefined }
    } catch {
      return { target, part: partOf(target) }
    }
  }
  const found = statSync(target, { throwIfNoEntry: false })
  if (found?.isDirectory())
    throw new DapploError(
      'not-written',
      `${path} cannot be written: it is a folder`,
      path,
      'Name a file in it.',
    )
  return { target, part: found && !found.isFile() ? undefined : partOf(target) }
}

const partOf = (target: string) => `${target}.${process.pid}.part`

/** Writes a file whole or not at all: under another name first, then in its place. Throws `not-written`. */
export function writeWhole(path: string, content: string | Uint8Array): void {
  let unfinished: string | undefined
  try {
    const place = placeFor(path)
    unfinished = place.part
    writeFileSync(unfinished ?? place.target, content)
    if (unfinished !== undefined) renameSync(unfinished, place.target)
  } catch (error) {
    if (unfinished !== undefined) rmSync(unfinished, { force: true })
    throw notWritten(path, error)
  }
}
