/** The moments of a print at which the owner's routines run, in the order of the strip. */
export const moments = [
  { name: 'start', title: 'Start', about: 'before the first layer' },
  { name: 'beforeLayer', title: 'Before layer', about: 'before every layer' },
  { name: 'afterLayer', title: 'After layer', about: 'after every layer' },
  { name: 'toolChange', title: 'Change tool', about: 'before another tool is used' },
  { name: 'end', title: 'End', about: 'after the last layer' },
  { name: 'pause', title: 'Pause', about: 'when the print is paused' },
  { name: 'resume', title: 'Resume', about: 'when it goes on' },
  { name: 'cancel', title: 'Cancel', about: 'when it is given up' },
] as const

export type MomentName = (typeof moments)[number]['name']
