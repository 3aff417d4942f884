// Pages that are made from what there is: options, words of phrases, commands, and the codes of errors and findings.
import { execFileSync } from 'node:child_process'
import { readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { codesOf } from '../../scripts/codes.mjs'
import { OPTIONS } from './options.mjs'

const small = { width: 320, height: 200 }

/** Every option of a description, with a picture; and those of the objects in it, from the schema. */
export async function optionsPage(root, charts) {
  const { chart, openTable, toSvg } = await import('@dapplo/node')
  const sailings = openTable(join(root, 'demo-data/sailings.csv'))
  const schema = JSON.parse(readFileSync(join(root, 'docs/chart.schema.json'), 'utf8'))
  const { properties } = schema.anyOf[0]
  const known = OPTIONS.map(([option]) => option)
  const lacking = Object.keys(properties).filter(
    name => !known.includes(name) && !['tables', 'house', 'table'].includes(name),
  )
  if (lacking.length > 0) throw new Error(`docs/site/options.mjs does not show: ${lacking.join(', ')}`)
  const parts = OPTIONS.map(([option, standard, words, description]) => {
    let picture = ''
    if (description) {
      const own = Object.fromEntries(Object.entries(description).filter(([, value]) => value !== undefined))
      if (own.where)
        own.where = Object.fromEntries(Object.entries(own.where).filter(([, value]) => value !== undefined))
      const frame = option === 'panes' ? { width: 320, height: 280 } : small
      writeFileSync(
        join(charts, `option-${option}.svg`),
        toSvg(chart(sailings, own), { ...frame, fonts: 'embedded' }),
      )
      picture = `<img src="/charts/option-${option}.svg" alt="" loading="lazy">`
    }
    const nested = nestedOf(properties[option])
    return `## ${option}\n\n<div class="option"><div>\n\n${plain(words)}\n\nDefault: ${plain(standard)}.${nested}\n\n</div><div>${picture}</div></div>\n`
  })
  return `---\noutline: [2, 2]\n---\n\n# Options\n\nEvery option of a description, over the demo data. Drawings in a list take the options of roles and looks as well; see [the description](/description).\n\n${parts.join('\n')}`
}

/** The options of the objects that an option may be, with what the sources say of them. */
function nestedOf(part) {
  const open = own => (own?.anyOf ? own.anyOf.flatMap(open) : own ? [own] : [])
  const objects = open(part).flatMap(own =>
    typeof own.additionalProperties === 'object' ? open(own.additionalProperties) : [own],
  )
  const entries = new Map(objects.flatMap(own => Object.entries(own.properties ?? {})))
  const told = [...entries].filter(([, own]) => own.description)
  return told.length === 0 || told.length > 40
    ? ''
    : `\n\n${told.map(([name, own]) => `- \`${name}\`: ${plain(own.description)}`).join('\n')}`
}

const plain = text => String(text).replace(/\{\{/g, '{ {').replace(/</g, '&lt;')

const WORDS = [
  ['count', 'how many rows there are'],
  ['distinct route', 'how many different values there are'],
  ['sum of passengers', 'what the values add up to'],
  ['mean of delay', 'the arithmetic mean'],
  ['median of delay', 'the value in the middle'],
  ['p90 of delay', 'the value that 90 of 100 do not exceed; any percentile from p0.1 to p99.9'],
  ['min of delay', 'the lowest value'],
  ['max of delay', 'the highest value'],
  ['first of delay', 'the value of the first row'],
  ['last of delay', 'the value of the last row'],
  ['share of passengers', 'the part of the total at the same place'],
  ['rank of passengers', 'the place among all, the largest being 1'],
  ['sum so far of passengers', 'the running total along x, for each series'],
  ['count so far', 'the running count along x, for each series'],
  ['bins of delay', 'neat intervals of a number'],
  ['minute of departed', 'the minute a time falls in'],
  ['hour of departed', 'the hour a time falls in'],
  ['day of departed', 'the day a time falls in'],
  ['week of departed', 'the week a time falls in, by ISO 8601'],
  ['month of departed', 'the month a time falls in'],
  ['quarter of departed', 'the quarter a time falls in'],
  ['year of departed', 'the year a time falls in'],
  ['hour of day of departed', 'the hour of the clock, 0 to 23, as an ordered category'],
  ['weekday of departed', 'the day of the week, as an ordered category'],
  ['day of month of departed', 'the day of the month, as an ordered category'],
  ['day of year of departed', 'the day of the year, as an ordered category'],
  ['month of year of departed', 'the month of the year, as an ordered category'],
]
export const wordsPage = () =>
  `# Words of phrases\n\nThe name of a column is a phrase; so are these. Which of them group and which sum up is told in [tables and phrases](/phrases).\n\n${WORDS.map(([phrase, words]) => `## ${phrase}\n\nMeans ${words}.\n`).join('\n')}`

/** What each command says of itself. */
export function commandsPage(root) {
  const help = args =>
    execFileSync(process.execPath, [join(root, 'packages/cli/dist/dapplo.js'), ...args, '--help'], {
      encoding: 'utf8',
    })
  const names = [...help([]).matchAll(/^ {2}(\w+)(?: \[| <| {2,})/gm)]
    .map(([, name]) => name)
    .filter(name => name !== 'help')
  return `# Commands\n\n\`npm install @dapplo/cli\` brings the command. Fields of a description are flags of the same name.\n\n${names.map(name => `## ${name}\n\n\`\`\`text\n${help([name]).trim()}\n\`\`\`\n`).join('\n')}`
}

/** Every code that an error or a finding can have, with what is said and what helps. */
export function codesPage(root) {
  const shown = text =>
    plain(text).replace(/\{ \{/g, '{').replace(/[*_]/g, '\\$&').replace(/:\/\//g, ':&#47;/')
  const parts = codesOf(root).map(
    ({ code, kinds, cases }) =>
      `## ${code}\n\n${kinds.join(' and ').replace(/^./, first => first.toUpperCase())}.\n\n${cases
        .map(
          ({ says, helps }) =>
            `- ${says.map(shown).join('; or: ')}${helps.length > 0 ? `<br>→ ${helps.map(shown).join(' Or: ')}` : ''}`,
        )
        .join('\n')}\n`,
  )
  return `---\noutline: false\n---\n\n# Codes of errors and findings\n\nAn error is a \`DapploError\` with a \`code\`, a message, the \`path\` of what is wrong, and a hint. A finding has a code, a message and a remedy: a chart could be drawn, but you would probably want to know. The command and the console of a page write the code in brackets after what they say; \`dapplo explain\` with a code prints what stands here.\n\n${parts.join('\n')}`
}
