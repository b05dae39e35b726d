import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, type Page } from '@playwright/test';
import { DEMO } from './data.ts';

/** Open the worked-up field and wait until its section is drawn. */
export async function openWorkedUp(page: Page): Promise<void> {
  await page.goto('/');
  await page.getByRole('button', { name: /Open Quillon worked up/ }).click();
  await expect(page.getByTestId('section-raster')).toHaveAttribute('data-plane', /inline/, { timeout: 90_000 });
}

/** A new, empty project. */
export async function newProject(page: Page): Promise<void> {
  await page.goto('/');
  await page.getByRole('button', { name: /New project/ }).click();
  await expect(page.getByText('A section shows seismic along a line.')).toBeVisible();
}

const bytesOf = (content: string | Buffer) => (typeof content === 'string' ? Buffer.from(content) : content);

/** Drop files onto the workbench as a person does. */
export async function drop(page: Page, names: string[], contents?: Record<string, string | Buffer>): Promise<void> {
  const files = names.map((name) => ({
    name,
    base64: bytesOf(contents?.[name] ?? readFileSync(join(DEMO, 'files', name))).toString('base64'),
  }));
  const transfer = await page.evaluateHandle((list) => {
    const data = new DataTransfer();
    for (const { name, base64 } of list) {
      const bytes = Uint8Array.from(atob(base64), (ch) => ch.charCodeAt(0));
      data.items.add(new File([bytes], name));
    }
    return data;
  }, files);
  await page.getByRole('main').dispatchEvent('drop', { dataTransfer: transfer });
  await expect(page.getByRole('dialog', { name: 'Load files' })).toBeVisible();
}

/** Colours of the section's own canvas, averaged over a coarse grid: what is seen, for telling pictures apart. */
export async function pictureOf(page: Page): Promise<number[]> {
  return page.getByTestId('section-raster').evaluate((canvas: HTMLCanvasElement) => {
    const context = canvas.getContext('2d');
    if (!context) throw new Error('the section has no picture');
    const { data, width, height } = context.getImageData(0, 0, canvas.width, canvas.height);
    const out = new Array<number>(16 * 16 * 3).fill(0);
    for (let y = 0; y < height; y += 2)
      for (let x = 0; x < width; x += 2) {
        const cell = Math.floor((16 * y) / height) * 16 + Math.floor((16 * x) / width);
        for (let c = 0; c < 3; c++) out[3 * cell + c] += data[4 * (y * width + x) + c];
      }
    return out.map((v) => Math.round((v * 16 * 16 * 4) / (width * height)));
  });
}

export function difference(a: number[], b: number[]): number {
  return a.reduce((sum, v, n) => sum + Math.abs(v - b[n]), 0) / a.length;
}
