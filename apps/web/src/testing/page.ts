import './browser';
import { cleanup, render } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { ReactElement } from 'react';
import { afterEach } from 'vitest';

export { screen, waitFor, within } from '@testing-library/react';

afterEach(cleanup);

/** Put a component on an empty page; what is given back does what a person's hands do. */
export function onPage(component: ReactElement) {
  const hands = userEvent.setup();
  return { ...render(component), hands };
}
