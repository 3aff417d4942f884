// The page of the documentation that shows the figures of the bench that were kept last.

const TITLES = {
  line: 'Lines',
  table: 'Tables',
  live: 'Changes',
  scatter: 'Points',
  select: 'Selections',
  motion: 'Motion',
  files: 'Files',
  page: 'In Chromium',
  far: 'Rows in engines',
  'far-page': 'Rows in engines, in Chromium',
  machines: 'Other machines',
  sizes: 'Sizes',
}

/** Whether a row that was kept is over its limit: one with a unit is a share of that. */
export const isOver = ({ median, most }) => median > (/[a-z]/i.test(most) ? 1 : Number(most))

const HEAD = `# Speed

Figures of \`npm run bench\`. Each work is set beside the least that could be done, a bare loop or a bare page in the same run, painting included; the ratio is what counts, since it says the same on other machines. Each was measured in several runs in processes of their own: the median, and from the least to the greatest. Rows with a unit are set beside a limit of their own, and their ratio is the share of it.

- **What they are**: measured with Node 20 and Debian's Chromium on a shared virtual machine with two processors, without a graphics card. Figures in milliseconds would be smaller on most desks.
- **What they are not**: a comparison with other libraries, or a promise for your data. Times within one run spread; a row is told as worse when it got worse by more than its spread.
- \`npm run bench -- --times 5\` prints them beside the kept ones, \`--keep\` keeps them and writes this page; names such as \`line page\` run a part.

Rows in **bold** are over their limit.
`

/** The page, as Markdown. */
export function pageOf(kept) {
  const groups = Object.entries(TITLES).map(([bench, title]) => {
    const rows = Object.entries(kept).filter(([, row]) => row.bench === bench)
    if (rows.length === 0) return ''
    const lines = rows.map(([name, row]) => {
      const { ours, bare, median, least, greatest, most } = row
      const shown = isOver(row) ? `**${name}**` : name
      return `| ${shown} | ${ours} | ${bare} | ${median.toFixed(2)} | ${least.toFixed(2)}–${greatest.toFixed(2)} | ${most} |`
    })
    return `\n## ${title}\n\n| work | ours | bare | ratio | spread | at most |\n| --- | ---: | ---: | ---: | ---: | ---: |\n${lines.join('\n')}\n`
  })
  return HEAD + groups.join('')
}
