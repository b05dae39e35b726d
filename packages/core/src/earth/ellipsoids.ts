// Ellipsoids of the registry that proj4 has no name for: half axis (m) and inverse flattening.
const ELLIPSOIDS: Record<string, string> = {
  GSK2011: '+a=6378136.5 +rf=298.2564151',
  PZ90: '+a=6378136 +rf=298.257839303',
  WGS72: '+a=6378135 +rf=298.26',
  clrk80: '+a=6378249.145 +rf=293.4663',
  clrk80ign: '+a=6378249.2 +rf=293.4660212936269',
  danish: '+a=6377019.2563 +rf=300',
  helmert: '+a=6378200 +rf=298.3',
  NWL9D: '+a=6378145 +rf=298.25',
};

/** A definition in which ellipsoids that proj4 does not know by name stand with their numbers. */
export function withEllipsoid(definition: string): string {
  return definition.replace(/\+ellps=(\w+)/, (all, name) => ELLIPSOIDS[name] ?? all);
}
