import type { SourceKind } from '../api/client'

/** A question of the interview, in the order in which an owner finds the answers. */
export interface Question {
  id: string
  title: string
  /** Where to look. */
  where: string
  /** The facts that it asks for. */
  pointers: string[]
  /** How an answer is usually known. */
  knownBy: SourceKind
}

export const questions: Question[] = [
  {
    id: 'size',
    title: 'What shape and size is the bed, and how high can it print?',
    where:
      'Width and depth stand on the rating plate or in the papers; count only where plastic may lie. For the height, ' +
      'run Z to its top and put a ruler between nozzle and plate.',
    pointers: ['/envelope/bed/shape', '/envelope/bed/width', '/envelope/bed/depth', '/envelope/height'],
    knownBy: 'rating-plate',
  },
  {
    id: 'origin',
    title: 'Where does the machine count X 0 Y 0?',
    where:
      'Home it, move to X0 Y0 and look where the nozzle stands. Round beds usually count from the middle, others from ' +
      'the front-left corner.',
    pointers: ['/envelope/origin', '/envelope/home'],
    knownBy: 'measured',
  },
  {
    id: 'heat',
    title: 'Is the bed heated, and what is around the machine?',
    where: 'A heated bed has thick wires to it. Best reached: what the display showed after half an hour of heating.',
    pointers: [
      '/envelope/heated',
      '/heat/bed/max',
      '/heat/bed/best',
      '/heat/housing',
      '/heat/chamber/max',
      '/heat/chamber/best',
      '/heat/room',
    ],
    knownBy: 'measured',
  },
  {
    id: 'board',
    title: 'What does the board run?',
    where: 'The display names it when it starts; over a serial line M115 answers with it.',
    pointers: ['/firmware/flavour'],
    knownBy: 'reported-by-firmware',
  },
  {
    id: 'motion',
    title: 'How does it move?',
    where: 'Watch it home: does the bed run to and fro, only up and down, or do three towers carry the head?',
    pointers: ['/motion/layout'],
    knownBy: 'measured',
  },
  {
    id: 'nozzle',
    title: 'Which nozzle is in it?',
    where:
      'The bore is stamped on a flat of the nozzle. How hot the hot end may get stands in its papers: with a tube that ' +
      'reaches into it, about 240.',
    pointers: ['/head/nozzles/0/diameter', '/head/nozzles/0/material', '/head/nozzles/0/maxTemperature', '/head/nozzles/0/maxFlow'],
    knownBy: 'rating-plate',
  },
  {
    id: 'filament',
    title: 'Which filament does it take, and how is it fed?',
    where: 'Measure the filament with a caliper in two places: about 1.75 or about 2.85. Entered wrongly, the print is silently wrong.',
    pointers: ['/head/nozzles/0/filamentDiameter', '/head/nozzles/0/feed/kind', '/head/nozzles/0/feed/length'],
    knownBy: 'measured',
  },
  {
    id: 'probe',
    title: 'Does anything on the head feel the bed?',
    where: 'A pin, a switch or a sensor beside the nozzle; or the nozzle itself.',
    pointers: ['/head/probe/kind'],
    knownBy: 'measured',
  },
  {
    id: 'routines',
    title: 'What must happen before and after a print?',
    where: 'A plain start and end are written below from your answers; change them later under Routines.',
    pointers: ['/routines/start', '/routines/end'],
    knownBy: 'assumed',
  },
]
