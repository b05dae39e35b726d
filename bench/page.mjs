// What benches do to the application in the browser.

/** Load a SEG-Y file of amplitudes in two-way time. @returns seconds until it is there, and until it is cut for all planes */
export async function loadSegy(page, path) {
  const [chooser] = await Promise.all([
    page.waitForEvent('filechooser'),
    page.getByRole('button', { name: 'Choose files…' }).first().click(),
  ]);
  await chooser.setFiles(path);
  const sheet = page.getByRole('dialog', { name: 'Load files' });
  await sheet.getByRole('radio', { name: 'Two-way time' }).click();
  const amplitude = sheet.getByRole('button', { name: 'Yes, amplitude' });
  if (await amplitude.isVisible()) await amplitude.click();
  else await sheet.getByLabel('Quantity').selectOption('amplitude');
  await sheet.getByRole('radio', { name: 'positive' }).click();
  const started = performance.now();
  await sheet.getByRole('button', { name: 'Load 1 file' }).click();
  await page.getByText(/loaded from 1 file/).waitFor({ timeout: 400000 });
  const seconds = (performance.now() - started) / 1000;
  await page.getByTestId('section-raster').waitFor();
  // copies for the other planes are cut behind it
  const cutting = page.getByText(/^Cutting /).first();
  await cutting.waitFor();
  await cutting.waitFor({ state: 'hidden', timeout: 400000 });
  return { seconds, cut: (performance.now() - started) / 1000 };
}

/** From a key press or a turn of the wheel to the frame that shows another plane: first whatever comes, then the whole. */
export function timeStep(page, testId, key, down = true) {
  return page.evaluate(
    ([id, press, towards]) =>
      new Promise((resolve) => {
        const raster = document.querySelector(`[data-testid="${id}"]`);
        const before = raster.dataset.plane.replace('/coarse', '');
        const began = performance.now();
        let first = 0;
        const watch = new MutationObserver(() => {
          const { plane } = raster.dataset;
          if (plane.replace('/coarse', '') === before) return;
          first ||= performance.now() - began;
          if (plane.endsWith('/coarse')) return;
          watch.disconnect();
          requestAnimationFrame(() => resolve({ first, whole: performance.now() - began }));
        });
        watch.observe(raster, { attributes: true, attributeFilter: ['data-plane'] });
        if (press) document.body.dispatchEvent(new KeyboardEvent('keydown', { key: press, bubbles: true }));
        else
          raster.dispatchEvent(
            new WheelEvent('wheel', { deltaY: towards ? 100 : -100, bubbles: true, cancelable: true }),
          );
      }),
    [testId, key, down],
  );
}
