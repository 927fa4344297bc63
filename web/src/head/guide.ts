/** How to take a figure of the head, and with what. */
export interface Guide {
  title: string
  steps: string[]
}

const guides: [RegExp, Guide][] = [
  [
    /\/nozzles\/\d+\/diameter/,
    {
      title: 'Bore of the nozzle',
      steps: [
        'It is stamped on a flat of the hexagon, or filed as rings: look with a lens.',
        'If nothing is stamped: clean the tip cold and push drill shanks in from below. The thickest that enters is the bore.',
      ],
    },
  ],
  [
    /\/nozzles\/\d+\/filamentDiameter/,
    {
      title: 'Filament',
      steps: ['Caliper across the strand at five places a hand apart, turning it. The mean goes here; about 1.75 or 2.85 by name.'],
    },
  ],
  [
    /\/nozzles\/\d+\/offset/,
    {
      title: 'Offset of a nozzle',
      steps: [
        'From the carriage reference to this tip: right, back and up are positive. The first nozzle is usually the reference, all zero.',
        'Print a thin line with each nozzle at the same X, then at the same Y. The caliper between the two lines is the offset.',
        'For Z: lower each onto the same feeler gauge and note what Z shows. A tip that hangs lower is negative.',
      ],
    },
  ],
  [
    /\/nozzles\/\d+\/feed/,
    {
      title: 'Feed',
      steps: [
        'Direct: the drive sits on the head. Long tube: it sits on the frame.',
        'Length of the tube from coupling to coupling, with a tape.',
      ],
    },
  ],
  [
    /\/nozzles\/\d+\/retraction/,
    {
      title: 'Pulling back',
      steps: [
        'What stands in grey is proposed from the feed: up to 1 or 2 mm direct, 4 to 7 mm through a tube (common practice).',
        'The least length at which two posts print without strings is the figure.',
      ],
    },
  ],
  [
    /\/nozzles\/\d+\/maxFlow/,
    {
      title: 'Melting limit',
      steps: ['Feed 50 mm into the air, faster each time. Where the drive skips or the strand comes out thin, you are above it.'],
    },
  ],
  [
    /\/bodies\/\d+\/underside/,
    {
      title: 'Underside above the tip',
      steps: [
        'Head cold. Lower the tip onto a sheet of paper on the plate until the paper just drags.',
        'Slide feeler gauges or drill shanks under the body at its lowest point. The thickest that goes through is the figure.',
        'Take hanging screws and cables too: what hangs lowest counts.',
      ],
    },
  ],
  [
    /\/bodies/,
    {
      title: 'Outline of a body, from below',
      steps: [
        'Switch off, move the carriage to the edge of its travel and look from below, the front edge away from you as on the drawing.',
        'Depth rod of the caliper from the side of the nozzle to the outermost point of the body. Add half the width of the nozzle there.',
        'Left and front are negative. One body for each thing that hangs at a height of its own: duct, probe holder, carriage.',
      ],
    },
  ],
  [
    /\/beams\/\d+\/underside/,
    {
      title: 'Underside of a beam',
      steps: ['Tip on the plate. Stand a steel rule on the plate beside the beam: where its lowest edge reads is the figure.'],
    },
  ],
  [
    /\/beams/,
    {
      title: 'A beam across the machine',
      steps: [
        'It moves with the nozzle in the other direction and would sweep everything across the machine.',
        'From the middle of the nozzle to its near face (to the front, negative) and to its far face, along the bed with a square.',
      ],
    },
  ],
  [
    /\/probe\/z/,
    {
      title: 'Z offset',
      steps: [
        'From where the probe answers to where the nozzle touches. More negative brings the nozzle nearer to the bed, ' +
          'less negative further away.',
        'Change it in steps of 0.02 mm while a first layer prints: lines apart want it lower, ridges between lines want it higher.',
      ],
    },
  ],
  [
    /\/probe\/unevenness/,
    {
      title: 'Unevenness of the bed',
      steps: [
        'Have the firmware probe its grid and report it: highest less lowest. A first layer thinner than half of it ' +
          'will not stick everywhere.',
      ],
    },
  ],
  [
    /\/probe/,
    {
      title: 'Probe',
      steps: [
        'From the tip of the nozzle to the middle of the pin or sensor: right and back are positive. It probes only ' +
          'where it can be brought over the bed.',
      ],
    },
  ],
  [
    /\/(carriages|leastDistance)/,
    {
      title: 'Two carriages',
      steps: [
        'Drive each to both ends by hand commands and note X where it stops: from and to.',
        'Push the two together until they touch, motors off. The distance of the tips is the least distance; add 1 mm.',
        'Park: where it waits while the other prints.',
      ],
    },
  ],
  [
    /\/fans/,
    {
      title: 'Fans',
      steps: [
        'Switch each number on by hand (M106 P0, P1 …) and see which one blows.',
        'A hot-end fan often goes off by itself below 50 °C.',
      ],
    },
  ],
  [
    /\/clearance/,
    {
      title: 'Clearance',
      steps: ['Room kept between head and anything that stands, for bowed plastic and play. 1 mm unless you know better.'],
    },
  ],
]

/** The guide for a fact; the outline of a body where nothing is pointed at. */
export const guideFor = (pointer: string | undefined): Guide =>
  guides.find(([pattern]) => pointer && pattern.test(pointer))?.[1] ?? guides.find(([pattern]) => pattern.test('/head/bodies/0'))![1]
