// Finds which pattern and which dash goes with which colour of the palette, so that two that share one differ as much as
// can be: as seen by people with each of the three deficiencies, and in grey. By simulated annealing; see palette-marks.ts.
import { day, night } from '@dapplo/core'
import {
  differenceCiede2000,
  filterDeficiencyDeuter,
  filterDeficiencyProt,
  filterDeficiencyTrit,
  lab,
} from 'culori'

const difference = differenceCiede2000()
const COUNT = 24
const grey = color => ({ mode: 'lab', l: lab(color).l, a: 0, b: 0 })
const EYES = [filterDeficiencyProt(1), filterDeficiencyDeuter(1), filterDeficiencyTrit(1)]
/** A difference of grey counts for this many of one of colours. */
const GREY = 1.6

let state = 12345
const chance = () => {
  state = (state * 1664525 + 1013904223) % 4294967296
  return state / 4294967296
}

/** How different any two colours are to those who see them worst. */
function differences(inGrey) {
  const of = (a, b) =>
    Math.min(
      ...[day, night].flatMap(({ colors }) => [
        ...EYES.map(eye => difference(eye(colors[a]), eye(colors[b]))),
        ...(inGrey ? [GREY * difference(grey(colors[a]), grey(colors[b]))] : []),
      ]),
    )
  return Array.from({ length: COUNT }, (_, a) => Array.from({ length: COUNT }, (_, b) => of(a, b)))
}

/** The least difference among the first `most` that share a mark. */
function least(marks, table, most) {
  let found = Number.POSITIVE_INFINITY
  for (let a = 0; a < most; a++)
    for (let b = 0; b < a; b++) if (marks[a] === marks[b]) found = Math.min(found, table[a][b])
  return found
}

/** `fixed`: how many have no mark; `first`: how many count most. */
function search(table, kinds, fixed, first) {
  const any = i =>
    i < fixed ? 0 : (fixed > 0 ? 1 : 0) + Math.floor(chance() * (fixed > 0 ? kinds - 1 : kinds))
  const score = marks => {
    let sum = 0
    for (let a = 0; a < COUNT; a++)
      for (let b = 0; b < a; b++) if (marks[a] === marks[b]) sum += 1 / (table[a][b] + 0.5)
    return least(marks, table, first) + 0.4 * least(marks, table, COUNT) - sum * 0.03
  }
  let best = { score: Number.NEGATIVE_INFINITY, marks: [] }
  for (let round = 0; round < 40; round++) {
    const marks = Array.from({ length: COUNT }, (_, i) => any(i))
    let now = score(marks)
    for (let heat = 4; heat > 0.01; heat *= 0.9993) {
      const i = fixed + Math.floor(chance() * (COUNT - fixed))
      const before = marks[i]
      marks[i] = any(i)
      const next = score(marks)
      if (next >= now || chance() < Math.exp((next - now) / heat)) now = next
      else marks[i] = before
      if (now > best.score) best = { score: now, marks: [...marks] }
    }
  }
  return best.marks
}

for (const [name, inGrey, kinds, fixed, first] of [
  ['BEYOND_EIGHT.hatch', false, 5, 8, COUNT],
  ['BEYOND_EIGHT.dash', false, 6, 8, COUNT],
  ['WITHOUT_COLOR.hatch', true, 5, 0, 12],
  ['WITHOUT_COLOR.dash', true, 6, 0, 12],
]) {
  const table = differences(inGrey)
  const marks = search(table, kinds, fixed, first)
  console.log(`${name}: ${JSON.stringify(marks)} (${least(marks, table, first).toFixed(1)})`)
}
