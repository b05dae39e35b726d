import type { ReactNode } from 'react';

/** The ten beds of the Column, youngest first, as they are drawn. Digits select them from the bottom. */
export interface Bed {
  id: string;
  name: string;
  digit: string;
  /** What the stage is for, in one line. */
  summary: string;
  pattern: ReactNode;
}

// drawn by us after common ways of drawing rock
export const BEDS: Bed[] = [
  {
    id: 'volumes',
    name: 'Volumes',
    digit: '0',
    summary: 'Rock, pore and fluid volumes of a zone inside an area.',
    pattern: <path d="M0 8h20M10 0v8M0 16h20M4 8v8M16 8v8" />,
  },
  {
    id: 'properties',
    name: 'Properties',
    digit: '9',
    summary: 'Porosity, net-to-gross and saturation through the grid.',
    pattern: (
      <>
        <circle cx="5" cy="5" r=".9" />
        <circle cx="14" cy="9" r=".9" />
        <circle cx="8" cy="14" r=".9" />
        <circle cx="17" cy="17" r=".9" />
      </>
    ),
  },
  {
    id: 'framework',
    name: 'Framework',
    digit: '8',
    summary: 'Faults and horizons sealed into blocks and zones.',
    pattern: <path d="M0 10 20 0M0 20 20 10" />,
  },
  {
    id: 'depth',
    name: 'Depth',
    digit: '7',
    summary: 'Velocity, and everything taken from time to depth.',
    pattern: <path d="M0 5h7M11 5h9M4 12h9M0 18h5M9 18h8" />,
  },
  {
    id: 'invert',
    name: 'Invert',
    digit: '6',
    summary: 'Impedance and fluids from amplitudes.',
    pattern: (
      <>
        <circle cx="5" cy="6" r="2.6" />
        <circle cx="15" cy="14" r="3.4" />
      </>
    ),
  },
  {
    id: 'attributes',
    name: 'Attributes',
    digit: '5',
    summary: 'What the waveform shows: discontinuity, frequency, shape.',
    pattern: <path d="M2 5l2-2 2 2M12 12l2-2 2 2M4 17l2-2 2 2" />,
  },
  {
    id: 'interpret',
    name: 'Interpret',
    digit: '4',
    summary: 'Horizons and faults.',
    pattern: <path d="M0 6q5-4 10 0t10 0M0 15q5-4 10 0t10 0" />,
  },
  {
    id: 'tie',
    name: 'Tie',
    digit: '3',
    summary: 'Wells tied to seismic: which event is which.',
    pattern: <path d="M0 4h20M0 9h20M0 14h20M0 19h20" />,
  },
  {
    id: 'wells',
    name: 'Wells',
    digit: '2',
    summary: 'Paths, logs, tops, checkshots, pressures.',
    pattern: (
      <>
        <circle cx="4" cy="4" r=".8" />
        <circle cx="12" cy="7" r=".8" />
        <circle cx="7" cy="13" r=".8" />
        <circle cx="16" cy="15" r=".8" />
        <path d="M0 18h20" />
      </>
    ),
  },
  {
    id: 'data',
    name: 'Data',
    digit: '1',
    summary: 'Seismic, outlines and culture as they came in.',
    pattern: <path d="M3 3l4 4M7 3 3 7M13 12l4 4M17 12l-4 4" />,
  },
];

export const bedOf = (id: string): Bed | undefined => BEDS.find((b) => b.id === id);
