import { type Lattice, toMap } from '@lithagon/core';
import type { Size } from '../common/hooks';
import css from '../common/view.module.css';
import type { FieldLook } from '../raster/field';
import { useQuad } from '../raster/useQuad';
import type { MapFrame } from './frame';

/** A grid of values laid on the map where its bins are. */
export function MapRaster(props: {
  values: Float32Array;
  lattice: Lattice;
  look: FieldLook;
  frame: MapFrame;
  size: Size;
  /** Which plane of a volume it shows, where it does. */
  plane?: string;
}) {
  const { values, lattice, look, frame, size } = props;
  const [ni, nj] = [lattice.inline.count, lattice.crossline.count];
  // float32 positions: measured from the first corner
  const corner = (i: number, j: number) => {
    const [x, y] = toMap(lattice, i, j);
    return [x - lattice.origin[0], y - lattice.origin[1]];
  };
  const [cx, cy] = [frame.x - lattice.origin[0], frame.y - lattice.origin[1]];
  const [wide, tall] = [(size.width / 2) * frame.perPixel, (size.height / 2) * frame.perPixel];
  const canvas = useQuad({
    data: values,
    rows: ni,
    samples: nj,
    // crosslines run along the texture's x, inlines along y
    corners: [...corner(0, 0), ...corner(0, nj - 1), ...corner(ni - 1, nj - 1), ...corner(ni - 1, 0)],
    window: [cx - wide, cx + wide, cy + tall, cy - tall],
    look,
    width: size.width,
    height: size.height,
  });
  return (
    <canvas
      ref={canvas}
      className={css.canvas}
      data-testid="map-raster"
      data-plane={props.plane}
      style={{ width: size.width, height: size.height }}
    />
  );
}
