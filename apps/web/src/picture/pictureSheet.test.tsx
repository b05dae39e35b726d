// @vitest-environment happy-dom
import { FRAME } from '@lithagon/core/testing/objects';
import { beforeEach, expect, test } from 'vitest';
import { useProject } from '../state/project';
import { onPage, screen } from '../testing/page';
import { type Extent, PictureSheet } from './PictureSheet';

const DEPTH: Extent = { km: 4, vertical: 2, domain: 'depth', margins: [60, 70] };
const sheet = (extent: Extent) => (
  <PictureSheet open view={null} title="Section" subtitle="Line" extent={extent} onClose={() => undefined} />
);
const within = (display: 'metric' | 'field') =>
  useProject.setState({ facts: { id: 'p', name: 'P', created: '', frame: { ...FRAME, display } } as never });

beforeEach(() => within('metric'));

test('a section in depth is drawn to a metric scale', async () => {
  const { hands } = onPage(sheet(DEPTH));
  await hands.click(screen.getByRole('radio', { name: 'To scale' }));
  expect(screen.getByLabelText('cm to the km')).toHaveProperty('value', '4');
  expect(screen.getByLabelText('cm to the km of depth')).toHaveProperty('value', '10');
  // 4 km at 4 cm each, 2 km at 10 cm each, and the margins, at 96 pixels to the inch
  screen.getByText(/^665 × 826 px/);
});

test('and to a scale in inches where the project shows field units: the picture is as large as it says', async () => {
  within('field');
  const { hands } = onPage(sheet(DEPTH));
  await hands.click(screen.getByRole('radio', { name: 'To scale' }));
  const across = screen.getByLabelText('inches to the mile');
  expect(across).toHaveProperty('value', '2.53');
  await hands.clear(across);
  await hands.type(across, '2');
  // 2 inches to the mile over 4 km are 4.97 inches
  screen.getByText(/^537 × 826 px/);
  expect(screen.getByLabelText('inches to 1000 ft of depth')).toHaveProperty('value', '1.2');
});

test('time has its own measure down', async () => {
  const { hands } = onPage(sheet({ ...DEPTH, domain: 'twt' }));
  await hands.click(screen.getByRole('radio', { name: 'To scale' }));
  screen.getByLabelText('cm to the s');
});
