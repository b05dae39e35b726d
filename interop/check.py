"""Opens what Lithagon wrote with readers that share nothing with it, and compares with the values as they were."""
import json
import subprocess
import sys

import h5py
import numpy as np
import segyio
import vtk
from vtk.util.numpy_support import vtk_to_numpy

folder = sys.argv[1]
want = json.load(open(f"{folder}/expected.json"))
ni, nj, nk = want["shape"]
samples = np.fromfile(f"{folder}/samples.f32", "<f4").reshape(ni, nj, nk)
x = np.fromfile(f"{folder}/x.f64", "<f8").reshape(ni, nj)
y = np.fromfile(f"{folder}/y.f64", "<f8").reshape(ni, nj)
horizon = np.fromfile(f"{folder}/horizon.f32", "<f4").reshape(want["horizon"])
zeroed = np.nan_to_num(samples)
results = []


def check(what, good):
    results.append(bool(good))
    print(("ok   " if good else "BAD  ") + what)


for name, part in [("ieee-1", 0), ("ieee-2", 0), ("ibm-1", 1e-6), ("compact-1", None)]:
    with segyio.open(f"{folder}/{name}.sgy", iline=189, xline=193) as f:
        data = segyio.tools.cube(f)
        check(f"{name}: {ni} x {nj} lines", list(f.ilines) == want["inlines"] and list(f.xlines) == want["crosslines"])
        check(f"{name}: times", np.allclose(f.samples, want["times"]))
        if part is None:
            step = 2.0 ** -f.header[0][segyio.TraceField.TraceWeightingFactor]
            check(f"{name}: samples to half a step", np.abs(data * step - zeroed).max() <= 0.5001 * step)
        else:
            check(f"{name}: samples", np.allclose(data, zeroed, rtol=part, atol=0))
        scale = -1 / f.header[0][segyio.TraceField.SourceGroupScalar]
        cx = np.array(f.attributes(segyio.TraceField.CDP_X)[:]) * scale
        check(f"{name}: coordinates", np.abs(cx.reshape(ni, nj) - x).max() <= 0.0051)
        check(f"{name}: text header", "TWO-WAY TIME" in segyio.tools.wrap(f.text[0]))

with h5py.File(f"{folder}/volume.h5") as f:
    check("h5: samples", np.array_equal(f["samples"][:], samples, equal_nan=True))
    check("h5: axes", list(f["inline"][:]) == want["inlines"] and np.allclose(f["twt"][:], want["times"]))
    check("h5: positions", np.allclose(f["x"][:], x, atol=0.05) and np.allclose(f["y"][:], y, atol=0.6))
    check("h5: what it is", f.attrs["quantity"] in ("amplitude", b"amplitude"))
with h5py.File(f"{folder}/horizon.h5") as f:
    check("h5: horizon", np.array_equal(f["values"][:], horizon, equal_nan=True))


def read(reader, name):
    reader.SetFileName(f"{folder}/{name}")
    reader.Update()
    return reader.GetOutput()


image = read(vtk.vtkXMLImageDataReader(), "volume.vti")
check("vti: extent", image.GetDimensions() == (nk, nj, ni))
values = vtk_to_numpy(image.GetPointData().GetScalars() or image.GetPointData().GetArray(0)).reshape(ni, nj, nk)
check("vti: samples", np.array_equal(values, samples, equal_nan=True))
far = [0.0, 0.0, 0.0]
image.TransformIndexToPhysicalPoint([nk - 1, nj - 1, ni - 1], far)
check("vti: far corner", np.allclose(far, [x[-1, -1], y[-1, -1], -want["times"][-1]], atol=0.1))

surface = read(vtk.vtkXMLPolyDataReader(), "horizon.vtp")
live = horizon[~np.isnan(horizon)]
check("vtp: a point a bin", surface.GetNumberOfPoints() == live.size and surface.GetNumberOfPolys() > 0)
check("vtp: values", np.array_equal(vtk_to_numpy(surface.GetPointData().GetArray(0)), live))
check("vtp: elevations", np.array_equal(vtk_to_numpy(surface.GetPoints().GetData())[:, 2], -live))
path = read(vtk.vtkXMLPolyDataReader(), "well.vtp")
check("vtp: one path", path.GetNumberOfLines() == 1 and path.GetNumberOfPoints() > 10)


def run(*command):
    done = subprocess.run(command, capture_output=True, text=True)
    if done.returncode != 0:
        raise RuntimeError(done.stderr)
    return done.stdout


info = json.loads(run("gdalinfo", "-json", f"{folder}/horizon.tif"))
check("tif: size", info["size"] == [want["horizon"][1], want["horizon"][0]])
check("tif: coordinate system", "zone 40S" in info["coordinateSystem"]["wkt"])
# only the cells: this format cannot turn
run("gdal_translate", "-q", "-of", "ENVI", "-a_ullr", "0", "1", "1", "0", f"{folder}/horizon.tif", f"{folder}/horizon.raw")
raw = np.fromfile(f"{folder}/horizon.raw", "<f4").reshape(want["horizon"])
check("tif: values", np.array_equal(raw, horizon, equal_nan=True))
t = info["geoTransform"]
mid = [t[0] + 0.5 * t[1] + 0.5 * t[2], t[3] + 0.5 * t[4] + 0.5 * t[5]]
check("tif: first cell's middle", np.allclose(mid, want["origin"], atol=0.01))
outline = run("ogrinfo", "-al", "-so", f"{folder}/outline.geojson")
check("geojson: one polygon in its system", "Feature Count: 1" in outline and "zone 40S" in outline)

print(f"{sum(results)} passed, {len(results) - sum(results)} failed")
sys.exit(0 if all(results) else 1)
