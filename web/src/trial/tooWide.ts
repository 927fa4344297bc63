import { plain } from '../units/format'

/** What is said of a part whose outline could only be told to some mm. */
export const tooWide = (beyond: number) =>
  `Its outline is taken up to ${plain(Math.ceil(beyond * 100) / 100, 2)} mm wider than it is: very many of its faces cross each other.`
