import { DapploError } from '@dapplo/core'

/** Loads the package that an engine is reached by, which is installed only by those who use it. */
export async function needPart<T>(engine: string, name: string, load: () => Promise<T>): Promise<T> {
  try {
    return await load()
  } catch {
    throw new DapploError(
      'missing-package',
      `${engine} needs the package "${name}", which is not installed`,
      '',
      `Install it: npm install ${name}`,
    )
  }
}
