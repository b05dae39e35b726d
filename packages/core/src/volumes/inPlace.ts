import { type BinGrid, binArea, toMap } from '../earth/binGrid.ts';
import { heed } from '../numerics/stop.ts';

export interface Contacts {
  /** Depths below the datum (m); null where there is no such contact. */
  goc: number | null;
  owc: number;
}

/** Rock of one leg: net over gross, porosity of net, water saturation of net. */
export interface LegRock {
  netToGross: number;
  porosity: number;
  water: number;
}

export interface Rock {
  gas: LegRock;
  oil: LegRock;
  /** Reservoir volume over volume at 15 °C and 101.325 kPa. */
  oilFactor: number;
  gasFactor: number;
}

/** Part of gross rock that is hydrocarbon. */
const hydrocarbonPart = ({ netToGross, porosity, water }: LegRock) => netToGross * porosity * (1 - water);

export interface InPlace {
  grossRock: number;
  grossGas: number;
  grossOil: number;
  net: number;
  pore: number;
  hydrocarbonPore: number;
  oil: number;
  gas: number;
  /** Bins that lie in the area and have no top or base. */
  missing: number;
}

/**
 * Hydrocarbon thickness over each bin: metres of hydrocarbon that the rock between two surfaces holds above its contacts.
 * @returns `[inline][crossline]`, m; NaN outside the area and where a surface is missing
 */
export function hydrocarbonThickness(
  binGrid: BinGrid,
  top: Float32Array,
  base: Float32Array,
  inside: (x: number, y: number) => boolean,
  contacts: Contacts,
  rock: Rock,
): Float32Array {
  const columns = binGrid.crossline.count;
  return Float32Array.from(top, (from, n) => {
    if (n % columns === 0) heed();
    if (!inside(...toMap(binGrid, Math.floor(n / columns), n % columns))) return Number.NaN;
    const to = Math.min(base[n], contacts.owc);
    if (Number.isNaN(from) || Number.isNaN(to)) return Number.NaN;
    if (to <= from) return 0;
    const split = contacts.goc === null ? from : Math.min(to, Math.max(from, contacts.goc));
    return (split - from) * hydrocarbonPart(rock.gas) + (to - split) * hydrocarbonPart(rock.oil);
  });
}

const PARTS = 6;

/**
 * Rock and fluid between two surfaces above their contacts, inside an area. Each cell between four bins is divided so
 * that contacts, pinch-outs and the area's edge cut it in proportion; surfaces are bilinear in a cell.
 * @param top, base `[inline][crossline]`, metres below the datum, on one bin grid; volumes in m³
 */
export function inPlace(
  binGrid: BinGrid,
  top: Float32Array,
  base: Float32Array,
  inside: (x: number, y: number) => boolean,
  contacts: Contacts,
  rock: Rock,
): InPlace {
  const [rows, columns] = [binGrid.inline.count, binGrid.crossline.count];
  const part = binArea(binGrid) / (PARTS * PARTS);
  let [gas, oil, missing] = [0, 0, 0];
  for (let i = 0; i + 1 < rows; i++) {
    heed();
    for (let j = 0; j + 1 < columns; j++) {
      const n = i * columns + j;
      const corners = [n, n + 1, n + columns, n + columns + 1];
      const whole = corners.every((c) => !Number.isNaN(top[c]) && !Number.isNaN(base[c]));
      for (let a = 0; a < PARTS; a++)
        for (let b = 0; b < PARTS; b++) {
          const [fi, fj] = [(a + 0.5) / PARTS, (b + 0.5) / PARTS];
          if (!inside(...toMap(binGrid, i + fi, j + fj))) continue;
          if (!whole) {
            missing += 1 / (PARTS * PARTS);
            continue;
          }
          const at = (v: Float32Array) =>
            (v[n] * (1 - fj) + v[n + 1] * fj) * (1 - fi) + (v[n + columns] * (1 - fj) + v[n + columns + 1] * fj) * fi;
          const from = at(top);
          const to = Math.min(at(base), contacts.owc);
          if (to <= from) continue;
          const split = contacts.goc === null ? from : Math.min(to, Math.max(from, contacts.goc));
          gas += part * (split - from);
          oil += part * (to - split);
        }
    }
  }
  const net = (gross: number, leg: LegRock) => gross * leg.netToGross;
  const pore = (gross: number, leg: LegRock) => net(gross, leg) * leg.porosity;
  const [gasPore, oilPore] = [gas * hydrocarbonPart(rock.gas), oil * hydrocarbonPart(rock.oil)];
  return {
    grossRock: gas + oil,
    grossGas: gas,
    grossOil: oil,
    net: net(gas, rock.gas) + net(oil, rock.oil),
    pore: pore(gas, rock.gas) + pore(oil, rock.oil),
    hydrocarbonPore: gasPore + oilPore,
    oil: oilPore / rock.oilFactor,
    gas: gasPore / rock.gasFactor,
    missing,
  };
}
