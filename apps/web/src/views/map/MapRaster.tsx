import { type BinGrid, toMap } from '@lithagon/core';
import type { Size } from '../common/hooks';
import css from '../common/view.module.css';
import type { FieldLook } from '../raster/field';
import type { Mix } from '../raster/mix';
import type { Sum } from '../raster/quad';
import { useQuad } from '../raster/useQuad';
import type { MapFrame } from './frame';

/** A grid of values laid on the map where its bins are. */
export function MapRaster(props: {
  values: Float32Array;
  binGrid: BinGrid;
  look: FieldLook;
  mix?: Mix;
  sum?: Sum;
  frame: MapFrame;
  size: Size;
  /** Which plane of a volume it shows, where it does. */
  plane?: string;
  /** What it is, for tests. */
  name?: string;
  /** Whether it darkens what lies under it instead of covering that. */
  multiply?: boolean;
}) {
  const { values, binGrid, look, frame, size } = props;
  const [ni, nj] = [binGrid.inline.count, binGrid.crossline.count];
  // float32 positions: measured from the first corner
  const corner = (i: number, j: number) => {
    const [x, y] = toMap(binGrid, i, j);
    return [x - binGrid.origin[0], y - binGrid.origin[1]];
  };
  const [cx, cy] = [frame.x - binGrid.origin[0], frame.y - binGrid.origin[1]];
  const [wide, tall] = [(size.width / 2) * frame.perPixel, (size.height / 2) * frame.perPixel];
  const canvas = useQuad({
    data: values,
    rows: ni,
    samples: nj,
    // crosslines run along the texture's x, inlines along y
    corners: [...corner(0, 0), ...corner(0, nj - 1), ...corner(ni - 1, nj - 1), ...corner(ni - 1, 0)],
    window: [cx - wide, cx + wide, cy + tall, cy - tall],
    look,
    mix: props.mix,
    sum: props.sum,
    width: size.width,
    height: size.height,
  });
  return (
    <canvas
      ref={canvas}
      className={css.canvas}
      data-testid={`${props.name ?? 'map'}-raster`}
      data-plane={props.plane}
      style={{
        width: size.width,
        height: size.height,
        mixBlendMode: props.multiply ? 'multiply' : undefined,
        opacity: props.multiply ? 0.55 : undefined,
      }}
    />
  );
}
