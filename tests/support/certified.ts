/** Points and certified results of the public Statistical Reference Datasets for regression (NIST StRD). */
export const STEPS = Array.from({ length: 21 }, (_, i) => i)
const NORRIS_Y =
  '0.1 338.8 118.1 888 9.2 228.1 668.5 998.5 449.1 778.9 559.2 0.3 0.1 778.1 668.8 339.3 448.9 10.8 557.7 228.3 998 888.8 119.6 0.3 0.6 557.6 339.3 888 998.5 778.9 10.2 117.6 228.9 668.4 449.2 0.2'
const NORRIS_X =
  '0.2 337.4 118.2 884.6 10.1 226.5 666.3 996.3 448.6 777 558.2 0.4 0.6 775.5 666.9 338 447.5 11.6 556 228.1 995.8 887.6 120.2 0.3 0.3 556.8 339.1 887.2 999 779 11.1 118.3 229.2 669.1 448.9 0.5'
const PONTIUS_Y =
  '.11019 .21956 .32949 .43899 .54803 .65694 .76562 .87487 .98292 1.09146 1.20001 1.30822 1.41599 1.52399 1.63194 1.73947 1.84646 1.95392 2.06128 2.16844 .11052 .22018 .32939 .43886 .54798 .65739 .76596 .87474 .98300 1.09150 1.20004 1.30818 1.41613 1.52408 1.63159 1.73965 1.84696 1.95445 2.06177 2.16829'
const WAMPLER3_Y =
  '760 -2042 2111 -1684 3888 1858 11379 17560 39287 64382 113159 175108 273291 400186 581243 811568 1121004 1506550 2002767 2611612 3369180'
const WAMPLER4_Y =
  '75901 -204794 204863 -204436 253665 -200894 214131 -185192 221249 -138370 315911 -27644 455253 197434 783995 608816 1370781 1303798 2205519 2408860 3444321'
const numbers = (text: string) => text.split(' ').map(Number)
const powers = (factors: number[]) =>
  STEPS.map(x => factors.reduce((sum, factor, k) => sum + factor * x ** k, 0))

export const CERTIFIED_FITS = [
  {
    name: 'Norris',
    x: numbers(NORRIS_X),
    y: numbers(NORRIS_Y),
    coefficients: [-0.262323073774029, 1.00211681802045],
    rSquared: 0.999993745883712,
  },
  {
    name: 'Pontius',
    x: Array.from({ length: 40 }, (_, i) => 150_000 * ((i % 20) + 1)),
    y: numbers(PONTIUS_Y),
    coefficients: [0.673565789473684e-3, 0.732059160401e-6, -0.316081871345029e-14],
    rSquared: 0.999999900178537,
  },
  {
    name: 'Wampler1',
    x: STEPS,
    y: powers([1, 1, 1, 1, 1, 1]),
    coefficients: [1, 1, 1, 1, 1, 1],
    rSquared: 1,
  },
  {
    name: 'Wampler2',
    x: STEPS,
    y: powers([1, 0.1, 0.01, 0.001, 1e-4, 1e-5]),
    coefficients: [1, 0.1, 0.01, 0.001, 1e-4, 1e-5],
    rSquared: 1,
  },
  {
    name: 'Wampler3',
    x: STEPS,
    y: numbers(WAMPLER3_Y),
    coefficients: [1, 1, 1, 1, 1, 1],
    rSquared: 0.99999555902582,
  },
  {
    name: 'Wampler4',
    x: STEPS,
    y: numbers(WAMPLER4_Y),
    coefficients: [1, 1, 1, 1, 1, 1],
    rSquared: 0.957478440825662,
  },
]
