import { xmlText } from '../xml.ts';
/** An array of a VTK file: its name, how many numbers make one value, and the bytes of its numbers, little-endian. */
export interface VtkArray {
  name: string;
  type: 'Float32' | 'Int32' | 'Int64';
  components: number;
  bytes: number;
}

interface Piece {
  kind: 'ImageData' | 'StructuredGrid' | 'PolyData';
  /** Attributes of the data element and of its piece. */
  attributes: string;
  piece: string;
  points?: VtkArray;
  pointData: VtkArray[];
  /** Lines or polygons of polydata: connectivity and offsets. */
  cells?: { name: 'Lines' | 'Polys'; arrays: VtkArray[] };
}

/**
 * The head of a VTK XML file whose arrays follow it as raw appended data (VTK File Formats, XML, version 1.0), and the
 * order in which they follow: each as its length in eight bytes and then its numbers.
 */
export function vtkHead({ kind, attributes, piece, points, pointData, cells }: Piece): {
  head: string;
  order: VtkArray[];
} {
  const order: VtkArray[] = [];
  let offset = 0;
  const array = (a: VtkArray) => {
    const text = `<DataArray type="${a.type}" Name="${xmlText(a.name)}" NumberOfComponents="${a.components}" format="appended" offset="${offset}"/>`;
    order.push(a);
    offset += 8 + a.bytes;
    return text;
  };
  const head = [
    '<?xml version="1.0"?>',
    `<VTKFile type="${kind}" version="1.0" byte_order="LittleEndian" header_type="UInt64">`,
    `<${kind}${attributes}>`,
    `<Piece ${piece}>`,
    `<PointData>${pointData.map(array).join('')}</PointData>`,
    points ? `<Points>${array(points)}</Points>` : '',
    cells ? `<${cells.name}>${cells.arrays.map(array).join('')}</${cells.name}>` : '',
    '</Piece>',
    `</${kind}>`,
    '<AppendedData encoding="raw">',
    '_',
  ].join('\n');
  return { head, order };
}

export const VTK_TAIL = '\n</AppendedData>\n</VTKFile>\n';

/** The length that goes before an array. */
export function vtkLength(bytes: number): Uint8Array {
  const out = new Uint8Array(8);
  new DataView(out.buffer).setBigUint64(0, BigInt(bytes), true);
  return out;
}

/** A whole polydata file of points joined to lines or polygons. */
export function polyData(
  points: Float32Array,
  pointData: { name: string; values: Float32Array }[],
  cells: { name: 'Lines' | 'Polys'; connectivity: Int32Array; offsets: Int32Array },
): Uint8Array[] {
  const bytes = (a: ArrayBufferView) => new Uint8Array(a.buffer, a.byteOffset, a.byteLength);
  const count = points.length / 3;
  const arrays: [VtkArray, ArrayBufferView][] = [];
  const one = (name: string, type: VtkArray['type'], components: number, data: ArrayBufferView): VtkArray => {
    const array = { name, type, components, bytes: data.byteLength };
    arrays.push([array, data]);
    return array;
  };
  const { head, order } = vtkHead({
    kind: 'PolyData',
    attributes: '',
    piece: `NumberOfPoints="${count}" NumberOfVerts="0" NumberOfLines="${cells.name === 'Lines' ? cells.offsets.length : 0}" NumberOfStrips="0" NumberOfPolys="${cells.name === 'Polys' ? cells.offsets.length : 0}"`,
    pointData: pointData.map((d) => one(d.name, 'Float32', 1, d.values)),
    points: one('Points', 'Float32', 3, points),
    cells: {
      name: cells.name,
      arrays: [one('connectivity', 'Int32', 1, cells.connectivity), one('offsets', 'Int32', 1, cells.offsets)],
    },
  });
  const text = new TextEncoder();
  return [
    text.encode(head),
    ...order.flatMap((array) => {
      const data = arrays.find(([a]) => a === array)?.[1] as ArrayBufferView;
      return [vtkLength(data.byteLength), bytes(data)];
    }),
    text.encode(VTK_TAIL),
  ];
}
