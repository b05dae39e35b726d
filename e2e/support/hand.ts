import type { Locator, Page } from '@playwright/test';

/** Counts what a person does: a click, a drag, a drop or a committed field. */
export function hand(page: Page) {
  let actions = 0;
  return {
    get actions() {
      return actions;
    },
    async click(target: Locator, options?: Parameters<Locator['click']>[0]) {
      await target.click(options);
      actions++;
    },
    async clickAt(x: number, y: number, shift = false) {
      if (shift) await page.keyboard.down('Shift');
      await page.mouse.click(x, y);
      if (shift) await page.keyboard.up('Shift');
      actions++;
    },
    async choose(target: Locator, option: string | { label: string }) {
      await target.selectOption(option);
      actions++;
    },
    async type(target: Locator, text: string) {
      await target.fill(text);
      actions++;
    },
    async drag(from: [number, number], to: [number, number]) {
      await page.mouse.move(...from);
      await page.mouse.down();
      await page.mouse.move(...to, { steps: 6 });
      await page.mouse.up();
      actions++;
    },
    async press(key: string) {
      await page.keyboard.press(key);
      actions++;
    },
  };
}

/** Where something is drawn. */
export async function boxOf(target: Locator): Promise<{ x: number; y: number; width: number; height: number }> {
  const box = await target.boundingBox();
  if (!box) throw new Error('nothing is drawn there');
  return box;
}

/** Where the mark of a well stands on the map. */
export async function markOf(map: Locator, name: string): Promise<[x: number, y: number]> {
  const { x, y, width, height } = await boxOf(map.locator(`[data-well="${name}"] circle`).first());
  return [x + width / 2, y + height / 2];
}
