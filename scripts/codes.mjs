// Every code that an error or a finding can have, with what is said and what helps, read from the sources.
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { parseAst } from 'rolldown/parseAst'

const ERRORS = new Set(['DapploError', 'Unreached'])

/** Texts that the file at hand has given a name. */
let named = new Map()

/** The texts that an expression can be, with … for what is known only when it is said. */
function texts(node) {
  switch (node?.type) {
    case 'Literal':
      return typeof node.value === 'string' && node.value !== '' ? [node.value] : []
    case 'TemplateLiteral':
      return [node.quasis.map(({ value }) => value.cooked).join('…')]
    case 'ConditionalExpression':
      return [...texts(node.consequent), ...texts(node.alternate)]
    case 'LogicalExpression':
      return [...texts(node.left), ...texts(node.right)]
    case 'BinaryExpression': {
      const after = texts(node.right)
      return texts(node.left).flatMap(text => (after.length > 0 ? after : ['…']).map(end => text + end))
    }
    case 'Identifier':
      return named.get(node.name) ?? []
    case 'CallExpression':
      return node.callee.name === 'suggest' ? ['Did you mean "…"?'] : []
    default:
      return []
  }
}

/** Calls `each` for all nodes of a syntax tree. */
function walk(node, each) {
  if (node === null || typeof node !== 'object') return
  if (typeof node.type === 'string') each(node)
  for (const value of Object.values(node)) walk(value, each)
}

const isCode = text => /^[a-z]+(-[a-z]+)*$/.test(text)

/** What a page or a terminal can show of a template: more than a hole, without holes beside each other. */
const said = list => list.filter(text => /\p{L}{3}/u.test(text)).map(text => text.replace(/…(\s*…)+/g, '…'))

/** By code, in the order of the alphabet: whether it is an error or a finding, and for each case what it says and what helps. */
export function codesOf(root) {
  const codes = new Map()
  const add = (code, kind, says, helps) => {
    const own = codes.get(code) ?? { code, kinds: [], cases: [] }
    codes.set(code, own)
    if (!own.kinds.includes(kind)) own.kinds.push(kind)
    const known = new Set(own.cases.flatMap(one => one.says))
    const fresh = said(says).filter(text => !known.has(text))
    if (fresh.length > 0) own.cases.push({ says: fresh, helps: said(helps) })
  }
  for (const name of readdirSync(join(root, 'packages'))) {
    const folder = join(root, 'packages', name, 'src')
    for (const file of readdirSync(folder, { recursive: true }).map(String).sort()) {
      if (!/\.tsx?$/.test(file) || file.includes('.test.') || file.endsWith('.d.ts')) continue
      const source = readFileSync(join(folder, file), 'utf8')
      const tree = parseAst(source, { lang: file.endsWith('x') ? 'tsx' : 'ts' })
      named = new Map()
      walk(tree, ({ type, id, init }) => {
        if (type === 'VariableDeclarator' && init?.type === 'Literal') named.set(id.name, texts(init))
      })
      walk(tree, node => {
        if (node.type === 'NewExpression' && ERRORS.has(node.callee.name)) {
          const [code, message, , hint] = node.arguments
          for (const one of texts(code).filter(isCode)) add(one, 'error', texts(message), texts(hint))
        }
        if (node.type !== 'ObjectExpression') return
        const { code, message, remedy } = Object.fromEntries(
          node.properties.filter(({ key }) => key).map(({ key, value }) => [key.name, value]),
        )
        if (!message) return
        for (const one of texts(code).filter(isCode)) add(one, 'finding', texts(message), texts(remedy))
      })
    }
  }
  return [...codes.values()].sort((a, b) => (a.code < b.code ? -1 : 1))
}
