#!/usr/bin/env python3
"""Takes the operations between datums that are formulas out of PROJ's database (Debian: proj-data) and writes them as a
module: method, accuracy and area of use of each, its parameters in one convention (position vector; metres, seconds of
arc, parts per million). The registry is that of the EPSG, whose terms of use allow it with its source named.

    python3 packages/core/scripts/datum-shifts.py > packages/core/src/earth/datumShifts.ts
"""
import json
import sqlite3
import sys

db = sqlite3.connect(sys.argv[1] if len(sys.argv) > 1 else "/usr/share/proj/proj.db")
version = dict(db.execute("select key, value from metadata"))["EPSG.VERSION"]

factors = {code: factor for code, factor in db.execute("select code, conv_factor from unit_of_measure where auth_name = 'EPSG'")}
ARC = 3.141592653589793 / 180 / 3600
# geocentric translations; position vector; coordinate frame, whose rotations turn the other way; both about a pivot
METHODS = {"9603": 0, "9606": 1, "9607": -1, "9636": -1, "1063": 1}

bounds = {}
for code, south, north, west, east in db.execute(
    """select u.object_code, e.south_lat, e.north_lat, e.west_lon, e.east_lon from usage u
       join extent e on e.auth_name = u.extent_auth_name and e.code = u.extent_code
       where u.object_table_name in ('helmert_transformation', 'helmert_transformation_table') and u.object_auth_name = 'EPSG'"""
):
    if south is None:
        south, north, west, east = -90, 90, -180, 180
    before = bounds.get(code)
    bounds[code] = (
        (min(before[0], south), min(before[1], west), max(before[2], north), max(before[3], east)) if before else (south, west, north, east)
    )

superseded = {
    code
    for (code,) in db.execute(
        "select superseded_code from supersession where superseded_auth_name = 'EPSG' and superseded_table_name like 'helmert%'"
    )
}
flat = {code for (code,) in db.execute("select code from geodetic_crs where auth_name = 'EPSG' and type = 'geographic 2D'")}


def number(v):
    return float(f"{v:.10g}")


operations = []
for row in db.execute(
    """select code, method_code, source_crs_code, target_crs_code, accuracy, tx, ty, tz, translation_uom_code,
       rx, ry, rz, rotation_uom_code, scale_difference, scale_difference_uom_code, px, py, pz, pivot_uom_code
       from helmert_transformation_table
       where auth_name = 'EPSG' and deprecated = 0 and source_crs_auth_name = 'EPSG' and target_crs_auth_name = 'EPSG'
       order by cast(code as integer)"""
):
    code, method, source, target, accuracy, tx, ty, tz, tu, rx, ry, rz, ru, ds, du, px, py, pz, pu = row
    if code in superseded or str(method) not in METHODS or source not in flat or target not in flat or accuracy is None:
        continue
    length = factors[tu]
    values = [tx * length, ty * length, tz * length]
    turn = METHODS[str(method)]
    if turn != 0:
        angle = factors[ru] / ARC
        values += [turn * rx * angle, turn * ry * angle, turn * rz * angle, ds * factors[du] * 1e6]
    if px is not None:
        values += [px * factors[pu], py * factors[pu], pz * factors[pu]]
    area = [round(v, 2) for v in bounds.get(code, (-90, -180, 90, 180))]
    operations.append([int(code), int(source), int(target), accuracy, area, [number(v) for v in values]])

meridian = dict(
    db.execute(
        """select c.code, d.prime_meridian_code from geodetic_crs c join geodetic_datum d
           on d.auth_name = c.datum_auth_name and d.code = c.datum_code where c.auth_name = 'EPSG'"""
    )
)
# the same datum with longitudes counted from elsewhere: nothing is moved, as longitudes are counted from Greenwich here
same = [
    [int(s), int(t)]
    for s, t in db.execute(
        """select source_crs_code, target_crs_code from other_transformation where auth_name = 'EPSG' and method_code = '9601'
           and deprecated = 0"""
    )
    if s in flat and t in flat and meridian[s] != meridian[t]
]
bases = {
    int(code): int(base)
    for code, base in db.execute(
        "select code, geodetic_crs_code from projected_crs where auth_name = 'EPSG' and geodetic_crs_auth_name = 'EPSG'"
    )
}
by_base = {}
for code, base in bases.items():
    by_base.setdefault(base, []).append(code)
# runs of codes that follow each other are written as their ends
runs = {}
for base, codes in sorted(by_base.items()):
    out = []
    for code in sorted(codes):
        if out and out[-1][1] == code - 1:
            out[-1][1] = code
        else:
            out.append([code, code])
    runs[base] = out

text = lambda v: json.dumps(v, separators=(",", ":"), ensure_ascii=False).replace("\\", "\\\\").replace("'", "\\'")
print(f"""// Written by scripts/datum-shifts.py from the EPSG registry, {version}, as PROJ's database has it. Not edited by hand.

/**
 * An operation between two geographic systems: code, codes of its source and target, stated accuracy (m), area of use
 * (south, west, north, east, degrees), parameters. Parameters are a translation (m); then rotations (seconds of arc,
 * position vector) and a scale (ppm); then the pivot of both (m).
 */
export type DatumShift = [
  code: number,
  source: number,
  target: number,
  accuracyM: number,
  area: [south: number, west: number, north: number, east: number],
  parameters: number[],
];

export const DATUM_SHIFTS: DatumShift[] = JSON.parse(
  '{text(operations)}',
);

/** Pairs of geographic systems of one datum that differ in their prime meridian alone. */
export const SAME_DATUM: [number, number][] = JSON.parse('{text(same)}');

/** Runs of codes of projected systems by the code of the geographic system that they are based on. */
export const BASES: Record<number, [first: number, last: number][]> = JSON.parse(
  '{text(runs)}',
);""")
