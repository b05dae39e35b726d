import type { Domain } from '@lithagon/core';
import { useState } from 'react';
import { toast } from 'sonner';
import { useProject } from '../state/project';
import { Button } from '../ui/Button';
import { download } from '../ui/download';
import { Modal } from '../ui/Modal';
import { Segmented } from '../ui/Segmented';
import { composeSvg, rasterise } from './compose';
import css from './Picture.module.css';

/** Two digits after the point. */
const round = (v: number) => Number(v.toFixed(2));

/** A length on paper to a length down, in the units of the project; `cm` to the second, or to the kilometre of depth. */
function downOf(domain: Domain, field: boolean): { name: string; cm: number } {
  if (domain === 'age') return { name: 'cm to the thousand of age', cm: 1 };
  if (!field) return { name: domain === 'twt' ? 'cm to the s' : 'cm to the km of depth', cm: 1 };
  return domain === 'twt'
    ? { name: 'inches to the s', cm: 2.54 }
    : { name: 'inches to 1000 ft of depth', cm: 2.54 / 0.3048 };
}

/** Length and height of what a section shows, by which it is drawn to scale. */
export interface Extent {
  km: number;
  /** Seconds of TWT, or kilometres of depth. */
  vertical: number;
  domain: Domain;
  /** Room around the data, CSS pixels: left and right together, above and below together. */
  margins: [number, number];
}

/** A CSS pixel is 1/96 inch. */
const PX_PER_CM = 96 / 2.54;
const MOST = 8000;

/** Give a view another size for as long as some work takes, and let it draw itself anew. */
async function atSize<T>(view: HTMLElement, size: [number, number], work: () => Promise<T>): Promise<T> {
  const before = view.getAttribute('style');
  view.style.cssText = `${before ?? ''};position:fixed;left:0;top:0;z-index:-1;width:${size[0]}px;height:${size[1]}px`;
  // observers, state and the raster each take a frame or two
  await new Promise((resolve) => setTimeout(resolve, 450));
  try {
    return await work();
  } finally {
    if (before === null) view.removeAttribute('style');
    else view.setAttribute('style', before);
  }
}

/** A view saved as PNG or SVG at a chosen size, or a section at a chosen scale. */
export function PictureSheet(props: {
  open: boolean;
  view: HTMLElement | null;
  title: string;
  subtitle: string;
  extent?: Extent;
  onClose(): void;
}) {
  const { open, view, extent, onClose } = props;
  const facts = useProject((s) => s.facts);
  const [format, setFormat] = useState<'png' | 'svg'>('png');
  const [by, setBy] = useState<'size' | 'scale'>('size');
  const [title, setTitle] = useState<string | null>(null);
  const [width, setWidth] = useState(1200);
  const [height, setHeight] = useState(750);
  const [factor, setFactor] = useState(2);
  const [perKm, setPerKm] = useState(4);
  const [perVertical, setPerVertical] = useState(10);
  const [busy, setBusy] = useState(false);
  const shown = title ?? `${props.title}, ${facts?.name ?? ''}`;
  const scaled = by === 'scale' && extent;
  // what is drawn to scale in the units that the project shows, and how many centimetres to the km (or s) one of them is
  const field = facts?.frame?.display === 'field';
  const across = field ? { name: 'inches to the mile', cm: 2.54 / 1.609344 } : { name: 'cm to the km', cm: 1 };
  const per = extent && downOf(extent.domain, field);
  const size: [number, number] = scaled
    ? [
        Math.round(extent.km * perKm * PX_PER_CM + extent.margins[0]),
        Math.round(extent.vertical * perVertical * PX_PER_CM + extent.margins[1]),
      ]
    : [width, height];
  const tooLarge = size.some((n) => !(n >= 200 && n <= MOST));
  const frame = facts?.frame;
  const unit = frame ? { m: 'metres', ft: 'feet', 'us-ft': 'US survey feet' }[frame.unit] : '';
  const save = async () => {
    if (!view) return;
    setBusy(true);
    try {
      const header = view.querySelector('header')?.getBoundingClientRect().height ?? 0;
      const svg = await atSize(view, [size[0], size[1] + header], () =>
        composeSvg(view, {
          title: shown,
          subtitle: scaled
            ? `${props.subtitle} · ${round(perKm / across.cm)} ${across.name}, ${round(perVertical / (per?.cm ?? 1))} ${per?.name}`
            : props.subtitle,
          frame: frame ? `${frame.crsName} (${frame.crs}), ${unit}` : 'No coordinate system declared',
        }),
      );
      const blob = format === 'svg' ? new Blob([svg], { type: 'image/svg+xml' }) : await rasterise(svg, factor);
      download(`${shown}.${format}`, blob);
      onClose();
    } catch (cause) {
      toast.error(`The picture could not be made: ${(cause as Error).message}. Nothing was saved.`);
    } finally {
      setBusy(false);
    }
  };
  const number = (label: string, value: number, set: (v: number) => void, step = 1) => (
    <label>
      {label}
      <input type="number" min={0} step={step} value={value} onChange={(e) => set(Number(e.target.value))} />
    </label>
  );
  return (
    <Modal
      open={open}
      title="Save a picture"
      summary="With title, scale, legend and the frame of the project."
      onClose={onClose}
    >
      <div className={css.form}>
        <label className={css.title}>
          Title
          <input value={shown} onChange={(e) => setTitle(e.target.value)} />
        </label>
        <Segmented
          label="Format"
          value={format}
          options={[
            { value: 'png', label: 'PNG' },
            { value: 'svg', label: 'SVG, drawings as vectors' },
          ]}
          onChange={(v) => setFormat(v as typeof format)}
        />
        {extent && (
          <Segmented
            label="Size by"
            value={by}
            options={[
              { value: 'size', label: 'By size' },
              { value: 'scale', label: 'To scale' },
            ]}
            onChange={(v) => setBy(v as typeof by)}
          />
        )}
        <div className={css.row}>
          {scaled ? (
            <>
              {number(across.name, round(perKm / across.cm), (v) => setPerKm(v * across.cm), 0.5)}
              {per && number(per.name, round(perVertical / per.cm), (v) => setPerVertical(v * per.cm), 0.5)}
            </>
          ) : (
            <>
              {number('Width, px', width, setWidth, 10)}
              {number('Height, px', height, setHeight, 10)}
            </>
          )}
          {format === 'png' && number('Pixels to each', factor, setFactor, 0.5)}
        </div>
        <p className={tooLarge ? css.bad : css.note}>
          {tooLarge
            ? `It would be ${size[0]} × ${size[1]}; each side has 200 to ${MOST} pixels.`
            : `${size[0]} × ${size[1]} px, ${(size[0] / PX_PER_CM).toFixed(1)} × ${(size[1] / PX_PER_CM).toFixed(1)} cm on paper.`}
        </p>
      </div>
      <footer className={css.foot}>
        <Button onClick={onClose}>Cancel</Button>
        <Button main disabled={busy || tooLarge || !(factor > 0 && factor <= 6)} onClick={() => void save()}>
          {busy ? 'Drawing …' : 'Save'}
        </Button>
      </footer>
    </Modal>
  );
}
