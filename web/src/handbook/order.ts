import history from '../../../docs/screenshots/history.png'
import measureUp from '../../../docs/screenshots/measure-up.png'
import recipe from '../../../docs/screenshots/recipe.png'
import routines from '../../../docs/screenshots/routines.png'
import sheet from '../../../docs/screenshots/card-sheet.png'
import trial from '../../../docs/screenshots/trial.png'

/** What an owner does, in order, with the page where it is done. */
export const orderOfWork = [
  {
    title: 'Measure up',
    picture: measureUp,
    says:
      'A new card starts from a pattern, from another card, from a file, or from nothing. The interview asks in the order in which ' +
      'the answers ' +
      'are found: what a ruler says, what hangs on the carriage, what the board runs, what must happen before and after a print. ' +
      'Every answer ' +
      'stands on the drawing at once, and may stay assumed. It ends with what follows: reach, ladder, flow limit, open findings.',
  },
  {
    title: 'Complete the card',
    picture: sheet,
    says:
      'The sheet is a drawing with a schedule: every fact has a letter, a unit and a source. Draw what is in the way, type over a ' +
      'dimension, ' +
      'say where a figure comes from. The margin tells what does not go together, worst first.',
  },
  {
    title: 'Write the routines',
    picture: routines,
    says:
      'Start, before and after each layer, tool change, end. Beside every line stands what it does on this machine, with ' +
      'temperatures, fan and ' +
      'feed over time and the way on the plan. A routine may use names such as heat.bed, which are written out for every print.',
  },
  {
    title: 'Filament, gauge pieces, recipe',
    picture: recipe,
    says:
      'Settings that fit this machine, with the reasons; the ladder and the flow limit are drawn where the value is typed. What is ' +
      'not known ' +
      'is measured on a gauge piece and becomes a fact.',
  },
  {
    title: 'Try it',
    picture: trial,
    says:
      'Put parts on the bed, see whether they fit and in which order they can be printed, look through the layers, compare ' +
      'variants. The program ' +
      'is run on the simulated machine before it goes to the real one.',
  },
  {
    title: 'Live with it',
    picture: history,
    says:
      'Fix states as revisions, note how real prints came out, hold the card against an older state or against somebody else’s, ' +
      'take over what ' +
      'is better, share it as a packet, print it and hang it on the machine.',
  },
]
