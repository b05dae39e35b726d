"""Holds operations and conversions between datums against PROJ (pyproj).

Reads from its first argument {operations, conversions}. Each operation is compared with PROJ's operation of the same code;
each conversion with every operation that PROJ knows between its systems: it may be no further from the nearest of them than
its stated error. Prints what does not hold.
"""
import json
import math
import sys
import warnings

from pyproj import CRS, Geod
from pyproj.transformer import Transformer, TransformerGroup

warnings.simplefilter("ignore")
geod = Geod(ellps="WGS84")
given = json.load(open(sys.argv[1]))

pipelines = {}
wrong, worst = [], 0
for case in given["operations"]:
    code = case["code"]
    if code not in pipelines:
        pipelines[code] = Transformer.from_pipeline(f"urn:ogc:def:coordinateOperation:EPSG::{code}")
    lat, lon = pipelines[code].transform(case["at"][1], case["at"][0])
    off = geod.inv(lon, lat, *case["ours"])[2]
    worst = max(worst, off)
    # heights, which are left out, change a place by less than this
    if off > 0.02:
        wrong.append({**case, "off": round(off, 3)})

groups, bad, unknown, checked = {}, [], set(), 0


def operations(source, target):
    if (source, target) not in groups:
        groups[source, target] = list(TransformerGroup(source, target, always_xy=True, allow_ballpark=False).transformers)
    return groups[source, target]


for case in given["conversions"]:
    source = CRS.from_user_input(case["from"])
    ways = [(operations(case["from"], case["to"]), case["at"])]
    # where longitudes are counted from elsewhere PROJ knows more operations for those counted from Greenwich
    if case.get("greenwich"):
        ways.append((operations(*case["greenwich"]), case["degrees"]))
    best = math.inf
    for transformers, at in ways:
        for transformer in transformers:
            x, y = transformer.transform(*at)
            if math.isfinite(x) and math.isfinite(y):
                best = min(best, geod.inv(x, y, *case["ours"])[2])
    if not math.isfinite(best):
        unknown.add(case["from"])
        continue
    checked += 1
    if best > max(case["accuracy"], 0.02):
        bad.append({**case, "off": round(best, 2)})
print(json.dumps({"operations": len(given["operations"]), "worst": worst, "wrong": wrong, "checked": checked,
                  "systems": len({c["from"] for c in given["conversions"]}), "unknown": sorted(unknown), "bad": bad}))
