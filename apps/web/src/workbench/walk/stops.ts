import { useDesk } from '../../state/desk';
import { openView } from '../../state/dock';

/** A stop of the first walk: what is pointed at, and what is said of it. */
export interface Stop {
  /** What is pointed at, as a selector. */
  at: string;
  title: string;
  words: string;
  /** What is opened before it is pointed at. */
  before?(): void;
}

const bed = (stage: string) => () => useDesk.setState({ stage });

/** A walk through what is there, from the oldest bed up: each stop is read in a quarter of a minute. */
export const STOPS: Stop[] = [
  {
    at: 'nav[aria-label="Stages of the work"]',
    title: 'The work is laid down like strata',
    words:
      'Each bed of the column is a stage of the work, the oldest at the bottom. What rests on a bed depends on it; one that is out of date shows a ragged edge. A click opens its tray, and so do the digits.',
  },
  {
    at: '[aria-label="Data"]',
    title: 'A tray holds objects and steps',
    words:
      'Objects are seen in the view in front where their eye is open; drag them into any view. Below stand the steps that make more of them, each saying what it still lacks.',
    before: bed('data'),
  },
  {
    at: '[aria-label="Section"]',
    title: 'The section',
    words:
      'The wheel steps lines, Ctrl with the wheel draws nearer, Space and a drag move it. Drag the colour bar to change the gain. Two volumes are compared by the button with two columns.',
    before: () => openView('section'),
  },
  {
    at: '[aria-label="Map"]',
    title: 'The map',
    words:
      'A click takes the section there; the line shows where it runs. The winding-line button draws a line of your own, through wells if you like.',
    before: () => openView('map'),
  },
  {
    at: '[aria-label="Interpret"]',
    title: 'Picking',
    words:
      'Horizons are picked free-hand, snapped to an event, or followed along it, and tracked through the volume; faults are drawn as sticks. At the pointer stands which of these is on.',
    before: bed('interpret'),
  },
  {
    at: '[aria-label="Volumes"]',
    title: 'Up to volumes',
    words:
      'Every result keeps its trail: what it was made from and how. When something below changes, what rests on it is marked, and Rebuild makes it again.',
    before: bed('volumes'),
  },
  {
    at: 'header button[aria-label^="Find"], header kbd',
    title: 'Everything has a name',
    words: 'Ctrl and K find any object, step or action by name. A question mark shows the keys for where you are.',
  },
];
