import { DapploError } from './error.ts'
import { quoted } from './plain-text.ts'

const NAMES = new Set(
  'aliceblue antiquewhite aqua aquamarine azure beige bisque black blanchedalmond blue blueviolet brown burlywood cadetblue chartreuse chocolate coral cornflowerblue cornsilk crimson currentcolor cyan darkblue darkcyan darkgoldenrod darkgray darkgreen darkgrey darkkhaki darkmagenta darkolivegreen darkorange darkorchid darkred darksalmon darkseagreen darkslateblue darkslategray darkslategrey darkturquoise darkviolet deeppink deepskyblue dimgray dimgrey dodgerblue firebrick floralwhite forestgreen fuchsia gainsboro ghostwhite gold goldenrod gray green greenyellow grey honeydew hotpink indianred indigo ivory khaki lavender lavenderblush lawngreen lemonchiffon lightblue lightcoral lightcyan lightgoldenrodyellow lightgray lightgreen lightgrey lightpink lightsalmon lightseagreen lightskyblue lightslategray lightslategrey lightsteelblue lightyellow lime limegreen linen magenta maroon mediumaquamarine mediumblue mediumorchid mediumpurple mediumseagreen mediumslateblue mediumspringgreen mediumturquoise mediumvioletred midnightblue mintcream mistyrose moccasin navajowhite navy oldlace olive olivedrab orange orangered orchid palegoldenrod palegreen paleturquoise palevioletred papayawhip peachpuff peru pink plum powderblue purple rebeccapurple red rosybrown royalblue saddlebrown salmon sandybrown seagreen seashell sienna silver skyblue slateblue slategray slategrey snow springgreen steelblue tan teal thistle tomato transparent turquoise violet wheat white whitesmoke yellow yellowgreen'.split(
    ' ',
  ),
)

const HEX = /^#(?:[\da-f]{3,4}|[\da-f]{6}|[\da-f]{8})$/i
/** Functions whose arguments are numbers, percentages, angles and names of colour spaces: nothing that could be an address. */
const FUNCTION = /^(?:rgba?|hsla?|hwb|lab|lch|oklab|oklch|color)\(([\w.%+\-\s,/]*)\)$/i
/** A longer text is no colour. */
const LONGEST = 120

/** Whether a text is a colour by CSS and nothing else: no variable, picture or address that a browser would follow. */
export function isColor(text: unknown): text is string {
  if (typeof text !== 'string' || text.length > LONGEST) return false
  const plain = text.trim()
  return HEX.test(plain) || NAMES.has(plain.toLowerCase()) || /\d/.test(FUNCTION.exec(plain)?.[1] ?? '')
}

/** Checks that a value is a colour, where it is told. Throws `bad-color`. */
export function checkColor(value: unknown, path: string): void {
  if (value === undefined || isColor(value)) return
  throw new DapploError(
    'bad-color',
    `${quoted(value)} is no colour`,
    path,
    'Write a CSS colour, such as "#2a6f97", "teal" or "rgb(42 111 151)".',
  )
}

/** Checks a list of colours, or colours by name. */
export function checkColors(value: unknown, path: string): void {
  if (value === null || typeof value !== 'object') return
  for (const [name, color] of Object.entries(value))
    if (Array.isArray(value)) checkColor(color ?? null, `${path}[${name}]`)
    else checkColor(color, `${path}.${name}`)
}
