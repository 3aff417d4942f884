/** Takes a file that is dropped: `use` is given its text, and its name without what it ends in. */
export function takesFiles(
  root: HTMLElement,
  use: (text: string, name: string) => void,
  signal: AbortSignal,
): void {
  root.addEventListener('dragover', event => event.preventDefault(), { signal })
  const drop = (event: DragEvent) => {
    event.preventDefault()
    const [file] = event.dataTransfer?.files ?? []
    if (file) void file.text().then(text => use(text, file.name.replace(/\.\w+$/, '')))
  }
  root.addEventListener('drop', drop, { signal })
}
