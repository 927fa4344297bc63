/** Letters that key facts to the drawings, the nearer fact first. */
const letters: [RegExp, string][] = [
  [/^\/envelope\/bed\/width/, 'A'],
  [/^\/envelope\/bed\/depth/, 'B'],
  [/^\/envelope\/height/, 'C'],
  [/^\/envelope\/origin/, 'D'],
  [/^\/envelope\/use\/margin$/, 'E'],
  [/^\/envelope\/keepOuts/, 'F'],
  [/^\/envelope\/home/, 'H'],
  [/^\/heat\/bed\/best/, 'P'],
  [/^\/head\/nozzles\/\d+\/diameter/, 'K'],
  [/^\/head\/nozzles\/\d+\/filamentDiameter/, 'L'],
  [/^\/head\/nozzles\/\d+\/offset/, 'T'],
  [/^\/head\/bodies\/\d+\/underside/, 'N'],
  [/^\/head\/bodies\/\d+\/outline\/(y|depth)/, 'Q'],
  [/^\/head\/bodies/, 'M'],
  [/^\/head\/beams\/\d+\/underside/, 'S'],
  [/^\/head\/beams/, 'R'],
  [/^\/head\/probe/, 'U'],
  [/^\/head\/(carriages|leastDistance)/, 'G'],
]

/** The letter of the fact at a pointer, or of the nearest fact above it. */
export const letterOf = (pointer: string): string | undefined => letters.find(([pattern]) => pattern.test(pointer))?.[1]
